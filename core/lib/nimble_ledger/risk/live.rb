# frozen_string_literal: true

module NimbleLedger
  module Risk
    # The odds of the plugs still in the head, moved by what came out already (model.md section 5, "Live"): a shared
    # engine factor, gamma-Poisson with prior mean 1 and variance 0.8, and the sign seen on each plug.
    class Live
      VARIANCE = 0.8

      # @param expected [Array<Float>] break chance each plug that is out had, before it was turned
      # @param broke [Integer] how many of them broke
      def initialize(expected, broke)
        raise ArgumentError, "more plugs broke than came out" if broke > expected.size

        @expected = expected.sum(0.0)
        @broke = broke
        freeze
      end

      # @return [Float] above 1 when more broke than expected
      def factor = ((1 / VARIANCE) + @broke) / ((1 / VARIANCE) + @expected)

      # @param chance [Float] before
      # @param sign [String, nil] "freer", "more-force", "chirps", "hot"
      # @return [Float] break chance of a plug still in the head
      # @raise [KeyError] for a sign that is not known
      def chance(chance, sign: nil)
        return chance.to_f if chance.zero? || chance == 1

        odds = chance / (1.0 - chance) * factor * (sign ? PlugRemoval::SIGNS.fetch(sign) : 1)
        odds / (1 + odds)
      end
    end
  end
end
