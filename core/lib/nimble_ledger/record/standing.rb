# frozen_string_literal: true

module NimbleLedger
  module Record
    # Where one offered scope stands (model.md section 14: sent → authorized | declined | expired | superseded). It
    # follows from what was done, and from the time: nothing is ever switched.
    #
    #   Standing.new(expires_at: monday, now: today).state                  #=> "sent"
    #   Standing.new(expires_at: monday, now: today, answer: "yes").state   #=> "authorized"
    class Standing
      STATES = %w[draft sent authorized declined expired superseded].freeze

      # @param expires_at [Time]
      # @param now [Time]
      # @param answer ["yes", "no", nil]
      # @param superseded [Boolean] whether something newer was sent, or a yes to another scope holds the same work
      def initialize(expires_at:, now:, answer: nil, superseded: false)
        @expires_at = expires_at
        @now = now
        @answer = answer
        @superseded = superseded
        freeze
      end

      # An answer outlasts everything: what was agreed stays agreed, whatever is sent later.
      # @return [String] one of STATES
      def state
        return { "yes" => "authorized", "no" => "declined" }.fetch(@answer) if @answer
        return "superseded" if @superseded

        @now >= @expires_at ? "expired" : "sent"
      end

      # Whether an answer can still be given.
      def open? = state == "sent"

      # The state of several scopes as one: an authorized one speaks for all, then what still waits.
      # @param states [Array<String>]
      # @return [String] one of STATES
      def self.of_all(states) =
        %w[authorized sent declined expired superseded].find { |state| states.include?(state) } || "draft"
    end
  end
end
