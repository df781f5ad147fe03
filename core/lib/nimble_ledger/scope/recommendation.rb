# frozen_string_literal: true

module NimbleLedger
  module Scope
    # Which scope is recommended, which stands beside it, which is cheapest now, and how many returns that one would
    # have to bring for both to come to the same (model.md section 8). The cheaper-now scope is never hidden.
    class Recommendation
      # @param futures [Array<Future>] in the order they were given
      # @param house [House::Settings]
      def initialize(futures, house:)
        @complete = futures.select(&:complete?)
        @house = house
        freeze
      end

      # @return [Comebacks, nil] the least net; ties the first
      def recommended = @complete.min_by.with_index { |future, i| [future.net_cents, i] }

      # @return [Comebacks, nil] clearly less likely to come back, for little more
      def also
        return nil unless recommended

        most = recommended.net_cents * (1 + @house["also_share"])
        near = @complete.select { |future| future.net_cents <= most + 1e-9 }
        best = near.max_by.with_index { |future, i| [future.no_comeback, -i] }
        best if best.no_comeback >= recommended.no_comeback + @house["also_points"] - 1e-12
      end

      # @return [Comebacks, nil]
      def cheapest_now = @complete.min_by.with_index { |future, i| [future.now_cents, i] }

      # @return [Float, nil] returns; nil where both are one, or nothing can return
      def break_even
        cheap = cheapest_now
        return nil if cheap.nil? || cheap.equal?(recommended) || cheap.returns.zero?

        spared = recommended.net_cents - cheap.now_cents - cheap.scheduled_cents - cheap.life_used_cents
        [spared / (cheap.return_cents + @house["return_own_cents"]), 0.0].max
      end

      # @return [Hash] see formats.md, scopes
      def to_h
        {
          "recommended" => recommended&.id,
          "also" => also&.id,
          "cheapest_now" => cheapest_now&.id,
          "break_even_returns" => break_even
        }
      end
    end
  end
end
