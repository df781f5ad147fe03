# frozen_string_literal: true

module NimbleServer
  module Features
    module Setup
      # The first shop of an empty server. Adds: POST /api/setup, of use until there is a shop.
      module Routes
        def self.registered(app)
          app.api(:post, "/api/setup", role: :anyone, body: "NewShop") do
            json(Opening.new(settings.door, db, clock: settings.clock).open(body_json), 201)
          end
        end
      end
    end
  end
end
