# frozen_string_literal: true

module NimbleServer
  module Features
    module Vehicles
      # The vehicles a shop knows, with their owners.
      class Garage
        LIMIT = 60

        def initialize(shop)
          @shop = shop
        end

        # By plate, owner, phone, description or engine code; by plate when nothing is asked.
        def search(text)
          words = text.to_s.strip.downcase.split.first(6)
          words
            .reduce(joined.order(Sequel[:vehicles][:plate]).limit(LIMIT)) do |rows, word|
              pattern = "%#{rows.escape_like(word)}%"
              rows.where(Sequel.ilike(haystack, pattern))
            end
            .all
        end

        # Every car with its owner, by plate.
        def everything = joined.order(Sequel[:vehicles][:plate]).all

        # @return [Hash, nil]
        def by_plate(plate) = joined.where(Sequel[:vehicles][:plate] => plate).first

        def find(id) = joined.where(Sequel[:vehicles][:id] => id).first || raise(Refusal.not_found("vehicle"))

        # @param given [Hash] see the contract, NewVehicle
        # @return [Hash] the card of the new vehicle
        # @raise [Refusal] when the plate is known already or the engine is not
        def add(given)
          refuse(given)
          id =
            @shop.transaction do
              customer = given["customer"] && Owner.known_or_new(@shop, given["customer"].transform_keys(&:to_sym))
              car =
                @shop.insert(
                  :vehicles,
                  customer_id: customer,
                  plate: given["plate"].strip.upcase,
                  description: given["description"].strip,
                  year: given["year"],
                  engine_code: given["engine_code"],
                  odometer_km: given["odometer_km"],
                  condition: Sequel.pg_jsonb({})
                )
              Car.note_reading(@shop, { id: car }, given["odometer_km"], "")
              car
            end
          Garage.card(find(id), @shop.now)
        rescue Sequel::UniqueConstraintViolation
          raise Plate.known(given["plate"])
        end

        # @raise [Refusal] for a year to come, a plate that is known, an engine that is not
        def refuse(given)
          ModelYear.check(given["year"], @shop.now)
          Plate.refuse_known(@shop, given["plate"])
          Library.newest_engine(@shop, given["engine_code"])
        end
        private :refuse

        # Notes what was learned of a car's past, so that its next quote starts from it. A key that is absent stays as
        # it was.
        # @param given [Hash] see the contract, VehicleHistory
        # @return [Hash] the card
        # @raise [Refusal] 422 when the last change would stand above the odometer
        def note(id, given)
          row = find(id)
          values = noted(row, given)
          believe(row.merge(values))
          Car.believe(@shop, row, values[:odometer_km], given["odometer_reason"], path: "/odometer_km")
          values.merge!(updated_by: @shop.actor.account_id, updated_at: @shop.now)
          @shop.transaction do
            Car.note_reading(@shop, row, values[:odometer_km], given["odometer_reason"])
            @shop[:vehicles].where(id: id).update(values)
          end
          Garage.card(find(id), @shop.now)
        end

        # Quotes and jobs of a customer's cars are found by the name as it is now.
        def renew_search(customer_id)
          joined.where(customer_id: customer_id).all.each { |vehicle| renew_search_of(vehicle) }
        end

        # @param vehicle [Hash] row with its customer
        def renew_search_of(vehicle)
          @shop[:quotes]
            .where(vehicle_id: vehicle[:id])
            .select_map(%i[id number])
            .each { |id, number| @shop[:quotes].where(id: id).update(search: Garage.search_text(vehicle, number)) }
        end

        # The text quotes of a vehicle are found by.
        def self.search_text(vehicle, number)
          [
            number,
            vehicle[:plate],
            vehicle[:plate].gsub(/[^[:alnum:]]/, ""),
            vehicle[:description],
            vehicle[:engine_code],
            vehicle[:customer_name],
            vehicle[:customer_phone]
          ].compact.join(" ").downcase
        end

        # What the page shows of a vehicle.
        def self.card(row, now)
          facts = facts(row, now)
          {
            "id" => row[:id],
            "customer_id" => row[:customer_id],
            "email" => row[:customer_email],
            "plate" => row[:plate],
            "description" => row[:description],
            "year" => row[:year],
            "engine_code" => row[:engine_code],
            "customer" => row[:customer_name],
            "phone" => row[:customer_phone],
            "lives" => row[:lives],
            "notes" => row[:notes],
            "plug_fitted" => row[:plug_fitted]
          }.merge(facts)
        end

        # What the core needs to know of a vehicle; nil where unknown.
        def self.facts(row, now)
          changed = row[:plugs_changed_on]
          {
            "odometer_km" => row[:odometer_km],
            "plugs_changed_km" => row[:plugs_changed_km],
            "plugs_changed_years" => changed && ((now.to_date - changed).to_i / 365.25).round(1),
            "compound_used" => row[:compound_used],
            "age_years" => row[:year] && [now.year - row[:year], 0].max,
            "corrosion" => row[:condition].to_h["corrosion"],
            "variants" => row[:variants].to_h,
            "fitted" => row[:fitted]&.to_h,
            "cylinders" => row[:cylinders].to_h
          }
        end

        private

        # Refuses changes that stand above the odometer, the car's and every cylinder's.
        def believe(row)
          changes = {
            nil => row[:plugs_changed_km],
            **row[:cylinders].to_h.transform_values { |own| own["plugs_changed_km"] }
          }
          changes.each do |cylinder, changed|
            doubt = NimbleLedger::Risk::History.doubt(changed, row[:odometer_km], cylinder: cylinder) or next
            raise Refusal.new(
                    422,
                    "invalid_history",
                    @shop.text.doubt(doubt),
                    details: [
                      {
                        "path" => "#{"/cylinders/#{cylinder}" if cylinder}/plugs_changed_km",
                        "message" => "is above the odometer (#{@shop.text.distance(row[:odometer_km])})"
                      }
                    ]
                  )
          end
        end

        def noted(row, given)
          values =
            given.slice("plugs_changed_km", "odometer_km", "compound_used", "lives", "plug_fitted").transform_keys(
              &:to_sym
            )
          if given.key?("plugs_changed_years")
            years = given["plugs_changed_years"]
            values[:plugs_changed_on] = years && (@shop.now.to_date - (years * 365.25).round)
          end
          %w[variants cylinders].each { |key| values[key.to_sym] = Sequel.pg_jsonb(given[key]) if given.key?(key) }
          values[:fitted] = given["fitted"] && Sequel.pg_jsonb(given["fitted"]) if given.key?("fitted")
          values[:condition] = Sequel.pg_jsonb(
            row[:condition].to_h.merge("corrosion" => given["corrosion"])
          ) if given.key?("corrosion")
          values
        end

        def joined
          vehicles = Sequel[:vehicles]
          customers = Sequel[:customers]
          @shop[:vehicles]
            .left_join(:customers, shop_id: vehicles[:shop_id], id: vehicles[:customer_id])
            .select_all(:vehicles)
            .select_append(
              customers[:name].as(:customer_name),
              customers[:phone].as(:customer_phone),
              customers[:email].as(:customer_email),
              customers[:wishes].as(:customer_wishes)
            )
        end

        def haystack
          Sequel.join(
            [
              Sequel[:vehicles][:plate],
              Sequel.function(:regexp_replace, Sequel[:vehicles][:plate], "[^[:alnum:]]", "", "g"),
              Sequel[:vehicles][:description],
              Sequel[:vehicles][:engine_code],
              Sequel.function(:coalesce, Sequel[:customers][:name], ""),
              Sequel.function(:coalesce, Sequel[:customers][:phone], "")
            ],
            " "
          )
        end
      end
    end
  end
end
