# frozen_string_literal: true

module NimbleLedger
  module Time
    # Quoted hours (model.md section 4): the house quantile of a total in hours, rounded up to the house increment, not
    # below the house minimum.
    #
    #   QuotedHours.new(house).tenths(LognormalTotal.new(126.1, 0.0)) #=> 22
    class QuotedHours
      # @param house [House::Settings]
      def initialize(house)
        @increment = (house["increment_hours"] * 10).round
        @least = ceil(house["minimum_hours"] * 10.0)
        @quantile = house["quantile"]
        freeze
      end

      # @param total [LognormalTotal]
      # @return [Integer] tenths of an hour
      def tenths(total) = up(total.quantile(@quantile))

      # @param minutes [Float]
      # @return [Integer] tenths of an hour they are quoted as
      def up(minutes) = [ceil(minutes / 6.0), @least].max

      private

      def ceil(tenths) = ((tenths / @increment) - 1e-9).ceil * @increment
    end
  end
end
