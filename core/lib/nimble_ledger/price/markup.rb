# frozen_string_literal: true

module NimbleLedger
  module Price
    # Selling price of a part from its cost, by marginal brackets like a tax table (model.md section 6).
    module Markup
      module_function

      # @param cost_cents [Integer] standing cost of one
      # @param brackets [Array<Hash>] {"up_to_cents", "factor"}, climbing, the last one open
      # @param cap_cents [Integer, nil] list price; caps the price, but never below cost
      # @return [Integer] cents for one, rounded half up
      def selling_price(cost_cents, brackets, cap_cents: nil)
        from = 0
        exact =
          brackets.sum(0r) do |bracket|
            upto = [cost_cents, bracket["up_to_cents"] || cost_cents].min
            next 0 if upto <= from

            share = upto - from
            from = upto
            share * ThreePoints.exact(bracket["factor"])
          end
        price = Money.round(exact)
        cap_cents ? [[price, cap_cents].min, cost_cents].max : price
      end
    end
  end
end
