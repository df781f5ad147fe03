# frozen_string_literal: true

module NimbleServer
  module Features
    module TheYes
      # A quote as an open document: its revisions with the requests that recompute them, what was offered of them, what
      # was said to that, and the digest each revision is sealed with.
      class Export
        FORMAT = "nimble-ledger.quote"
        VERSION = 1

        def initialize(shop)
          @shop = shop
        end

        # @return [Hash]
        # @raise [Refusal] 404
        def of(quote_id)
          desk = Quotes::Desk.new(@shop)
          quote = desk.find(quote_id)
          page = Page.new(@shop)
          {
            "format" => FORMAT,
            "version" => VERSION,
            "quote" => Quotes::Rows.quote(quote),
            "vehicle" => Vehicles::Garage.card(Vehicles::Garage.new(@shop).find(quote[:vehicle_id]), @shop.now),
            "revisions" => (1..quote[:latest_revision]).map { |number| revision(desk, quote, number) },
            "offers" =>
              Offers::Reading.new(@shop).of_quote(quote_id).reverse.map { |offer| page.shown(offer).except("link") }
          }
        end

        private

        def revision(desk, quote, number)
          id = @shop[:quote_revisions].where(quote_id: quote[:id], revision: number).get(:id)
          desk.revision(quote[:id], number).merge("sha256" => @shop[:quote_seals].where(revision_id: id).get(:sha256))
        end
      end
    end
  end
end
