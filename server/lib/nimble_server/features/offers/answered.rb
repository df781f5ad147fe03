# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # Scopes of a quote that were answered, in the order of the answers. A yes that was struck counts no more.
      module Answered
        # @param answer ["yes", "no"]
        # @return [Sequel::Dataset] with columns of offer_answers, offers and offer_scopes
        def self.of(shop, quote_id, answer)
          offers = Sequel[:offers]
          struck = { offer_id: Sequel[:offer_answers][:offer_id], position: Sequel[:offer_answers][:position] }
          shop[:offer_answers]
            .join(:offers, shop_id: :shop_id, id: :offer_id)
            .join(
              :offer_scopes,
              shop_id: offers[:shop_id],
              offer_id: offers[:id],
              position: Sequel[:offer_answers][:position]
            )
            .where(offers[:quote_id] => quote_id, Sequel[:offer_answers][:answer] => answer)
            .exclude(shop[:struck_answers].where(undone_at: nil, **struck).select(1).exists)
            .order(Sequel[:offer_answers][:created_at])
        end
      end
    end
  end
end
