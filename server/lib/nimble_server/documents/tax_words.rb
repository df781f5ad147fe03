# frozen_string_literal: true

module NimbleServer
  module Documents
    # Which taxes a total holds, with their rates, and whether the prices beside it contain them.
    module TaxWords
      # @param house [Hash] settings a revision was priced with
      # @param texts [Texts]
      # @param money [ShopText]
      # @return [String, nil] nil where there are none
      def self.of(house, texts, money)
        taxes = house["taxes"].to_a
        return nil if taxes.empty?

        named =
          taxes.map { |tax| texts.say("page.tax.one", label: tax["label"], percent: money.number(tax["percent"])) }
        texts.say(house["tax_inclusive"] ? "page.tax.contained" : "page.tax.added", list: texts.list(named))
      end
    end
  end
end
