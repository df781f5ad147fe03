# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # Scopes of a quote that were answered, in the order of the answers.
      module Answered
        # @param answer ["yes", "no"]
        # @return [Sequel::Dataset] with columns of offer_answers, offers and offer_scopes
        def self.of(shop, quote_id, answer)
          offers = Sequel[:offers]
          shop[:offer_answers]
            .join(:offers, shop_id: :shop_id, id: :offer_id)
            .join(
              :offer_scopes,
              shop_id: offers[:shop_id],
              offer_id: offers[:id],
              position: Sequel[:offer_answers][:position]
            )
            .where(offers[:quote_id] => quote_id, Sequel[:offer_answers][:answer] => answer)
            .order(Sequel[:offer_answers][:created_at])
        end
      end
    end
  end
end
