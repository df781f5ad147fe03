# frozen_string_literal: true

module NimbleServer
  module Features
    module HouseRules
      # House rules. Adds: GET /api/house, PUT /api/house/equipment, PUT /api/house/settings.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/house", role: :technician) { Routes.page(House.new(shop)) }

          app.api(:put, "/api/house/equipment", role: :owner, body: "Equipment") do
            House.new(shop).keep_equipment(body_json["equipment"], body_json["revision"])
            Routes.page(House.new(shop))
          end

          app.api(:put, "/api/house/settings", role: :owner, body: "HouseFigures") do
            House.new(shop).keep_figures(body_json["settings"] || {}, body_json["shipped"] || [], body_json["revision"])
            Routes.page(House.new(shop))
          end
        end

        def self.page(house) =
          { "revision" => house.revision, "equipment" => house.equipment_rows, "settings" => house.rows }
      end
    end
  end
end
