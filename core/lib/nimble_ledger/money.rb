# frozen_string_literal: true

module NimbleLedger
  # Money is whole minor units (cents); fractions appear only inside a sum, exactly.
  module Money
    module_function

    # Rounds half up (away from zero for negative amounts).
    # @param exact [Rational, Integer]
    # @return [Integer] cents
    def round(exact)
      return exact if exact.is_a?(Integer)

      whole = exact.to_r
      twice = 2 * whole.denominator
      above = ((2 * whole.numerator.abs) + whole.denominator) / twice
      whole.negative? ? -above : above
    end

    # Spreads an amount over weights so that the parts sum to it, by largest remainder.
    # @param cents [Integer]
    # @param weights [Array<Integer>] not all zero
    # @return [Array<Integer>] cents, one for each weight
    def spread(cents, weights)
      whole = weights.sum
      shares = weights.map { |weight| Rational(cents * weight, whole) }
      floors = shares.map(&:floor)
      left = cents - floors.sum
      order = shares.each_index.sort_by { |i| [floors[i] - shares[i], i] }
      order.first(left).each { |i| floors[i] += 1 }
      floors
    end
  end
end
