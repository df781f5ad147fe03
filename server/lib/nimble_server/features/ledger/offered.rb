# frozen_string_literal: true

module NimbleServer
  module Features
    module Ledger
      # The lesson that waits, with its evidence and what it would have done to the last months; and the one in force.
      class Offered
        # @param learned [Learned]
        # @param house [NimbleLedger::House::Settings]
        def initialize(shop, learned, house)
          @shop = shop
          @learned = learned
          @house = house
          @lessons = Lessons.new(shop)
        end

        # @return [Hash] see the contract, LedgerPage: "lesson", "in_force", "automatic"
        def to_h
          { "lesson" => lesson, "in_force" => in_force, "automatic" => @lessons.automatic? }
        end

        private

        def lesson
          last = @learned.last or return nil
          lesson = last["lesson"]
          return nil if lesson["jobs"].zero?

          {
            "state" => @learned.state,
            "jobs" => lesson["jobs"],
            "taken" => row&.fetch(:state) == @learned.state,
            "rows" => lesson["rows"],
            "lately" => lately(lesson["lately"])
          }
        end

        def lately(told)
          more = told["would_hours"] - told["quoted_hours"]
          told.merge("more_cents" => NimbleLedger::Ledger::Scorecard.cents(more, @house))
        end

        def row = @row ||= @lessons.in_force

        def in_force
          row &&
            {
              "id" => row[:id],
              "at" => row[:created_at].iso8601,
              "by" => row[:created_by] && @shop.db[:accounts].where(id: row[:created_by]).get(:name),
              "jobs" => row[:lesson].to_h["jobs"]
            }
        end
      end
    end
  end
end
