# frozen_string_literal: true

module NimbleLedger
  module Time
    # Quoted hours (model.md section 4): the house quantile of a total in hours, rounded up to the house increment, not
    # below the house minimum.
    module QuotedHours
      module_function

      # @param total [Total]
      # @return [Integer] tenths of an hour
      def tenths(total, house:)
        increment = (house["increment_hours"] * 10).round
        least = ceil(house["minimum_hours"] * 10.0, increment)
        [ceil(total.quantile(house["quantile"]) / 6.0, increment), least].max
      end

      def ceil(tenths, increment) = ((tenths / increment) - 1e-9).ceil * increment
      private_class_method :ceil
    end
  end
end
