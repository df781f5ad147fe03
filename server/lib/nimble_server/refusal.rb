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

    # One that was said elsewhere, once more.
    # @param hash [Hash] as of #to_h
    def self.said(status, hash)
      error = hash.fetch("error")
      new(status, error["code"], error["message"], details: error["details"], extra: hash.except("error"))
    end

    def self.not_found(what) = new(404, "not_found", "There is no such #{what} in this shop.")
  end
end
