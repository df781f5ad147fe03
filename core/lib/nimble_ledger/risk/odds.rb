# frozen_string_literal: true

module NimbleLedger
  module Risk
    # Chances are moved by multiplying their odds, p / (1 - p) (model.md section 5).
    module Odds
      module_function

      # @param chance [Numeric] 0 to 1
      # @param factor [Numeric] what the odds are multiplied by
      # @return [Float] a chance again; 0 and 1 stay what they are
      def shift(chance, factor)
        return chance.to_f if chance.zero? || chance == 1 || factor == 1

        moved = chance / (1.0 - chance) * factor
        moved / (1 + moved)
      end
    end
  end
end
