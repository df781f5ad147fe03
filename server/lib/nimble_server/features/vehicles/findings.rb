# frozen_string_literal: true

module NimbleServer
  module Features
    module Vehicles
      # What earlier visits found on a car and nobody has settled yet, at the cylinder it belongs to. It comes up with
      # every quote of the car.
      class Findings
        MOST = 60

        def initialize(shop)
          @shop = shop
        end

        # @return [Array<Hash>] see the contract, Finding; by cylinder, those of no cylinder last
        def of(vehicle_id)
          rows = unsettled(vehicle_id).left_join(:accounts, id: Sequel[:findings][:created_by])
          rows
            .select_all(:findings)
            .select_append(Sequel[:accounts][:name].as(:actor))
            .order(Sequel.asc(:cylinder, nulls: :last), Sequel[:findings][:created_at], Sequel[:findings][:id])
            .all
            .map { |row| shown(row) }
        end

        # @param given [Hash] see the contract, NewFinding
        # @return [Array<Hash>] what is open on the car now
        # @raise [Refusal] 404 for no such car, 422 for a cylinder its engine lacks or when too many are open
        def note(vehicle_id, given)
          vehicle = Garage.new(@shop).find(vehicle_id)
          refuse_cylinder(vehicle, given["cylinder"])
          if unsettled(vehicle_id).count >= MOST
            raise Refusal.new(422, "too_many_findings", "#{MOST} findings are open on this car. Settle some first.")
          end

          @shop.insert(
            :findings,
            vehicle_id: vehicle_id,
            cylinder: given["cylinder"],
            kind: given["kind"],
            words: given["words"].to_s.strip
          )
          of(vehicle_id)
        end

        # It is no longer so: mended, or never was.
        # @return [Array<Hash>] what is open on the car now
        # @raise [Refusal] 404 when it is not open here
        def settle(vehicle_id, id)
          values = { settled_at: @shop.now, settled_by: @shop.actor.account_id }
          raise Refusal.not_found("finding") if unsettled(vehicle_id).where(id: id).update(values).zero?

          of(vehicle_id)
        end

        private

        def unsettled(vehicle_id) = @shop[:findings].where(vehicle_id: vehicle_id, settled_at: nil)

        def refuse_cylinder(vehicle, number)
          engine = Library.engine(@shop, Library.newest_engine(@shop, vehicle[:engine_code])[:id])
          return if number.nil? || engine.cylinders.any? { |cylinder| cylinder.number == number }

          raise Refusal.new(
                  422,
                  "unknown_cylinder",
                  "#{engine.code} has no cylinder #{number}.",
                  details: [{ "path" => "/cylinder", "message" => "names a cylinder #{engine.code} does not have" }]
                )
        end

        def shown(row)
          {
            "id" => row[:id],
            "cylinder" => row[:cylinder],
            "kind" => row[:kind],
            "words" => row[:words],
            "at" => row[:created_at].iso8601,
            "by" => row[:actor]
          }
        end
      end
    end
  end
end
