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

    # One fault at one place: "The request has a fault: /plugs/2 names cylinder 9, which does not exist."
    # @param path [String] a JSON pointer
    # @param message [String] reads on after the path
    # @param what [String] what was handed in
    # @return [InvalidInput]
    def self.at(path, message, what: "request", code: "invalid_request")
      new(
        "The #{what} has a fault: #{path} #{message}.",
        code: code,
        details: [{ "path" => path, "message" => message }]
      )
    end
  end

  # The input is fine, but no plan reaches a target with the equipment and pins in force (model.md section 2).
  class ImpossiblePlan < Error
    def initialize(message, details: [])
      super(message, code: "impossible_plan", details: details)
    end
  end
end
