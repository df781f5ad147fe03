# frozen_string_literal: true

module NimbleLedger
  module Access
    # Fluid cannot be compressed: where several wells are soaked the engine is turned over with its plugs out, as work
    # of
    # the job from the start (model.md section 15, 7; rules 3). Below that, or where it was left out, each bore is
    # emptied by hand.
    #
    #   ClearingCrank.new(planner, soak: "short").with(targets)  #=> targets, and the crank where it belongs to them
    class ClearingCrank
      # @param planner [Planner]
      # @param soak [String] protocol
      # @param without [Array<String>] targets that are not to be added
      def initialize(planner, soak: "none", without: [])
        @planner = planner
        @from = planner.house["clear_after_soak_from"]
        @offered =
          planner.car.rules.order_of_work? && soak != "none" &&
            planner.graph.engine.targets.find { |target| target.crank? && !without.include?(target.id) }
      end

      # @param targets [Array<Profile::Target>]
      # @return [Array<Profile::Target>]
      def with(targets) = added?(targets) ? targets + [@offered] : targets

      # Whether it belongs to them and is not among them.
      def added?(targets) = due?(targets) && @planner.possible?(@offered)

      # Whether it would belong to them, but nothing opens a way to it.
      def impossible?(targets) = due?(targets) && !@planner.possible?(@offered)

      private

      def due?(targets) = @offered && !targets.include?(@offered) && @from.positive? && targets.sum(&:plugs) >= @from
    end
  end
end
