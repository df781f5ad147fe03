# frozen_string_literal: true

module NimbleLedger
  module Access
    # What each step and way of an engine costs on one car (model.md sections 2 and 3), exactly: whole units of one
    # common fraction of a minute, so that sums are quick and equal plans compare equal. Independent of pins.
    class Costs
      # @return [Integer] units in a minute
      attr_reader :scale

      # @return [Integer] units of the house task "battery off and on", 0 where the rules leave it out of a plan's cost
      attr_reader :battery

      # @param car [Car] its equipment decides what closing work takes
      def initialize(car)
        @engine = car.engine
        @condition = car.condition
        @equipment = car.equipment
        battery = battery_minutes(car)
        steps = @engine.steps.map { |step| step_minutes(step) }
        ways = ways_of(@engine)
        @scale = [*steps, *ways.values, battery].reduce(1) { |lcm, cost| lcm.lcm(cost.denominator) }
        @battery = units(battery)
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

      def battery_minutes(car) =
        car.rules.battery_in_plan? ? ThreePoints.around(car.house["house_tasks"]["battery"]).exact_mean : 0r

      def step_minutes(step)
        labor =
          (@engine.exact_mean(step.remove) * Time::Condition.exact(@condition.remove_reasons(step))) +
            (@engine.exact_mean(step.refit) * Time::Condition.exact(@condition.refit_reasons(step)))
        (labor + step.closing.sum(0r) { |task| @engine.exact_mean(task.minutes(@equipment)) }) * step.people
      end

      def way_minutes(target, way)
        @engine.exact_mean(target.minutes) * ThreePoints.exact(way.factor) * ThreePoints.exact(@condition.target_factor)
      end
    end
  end
end
