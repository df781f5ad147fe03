# frozen_string_literal: true

module NimbleLedger
  module Risk
    # The time of the job with its troubles: P(T <= t) = sum of P(outcome) x lognormal CDF (model.md section 5).
    class Mixture
      # @param total [Time::LognormalTotal] the job without trouble
      # @param outcomes [Array<OutcomeSpace::Outcome>]
      def initialize(total, outcomes)
        whole = outcomes.sum(0.0, &:chance)
        @parts = outcomes.map { |outcome| [outcome.chance / whole, total.plus(outcome.mean, outcome.variance)] }
        freeze
      end

      def mean = @parts.sum(0.0) { |chance, total| chance * total.mean }

      # @return [Float] minutes
      def sd
        center = mean
        Math.sqrt(@parts.sum(0.0) { |chance, total| chance * (total.variance + ((total.mean - center)**2)) })
      end

      # @return [Float] P(T <= minutes)
      def cdf(minutes) = @parts.sum(0.0) { |chance, total| chance * total.cdf(minutes) }

      # @return [Float] minutes not exceeded with probability p, to a thousandth of a minute
      def quantile(p)
        low, high = @parts.map { |_chance, total| total.quantile(p) }.minmax
        at_low = cdf(low) - p
        at_high = cdf(high) - p
        50.times do
          break if high - low < 1e-3

          guess = guess_between(low, at_low, high, at_high)
          value = cdf(guess) - p
          value.negative? ? (low, at_low = guess, value) : (high, at_high = guess, value)
        end
        (low + high) / 2
      end

      private

      # On the straight line between the ends, or in the middle where that would lie close to one of them.
      def guess_between(low, at_low, high, at_high)
        width = high - low
        guess = at_high > at_low ? low - (at_low * width / (at_high - at_low)) : low
        guess > low + (width * 0.05) && guess < high - (width * 0.05) ? guess : low + (width / 2)
      end
    end
  end
end
