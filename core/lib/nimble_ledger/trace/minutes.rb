# frozen_string_literal: true

module NimbleLedger
  module Trace
    # Mean minutes of steps on this car, condition and people counted: taking off, and closing up again.
    class Minutes
      # @param car [Car]
      def initialize(car)
        @condition = car.condition
        @house = car.house
        @equipment = car.equipment
        freeze
      end

      # @return [Float]
      def taking_off(step) = (step.remove * @condition.remove_factor(step)).mean * step.people

      # @return [Float] refit and closing work
      def closing_up(step)
        closing = step.closing.sum(0.0) { |work| work.minutes(@equipment).mean }
        ((step.refit * @condition.refit_factor(step)).mean + closing) * step.people
      end

      # @return [Float] the house's battery off and on
      def battery = @house.task("battery").mean
    end
  end
end
