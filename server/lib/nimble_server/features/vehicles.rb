# frozen_string_literal: true

module NimbleServer
  module Features
    # Vehicles and their customers. Needs: Shop. Adds: GET and POST /api/vehicles, PUT its history.
    module Vehicles
      def self.registered(app)
        app.api(:get, "/api/vehicles", role: :technician) do
          { "vehicles" => Garage.new(shop).search(params["search"]).map { |row| Garage.card(row, shop.now) } }
        end

        app.api(:put, "/api/vehicles/:id/history", role: :advisor) { Garage.new(shop).note(uuid(params["id"], "vehicle"), body_json) }

        app.api(:post, "/api/vehicles", role: :advisor) do
          once(201) { Garage.new(shop).add(body_json) }
        end
      end
    end
  end
end
