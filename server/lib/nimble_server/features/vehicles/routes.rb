# frozen_string_literal: true

module NimbleServer
  module Features
    module Vehicles
      # Vehicles. Needs: Garage, Findings. Adds: GET and POST /api/vehicles, PUT its history, its findings.
      module Routes
        def self.registered(app)
          findings(app)
          app.api(:get, "/api/vehicles", role: :technician) do
            { "vehicles" => Garage.new(shop).search(params["search"]).map { |row| Garage.card(row, shop.now) } }
          end

          app.api(:put, "/api/vehicles/:id/history", role: :advisor, body: "VehicleHistory") do
            Garage.new(shop).note(uuid(params["id"], "vehicle"), body_json)
          end

          app.api(:post, "/api/vehicles", role: :advisor, body: "NewVehicle") do
            once(201) { Garage.new(shop).add(body_json) }
          end
        end

        def self.findings(app)
          app.api(:post, "/api/vehicles/:id/findings", role: :advisor, body: "NewFinding") do
            { "findings" => Findings.new(shop).note(uuid(params["id"], "vehicle"), body_json) }
          end

          app.api(:post, "/api/vehicles/:id/findings/:finding/settled", role: :advisor) do
            id = uuid(params["id"], "vehicle")
            { "findings" => Findings.new(shop).settle(id, uuid(params["finding"], "finding")) }
          end
        end
      end
    end
  end
end
