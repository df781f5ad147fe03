# frozen_string_literal: true

module NimbleServer
  module Features
    module Setup
      # The first shop of an empty server.
      Feature =
        NimbleServer::Feature.define(:setup) do
          depends :accounts, :shop_details
          routes { [Routes] }
        end
    end
  end
end
