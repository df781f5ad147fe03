# frozen_string_literal: true

module NimbleLedger
  module Time
    # The standard normal distribution.
    module Normal
      A = [
        -3.969683028665376e+01,
        2.209460984245205e+02,
        -2.759285104469687e+02,
        1.383577518672690e+02,
        -3.066479806614716e+01,
        2.506628277459239e+00
      ].freeze
      B = [
        -5.447609879822406e+01,
        1.615858368580409e+02,
        -1.556989798598866e+02,
        6.680131188771972e+01,
        -1.328068155288572e+01
      ].freeze
      C = [
        -7.784894002430293e-03,
        -3.223964580411365e-01,
        -2.400758277161838e+00,
        -2.549732539343734e+00,
        4.374664141464968e+00,
        2.938163982698783e+00
      ].freeze
      D = [7.784695709041462e-03, 3.224671290700398e-01, 2.445134137142996e+00, 3.754408661907416e+00].freeze
      SPLIT = 0.02425
      # Half the width of a 95 % interval, in standard deviations (model.md section 12).
      WITHIN_95 = 1.959963984540054

      KNOWN = {} # rubocop:disable Style/MutableConstant -- the few quantiles a shop asks for, over and over

      module_function

      # @return [Float] P(Z <= z)
      def cdf(z) = 0.5 * Math.erfc(-z / Math.sqrt(2))

      # The z with cdf(z) = p: a rational start, then one Halley step to full precision.
      # @param p [Float] strictly between 0 and 1
      def quantile(p)
        raise ArgumentError, "p must lie between 0 and 1, got #{p}" unless p.positive? && p < 1

        KNOWN.clear if KNOWN.size > 100
        KNOWN[p] ||= refined(p)
      end

      def refined(p)
        z = start(p)
        error = (cdf(z) - p) * Math.sqrt(2 * Math::PI) * Math.exp(z * z / 2)
        z - (error / (1 + (z * error / 2)))
      end

      def start(p)
        return tail(Math.sqrt(-2 * Math.log(p))) if p < SPLIT
        return -tail(Math.sqrt(-2 * Math.log(1 - p))) if p > 1 - SPLIT

        q = p - 0.5
        r = q * q
        horner(A, r) * q / ((horner(B, r) * r) + 1)
      end

      def tail(q) = horner(C, q) / ((horner(D, q) * q) + 1)

      def horner(coefficients, x) = coefficients.reduce(0.0) { |sum, c| (sum * x) + c }
    end
  end
end
