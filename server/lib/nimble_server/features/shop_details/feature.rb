# frozen_string_literal: true

module NimbleServer
  module Features
    module ShopDetails
      # How a shop is called, where it is, how it writes.
      Feature = NimbleServer::Feature.define(:shop_details) { routes { [Routes] } }
    end
  end
end
