# frozen_string_literal: true

module NimbleLedger
  module Bill
    # The yeses in force: what they come to, up to what, with which discounts, and what of it was saved because it was
    # not done (model.md section 16).
    class YesesInForce
      # A discount that is left: its label, cents.
      Discount = Struct.new(:label, :cents)

      attr_reader :done_cents, :saved_cents

      # @param scopes [Array<Hash>] in force, as they were agreed (formats.md)
      # @param all_cents [Integer] price of all that was agreed, but what we owe
      # @param done_cents [Integer] price of what was done of it
      def initialize(scopes, all_cents:, done_cents:)
        @scopes = scopes
        @done_cents = done_cents
        @saved_cents = [all_cents - done_cents, 0].max
        freeze
      end

      def agreed_cents = @scopes.sum { |scope| scope["agreed_cents"] }
      def limit_cents = @scopes.sum { |scope| scope["limit_cents"] }

      # One for each scope, together at most the sum of the lines, the later cut first.
      # @param most [Integer] cents of the lines
      # @return [Array<Discount>]
      def discounts(most)
        left = most
        @scopes
          .filter_map { |scope| scope["discount"] }
          .filter_map do |row|
            cents = [row["cents"], left].min
            left -= cents
            Discount.new(row["label"] || "Discount", cents) if cents.positive?
          end
      end
    end
  end
end
