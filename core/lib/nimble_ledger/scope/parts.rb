# frozen_string_literal: true

module NimbleLedger
  module Scope
    # All parts of a car that scopes are weighed by (model.md section 8, "Parts"): a coil record each, every wire
    # target, a boot for each plug that a boot target serves, every plug.
    class Parts
      # @param car [Car] with a history
      # @param fitted [Fitted] what is known of when parts were fitted
      # @param chains [Proc] a target to the ids of the steps it goes through
      def initialize(car, fitted, chains:)
        @car = car
        @engine = car.engine
        @house = car.house
        @fitted = fitted
        @boots = NimbleLedger::Parts::Boots.new(@engine, [], {})
        @chains = chains
        freeze
      end

      # @return [Array<Part>]
      def list = coils + wires + boots + plugs

      private

      def of(work) = @engine.targets.select { |target| target.work == work }
      def life(kind) = WeibullLife.new(*@house["#{kind}_life"].values_at("shape", "scale_km"))
      def odometer = @car.history.odometer_km

      def coils
        @engine.coils.map do |coil|
          own = of("coil").select { |target| @engine.coils_for(target).include?(coil) }
          Part.new("coil", coil.cylinders, own, age: @fitted.age("coil", own), life: life("coil"))
        end
      end

      def wires
        of("wire").map do |target|
          Part.new("wire", target.cylinders, [target], age: @fitted.age("wire", [target]), life: life("wire"))
        end
      end

      def boots = plug_places.filter_map { |target, number| boot(target, number) }

      # Each plug with the cylinder it sits in.
      def plug_places =
        of("plug").flat_map do |target|
          each_has = target.plugs / [target.cylinders.size, 1].max
          target.cylinders.flat_map { |number| [[target, number]] * each_has }
        end

      def boot(plug, number)
        own = of("boot").select { |target| @boots.same_place?(target, plug, number) }
        return nil if own.empty?

        with = @boots.wired?(plug, number) ? wires_at(plug, number) : coils_at(own.first, plug, number)
        kind = @boots.wired?(plug, number) ? "wire" : "coil"
        age = @fitted.told("boot", own) || @fitted.age(kind, with)
        Part.new("boot", [number], own, age: age, life: life("boot"), renewed_with: with)
      end

      def wires_at(plug, number) = of("wire").select { |target| @boots.same_place?(target, plug, number) }

      # Targets that renew the coil a boot belongs to: of several the one whose step the boot's way goes through.
      def coils_at(boot, plug, number)
        feeding = @engine.coils.select { |coil| coil.cylinders.include?(number) }
        feeding = feeding.select { |coil| coil.id == plug.coil } if plug.coil
        passed = feeding.size > 1 ? feeding.select { |coil| @chains.call(boot).include?(coil.id) } : []
        record = (passed.any? ? passed : feeding).first
        of("coil").select { |target| record && @engine.coils_for(target).include?(record) }
      end

      def plugs = plug_places.map { |target, number| plug(target, number) }

      def plug(target, number)
        known = @car.history.of(number)
        interval = known.interval_km || fresh_interval
        Plug.new(
          [number],
          [target],
          age: @fitted.told("plug", [target]) || known.distance_km,
          life: plug_life(interval),
          interval_km: interval,
          months: @engine.plug("interval_months"),
          run_months: known.years * 12.0,
          fresh_interval_km: fresh_interval,
          fresh_life: plug_life(fresh_interval)
        )
      end

      # Of the plug that goes in: the profile's interval, else its grade's.
      def fresh_interval = Risk::PlugRemoval.interval_km(@engine, @house)

      def plug_life(interval) =
        WeibullLife.new(@house["plug_life"]["shape"], @house["plug_life"]["intervals"] * interval.to_f)
    end
  end
end
