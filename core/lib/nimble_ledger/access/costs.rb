# frozen_string_literal: true

module NimbleLedger
  module Access
    # What each step and way of an engine costs on one car (model.md sections 2 and 3), exactly: whole units of one
    # common fraction of a minute, so that sums are quick and equal plans compare equal. Independent of pins.
    class Costs
      # @return [Integer] units in a minute
      attr_reader :scale

      # @return [Integer] units of the house task "battery off and on" for a plan with a step that asks for it; 0 where
      #   the rules leave it out of a plan's cost, or every plan has it
      attr_reader :battery

      # @return [Integer] units of it for every plan, where the house always takes the battery off
      attr_reader :battery_of_all

      # @param car [Car]
      # @return [Costs] worked out once for cars alike in engine, equipment and condition
      def self.of(car)
        equipment = car.engine.equipment & car.equipment
        depends_on = [equipment, car.condition.multipliers, battery_minutes(car), battery_always?(car)]
        car.engine.kept.of(:costs, depends_on) { new(car) }
      end

      # @return [Boolean] whether the battery comes off on every job (House::Schools, "battery")
      def self.battery_always?(car) = car.house["battery"] == "always"

      # @return [Rational] minutes of the house task "battery off and on" that are part of a plan's cost
      def self.battery_minutes(car) = car.rules.battery_in_plan? ? car.house.task("battery").exact_mean : 0r

      # @param car [Car] its equipment decides what closing work takes
      def initialize(car)
        @engine = car.engine
        @condition = car.condition
        @equipment = car.equipment
        battery = Costs.battery_minutes(car)
        steps = @engine.steps.map { |step| step_minutes(step) }
        ways = ways_of(@engine)
        @scale = [*steps, *ways.values, battery].reduce(1) { |lcm, cost| lcm.lcm(cost.denominator) }
        @battery, @battery_of_all = Costs.battery_always?(car) ? [0, units(battery)] : [units(battery), 0]
        @steps = steps.map { |cost| units(cost) }.freeze
        @ways = ways.transform_values { |cost| units(cost) }.compare_by_identity
        freeze
      end

      # @return [Integer] units: remove, refit and closing of a step, for all people it takes
      def step(index) = @steps[index]

      # @return [Integer] units of a target by a way
      def way(way) = @ways.fetch(way)

      # @return [Rational] minutes
      def minutes(units) = Rational(units, scale)

      private

      def units(cost) = (cost * @scale).to_i

      def ways_of(engine) =
        engine.targets.flat_map { |target| target.ways.map { |way| [way, way_minutes(target, way)] } }.to_h

      def step_minutes(step)
        labor =
          (step.remove.exact_mean * Time::Condition.exact(@condition.remove_reasons(step))) +
            (step.refit.exact_mean * Time::Condition.exact(@condition.refit_reasons(step)))
        (labor + step.closing.sum(0r) { |task| task.minutes(@equipment).exact_mean }) * step.people
      end

      def way_minutes(target, way)
        target.minutes.exact_mean * ThreePoints.exact(way.factor) * ThreePoints.exact(@condition.target_factor)
      end
    end
  end
end
