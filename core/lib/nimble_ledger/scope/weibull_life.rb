# frozen_string_literal: true

module NimbleLedger
  module Scope
    # How long a kind of part lasts (model.md section 8, "Parts"): Weibull in distance.
    #
    #   WeibullLife.new(2.6, 260_000).hazard(130_000)  #=> 0.165 (cumulative)
    class WeibullLife
      # @param shape [Numeric]
      # @param scale [Numeric] km
      def initialize(shape, scale)
        @shape = shape.to_f
        @scale = scale.to_f
        freeze
      end

      # @param km [Numeric] run since new
      # @return [Float] cumulative hazard, H(a)
      def hazard(km) = (km / @scale)**@shape

      # @param from [Numeric] km run
      # @param to [Numeric] km
      # @return [Float] hazard taken on between the two
      def between(from, to) = hazard(to) - hazard(from)
    end
  end
end
