# frozen_string_literal: true

module NimbleLedger
  module Time
    # The hands-on time of a whole job, taken as lognormal (model.md section 4).
    class LognormalTotal
      attr_reader :mean, :variance

      # @param mean [Float] minutes, 0 or more
      # @param variance [Float] minutes squared
      # @param bent [Hash{Float=>Float}] calibrated quantiles by p (model.md section 12); the normal ones elsewhere
      def initialize(mean, variance, bent: {})
        @mean = mean
        @variance = variance
        @bent = bent
        if mean > 0
          spread = Math.log(1 + (variance / (mean * mean)))
          @s = Math.sqrt(spread)
          @mu = Math.log(mean) - (spread / 2)
        end
        freeze
      end

      # Adds up independent tasks and the common factor of the car: v = q²(1 + c²) + c²m².
      # @param tasks [Array<#mean,#variance>]
      # @param common_variation [Float] c, the coefficient of variation of the common factor
      def self.of(tasks, common_variation)
        mean = tasks.sum(0.0, &:mean)
        own = tasks.sum(0.0, &:variance)
        c2 = common_variation**2
        new(mean, (own * (1 + c2)) + (c2 * mean * mean))
      end

      def sd = Math.sqrt(variance)

      # @return [Float] minutes not exceeded with probability p
      def quantile(p)
        return mean unless mean > 0 && @s > 0

        Math.exp(@mu + (@s * z(p)))
      end

      # Whether that quantile lies in the upper half, where no trouble beside the job ever lowers it.
      def upper?(p) = z(p) >= 0

      # @return [Float] P(total <= minutes)
      def cdf(minutes)
        return minutes >= mean ? 1.0 : 0.0 unless mean > 0 && @s > 0

        minutes > 0 ? Normal.cdf((Math.log(minutes) - @mu) / @s) : 0.0
      end

      # The same job with extra work in it (a broken plug, a mishap).
      def plus(mean, variance) = LognormalTotal.new(@mean + mean, @variance + variance, bent: @bent)

      private

      def z(p) = @bent[p.to_f] || Normal.quantile(p)
    end
  end
end
