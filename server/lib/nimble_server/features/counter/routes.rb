# frozen_string_literal: true

module NimbleServer
  module Features
    module Counter
      # The Counter. Adds: GET /api/counter, GET /api/find, GET
      # /api/vehicles/:id/file, POST /api/follow-ups/:id/settled.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/counter", role: :technician) { Needs.new(shop).to_h }
          app.api(:post, "/api/follow-ups/:id/settled", role: :advisor) do
            FollowUps.new(shop).settle(uuid(params["id"], "follow-up"))
            Needs.new(shop).to_h
          end
          app.api(:get, "/api/vehicles/:id/file", role: :technician) do
            CarFile.new(shop, uuid(params["id"], "vehicle")).to_h
          end
          app.api(:get, "/api/find", role: :technician) { Finder.new(shop).find(params["search"]) }
        end
      end
    end
  end
end
