# frozen_string_literal: true

module NimbleServer
  module Features
    module Quotes
      # Working copies, pricing, saved revisions.
      Feature =
        NimbleServer::Feature.define(:quotes) do
          depends :engines, :house_rules, :ledger, :record, :vehicles
          publishes :putting_away
          routes { [Routes, Papers] }
        end
    end
  end
end
