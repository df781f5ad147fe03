# frozen_string_literal: true

module NimbleServer
  module Features
    module Vehicles
      # One car over the years: its number, its readings, its owners, what was fitted to it.
      class Car
        MOST = 40

        def initialize(shop, vehicle_id)
          @shop = shop
          @id = vehicle_id
          @garage = Garage.new(shop)
        end

        # @return [Hash] see the contract, CarPage
        def page
          row = @garage.find(@id)
          {
            "vehicle" => Garage.card(row, @shop.now),
            "maker_number" => row[:maker_number],
            "plug_notes" => row[:plug_notes]&.to_h,
            "readings" => readings,
            "former_owners" => former_owners,
            "fittings" => Fittings.new(@shop).of(row)
          }
        end

        # @param given [Hash] see the contract, ChangeCar; a key that is absent stays as it was
        # @raise [Refusal] 404, 409 for a plate that is known, 422 for what does not fit, with its path
        def change(given)
          @shop.transaction do
            values = changed(@garage.find(@id), given)
            @shop[:vehicles].where(id: @id).update(values)
            @garage.renew_search_of(@garage.find(@id))
          end
          page
        rescue Sequel::UniqueConstraintViolation
          raise Plate.known(given["plate"])
        end

        # Notes what the odometer shows.
        # @param given [Hash] see the contract, NewReading
        # @raise [Refusal] 422 when it fell and nobody says why
        def read(given)
          @shop.transaction do
            row = @garage.find(@id)
            Car.believe(@shop, row, given["km"], given["reason"], path: "/km")
            Car.note_reading(@shop, row, given["km"], given["reason"])
            @shop[:vehicles].where(id: @id).update(odometer_km: given["km"])
          end
          page
        end

        # @raise [Refusal] 422 for a reading that fell without a reason
        def self.believe(shop, row, km, reason, path:)
          return if km.nil? || NimbleLedger::Vehicle::Odometer.believable?(km, row[:odometer_km], reason: reason)

          was = shop.text.distance(row[:odometer_km])
          raise Refusal.new(
                  422,
                  "odometer_fell",
                  "The odometer stood at #{was} before. Say why it is lower now.",
                  details: [{ "path" => path, "message" => "is below the last reading, #{was}" }]
                )
        end

        def self.note_reading(shop, row, km, reason)
          return if km.nil? || km == row[:odometer_km]

          shop.insert(:odometer_readings, vehicle_id: row[:id], km: km, reason: reason.to_s.strip)
        end

        private

        # @return [Hash] columns
        def changed(row, given)
          ModelYear.check(given["year"], @shop.now)
          Plate.refuse_known(@shop, given["plate"], except: row[:id])
          values = given.slice("plate", "description", "year").transform_keys(&:to_sym)
          values[:plate] = given["plate"].strip.upcase if given["plate"]
          values[:maker_number] = maker_number(given["maker_number"]) if given.key?("maker_number")
          values[:plug_notes] = plug_notes(given["plug_notes"]) if given.key?("plug_notes")
          values[:customer_id] = owner(row, given["owner"]) if given.key?("owner")
          values.merge(updated_by: @shop.actor.account_id, updated_at: @shop.now)
        end

        def plug_notes(given)
          notes = NimbleLedger::Bench::PlugNotes.build(given, path: "/plug_notes")
          notes && Sequel.pg_jsonb(notes.to_h)
        end

        FAULTS = {
          "length" => "has not seventeen letters and digits",
          "letters" => "holds something a maker's number never holds: no I, O or Q",
          "check_digit" => "has a check digit, its ninth figure, that does not fit: look again"
        }.freeze

        def maker_number(text)
          number = NimbleLedger::Vehicle::MakerNumber.plain(text)
          return nil if number.empty?

          fault = NimbleLedger::Vehicle::MakerNumber.fault(number) or return number
          raise Refusal.new(
                  422,
                  "invalid_maker_number",
                  "The maker's number #{FAULTS.fetch(fault)}.",
                  details: [{ "path" => "/maker_number", "message" => FAULTS.fetch(fault) }]
                )
        end

        # The car changes hands: who had it is kept.
        # @param given [Hash, nil] name and phone of a new owner, or the id of a known one; nil: nobody is noted
        def owner(row, given)
          id = given && (given["id"] ? known(given["id"]) : met(given))
          if row[:customer_id] && row[:customer_id] != id
            @shop.insert(:former_owners, vehicle_id: @id, customer_id: row[:customer_id])
          end
          id
        end

        def met(given) = Owner.known_or_new(@shop, given.slice("name", "phone").transform_keys(&:to_sym))

        def known(id)
          @shop[:customers].where(id: id, merged_into: nil).get(:id) || raise(Refusal.not_found("customer"))
        end

        def readings
          @shop[:odometer_readings]
            .where(vehicle_id: @id)
            .order(Sequel.desc(:created_at), Sequel.desc(:km))
            .limit(MOST)
            .map { |row| { "km" => row[:km], "at" => row[:created_at].iso8601, "reason" => row[:reason] } }
        end

        def former_owners
          @shop[:former_owners]
            .where(vehicle_id: @id)
            .join(:customers, shop_id: :shop_id, id: :customer_id)
            .order(Sequel.desc(Sequel[:former_owners][:created_at]))
            .select(Sequel[:customers][:name], Sequel[:former_owners][:created_at])
            .map { |row| { "name" => row[:name], "until" => row[:created_at].iso8601 } }
        end
      end
    end
  end
end
