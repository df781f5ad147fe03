# frozen_string_literal: true

require "forwardable"

module NimbleLedger
  module Access
    # The profile as the planner sees it, for one car: what comes off with what (Closures), and what it costs in exact
    # fractions of a minute after the condition multipliers (Costs; model.md sections 2 and 3). Both are worked out once
    # for cars alike.
    class Graph
      extend Forwardable

      attr_reader :car, :closures, :costs

      def_delegators :closures, :masks, :picks, :lists, :step_mask, :battery_mask, :ways, :members, :way_node, :missing
      def_delegators :car, :engine, :equipment, :pins

      # @param car [Car]
      def initialize(car)
        @car = car
        @closures = Closures.of(car)
        @costs = Costs.of(car)
      end

      # @return [Rational] minutes: remove, refit and closing of a step, for all people it takes
      def step_cost(index) = costs.minutes(costs.step(index))

      # @return [Rational] minutes of a target by one of its ways
      def way_cost(way) = costs.minutes(costs.way(way))

      # Weight of a node: cost first, then the number of steps, then their places in the file, in one whole number.
      # Comparing sums of weights compares plans by all three (model.md section 2, ties).
      def weights
        @weights ||=
          begin
            size = engine.steps.size
            steps = size.times.map { |i| (costs.step(i) << shift) + (1 << (size + 1)) - (1 << (size - 1 - i)) }
            steps + closures.way_list.map { |way| costs.way(way) << shift } + [costs.battery << shift]
          end
      end

      # @param weight [Integer] a sum of weights
      # @return [Float] the minutes in it
      def minutes_of(weight) = costs.minutes(weight >> shift).to_f

      private

      def shift = engine.steps.size + 9
    end
  end
end
