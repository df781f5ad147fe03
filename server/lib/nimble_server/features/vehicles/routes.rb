# frozen_string_literal: true

module NimbleServer
  module Features
    module Vehicles
      # Vehicles. Adds: GET and POST /api/vehicles; of one GET and PUT, PUT its
      # history, POST its readings, fittings and findings.
      module Routes
        def self.registered(app)
          findings(app)
          over_the_years(app)
          fittings(app)
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

        def self.over_the_years(app)
          app.api(:get, "/api/vehicles/:id", role: :technician) { Car.new(shop, uuid(params["id"], "vehicle")).page }

          app.api(:put, "/api/vehicles/:id", role: :advisor, body: "ChangeCar") do
            Car.new(shop, uuid(params["id"], "vehicle")).change(body_json)
          end

          app.api(:post, "/api/vehicles/:id/readings", role: :advisor, body: "NewReading") do
            Car.new(shop, uuid(params["id"], "vehicle")).read(body_json)
          end
        end

        def self.fittings(app)
          app.api(:post, "/api/vehicles/:id/fittings", role: :advisor, body: "NewFitting") do
            id = uuid(params["id"], "vehicle")
            Fittings.new(shop).note(id, body_json)
            Car.new(shop, id).page
          end

          app.api(:post, "/api/vehicles/:id/fittings/:fitting/withdrawal", role: :advisor) do
            id = uuid(params["id"], "vehicle")
            Fittings.new(shop).withdraw(id, uuid(params["fitting"], "fitting"))
            Car.new(shop, id).page
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
