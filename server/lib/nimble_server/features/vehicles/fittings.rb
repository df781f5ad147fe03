# frozen_string_literal: true

module NimbleServer
  module Features
    module Vehicles
      # Plugs, coils, wires and boots that were fitted to a car: at which cylinder, when, by whom, and until when ours
      # are under warranty.
      class Fittings
        def initialize(shop)
          @shop = shop
        end

        # @param vehicle [Hash] row
        # @return [Array<Hash>] see the contract, Fitting; the newest first
        def of(vehicle)
          house = HouseRules::House.new(@shop).settings
          @shop[:fittings]
            .where(vehicle_id: vehicle[:id], withdrawn_at: nil)
            .order(Sequel.desc(:on), :work, :cylinder)
            .map { |row| shown(row, vehicle, house) }
        end

        # What we fitted to a car ourselves, as the core asks for it (Vehicle::Warranty.owed).
        # @return [Array<Hash>]
        def by_us(vehicle_id) =
          @shop[:fittings]
            .where(vehicle_id: vehicle_id, withdrawn_at: nil, ours: true)
            .map { |row| { "work" => row[:work], "cylinder" => row[:cylinder], "on" => row[:on], "km" => row[:km] } }

        # @param given [Hash] see the contract, NewFitting
        # @raise [Refusal] 404, 422 for a cylinder the engine lacks or a day to come
        def note(vehicle_id, given)
          vehicle = Garage.new(@shop).find(vehicle_id)
          on = day(given["on"])
          refuse_cylinders(vehicle, given["cylinders"])
          @shop.transaction do
            given["cylinders"].each do |cylinder|
              @shop.insert(
                :fittings,
                vehicle_id: vehicle_id,
                work: given["work"],
                cylinder: cylinder,
                km: given["km"],
                on: on,
                ours: given["ours"],
                by: given["by"].to_s.strip
              )
            end
          end
        end

        # It was noted by mistake.
        # @raise [Refusal] 404
        def withdraw(vehicle_id, id)
          rows = @shop[:fittings].where(vehicle_id: vehicle_id, id: id, withdrawn_at: nil)
          @shop.transaction { raise Refusal.not_found("fitting") if rows.update(withdrawn_at: @shop.now).zero? }
        end

        private

        def shown(row, vehicle, house)
          warranty = NimbleLedger::Vehicle::Warranty.new(house, fitted_on: row[:on], fitted_km: row[:km])
          {
            "id" => row[:id],
            "work" => row[:work],
            "cylinder" => row[:cylinder],
            "km" => row[:km],
            "on" => row[:on].iso8601,
            "ours" => row[:ours],
            "by" => row[:by],
            "warranty" => row[:ours] ? terms(warranty, vehicle) : nil
          }
        end

        def terms(warranty, vehicle)
          {
            "holds" => warranty.holds?(on: @shop.now.to_date, km: vehicle[:odometer_km]),
            "until" => warranty.until.iso8601,
            "until_km" => warranty.until_km
          }
        end

        def day(text)
          on = Date.iso8601(text)
          return on if on <= @shop.now.to_date

          raise Refusal.new(
                  422,
                  "invalid_day",
                  "That day is still to come.",
                  details: [{ "path" => "/on", "message" => "is still to come" }]
                )
        rescue Date::Error
          raise Refusal.new(
                  422,
                  "invalid_day",
                  "#{text} is no day.",
                  details: [{ "path" => "/on", "message" => "is no day; one is like 2026-03-12" }]
                )
        end

        def refuse_cylinders(vehicle, numbers)
          engine = Library.engine(@shop, Library.newest_engine(@shop, vehicle[:engine_code])[:id])
          known = engine.cylinders.map(&:number)
          numbers.each_with_index do |number, i|
            next if known.include?(number)

            raise Refusal.new(
                    422,
                    "unknown_cylinder",
                    "#{engine.code} has no cylinder #{number}.",
                    details: [
                      { "path" => "/cylinders/#{i}", "message" => "names a cylinder #{engine.code} does not have" }
                    ]
                  )
          end
        end
      end
    end
  end
end
