# frozen_string_literal: true

module NimbleServer
  # An answer other than success, in the error form of formats.md.
  class Refusal < StandardError
    attr_reader :status, :code, :details, :extra

    # @param extra [Hash] further members beside "error", such as both versions of a conflict
    def initialize(status, code, message, details: [], extra: {})
      super(message)
      @status = status
      @code = code
      @details = details
      @extra = extra
    end

    def to_h = { "error" => { "code" => code, "message" => message, "details" => details } }.merge(extra)

    def self.not_found(what) = new(404, "not_found", "There is no such #{what} in this shop.")
  end
end
