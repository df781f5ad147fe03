# frozen_string_literal: true

module NimbleServer
  module Features
    module Quotes
      # The saved revisions of a quote, with who saved each.
      class Revisions
        def initialize(shop)
          @shop = shop
        end

        # @return [Sequel::Dataset]
        def of(quote)
          @shop[:quote_revisions]
            .where(quote_id: quote[:id])
            .left_join(:accounts, id: Sequel[:quote_revisions][:created_by])
            .select_all(:quote_revisions)
            .select_append(Sequel[:accounts][:name].as(:actor))
        end

        # @return [Hash, nil]
        def newest(quote) = of(quote).where(revision: quote[:latest_revision]).first
      end
    end
  end
end
