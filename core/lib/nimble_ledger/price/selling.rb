# frozen_string_literal: true

module NimbleLedger
  module Price
    # What one of a part sells for: what one counts as, marked up as the house does, capped by its list price
    # (model.md section 6).
    module Selling
      module_function

      # @param catalog [Parts::Catalog]
      # @param brackets [Array<Hash>] see Markup
      # @return [Integer, nil] cents; nil when nobody has a price
      def price(catalog, part, brackets)
        cost = catalog.unit_cost(part)
        cost && Markup.selling_price(cost, brackets, cap_cents: catalog.list_cents(part))
      end

      # What one used part of a kit sells for (rules 3): like a single; where it is sold in kits only, on its share of
      # the cheapest kit, to the fraction of a cent.
      # @return [Integer, nil] cents
      def used_price(catalog, part, brackets)
        cost = catalog.exact_unit_cost(part)
        cost && Markup.selling_price(cost, brackets, cap_cents: catalog.list_cents(part))
      end
    end
  end
end
