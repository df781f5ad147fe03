# frozen_string_literal: true

module NimbleServer
  module Features
    module ShopDetails
      # How the shop is called, where it is and how it writes. Adds: PUT /api/shop.
      module Routes
        def self.registered(app)
          app.api(:put, "/api/shop", role: :owner, body: "ShopDetails") do
            Details.new(shop).tap { |details| details.keep(body_json) }.to_h
          end
        end
      end
    end
  end
end
