# frozen_string_literal: true

module NimbleLedger
  # Base of every error a user may be shown. `code` is stable for programs, `message` is for people, and
  # `details` lists where (`path`, a JSON pointer) and what to do about it.
  class Error < StandardError
    attr_reader :code, :details

    def initialize(message, code:, details: [])
      super(message)
      @code = code
      @details = details.freeze
    end

    # The error object of formats.md: {"error" => {"code", "message", "details"}}.
    def to_h
      { "error" => { "code" => code, "message" => message, "details" => details } }
    end
  end

  # The text or value handed in is not what the format asks for.
  class InvalidInput < Error
    def initialize(message, code: "invalid_input", details: [])
      super
    end
  end

  # The input is fine, but no plan reaches a target with the equipment and pins in force (model.md section 2).
  class ImpossiblePlan < Error
    def initialize(message, details: [])
      super(message, code: "impossible_plan", details: details)
    end
  end
end
