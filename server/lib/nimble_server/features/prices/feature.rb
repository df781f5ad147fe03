# frozen_string_literal: true

module NimbleServer
  module Features
    module Prices
      # The price list and its changes by rows.
      Feature =
        NimbleServer::Feature.define(:prices) do
          depends :house_rules
          routes { [Routes] }
        end
    end
  end
end
