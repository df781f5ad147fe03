# frozen_string_literal: true

module NimbleServer
  module Features
    module Counter
      # The Counter. Needs: Needs, Finder. Adds: GET /api/counter, GET /api/find.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/counter", role: :technician) { Needs.new(shop).to_h }
          app.api(:get, "/api/find", role: :technician) { Finder.new(shop).find(params["search"]) }
        end
      end
    end
  end
end
