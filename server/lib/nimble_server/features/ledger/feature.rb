# frozen_string_literal: true

module NimbleServer
  module Features
    module Ledger
      # Posting of finished jobs, lessons taken, the Ledger page, a past brought along.
      Feature =
        NimbleServer::Feature.define(:ledger) do
          depends :house_rules
          on(:handed_over) { |shop, finished:| Posting.new(shop).post(finished) }
          routes { [Routes] }
        end
    end
  end
end
