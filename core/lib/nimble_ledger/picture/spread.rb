# frozen_string_literal: true

module NimbleLedger
  module Picture
    # Hours as a range (model.md section 4): the density of the no-trouble total, with the figures that matter on it.
    class Spread
      POINTS = 48

      # @param total [Time::LognormalTotal]
      def initialize(total)
        @total = total
        @low = total.quantile(0.005) / 60
        @high = total.quantile(0.995) / 60
        freeze
      end

      attr_reader :low, :high

      # @return [Array<[Float, Float]>] hours and density per hour
      def curve
        return [[low, 1.0]] unless high > low

        step = (high - low) / POINTS
        edges = (0..POINTS).map { |i| @total.cdf((low + (i * step)) * 60) }
        edges.each_cons(2).with_index.map { |(before, after), i| [low + ((i + 0.5) * step), (after - before) / step] }
      end
    end
  end
end
