# frozen_string_literal: true

module NimbleLedger
  module Access
    # What else becomes nearly free (model.md section 2, "While it's open"): for every target not in the job, the
    # minutes it adds now and the minutes it takes alone on another day, under the same pins, equipment and condition.
    class WhileOpen
      Row =
        Struct.new(:target, :added, :alone) do
          def saved = alone - added
          def share = alone.zero? ? 0r : saved / alone
        end

      # Targets whose minutes could not be decided within the effort: left out of the rows, and named.
      # @return [Array<Profile::Target>]
      attr_reader :undecided

      # @return [Array<Row>] exact minutes, best saving share first; targets without a plan are left out
      attr_reader :rows

      # @param planner [Planner]
      # @param targets [Array<Profile::Target>] what the job holds
      # @param crank [ClearingCrank, nil] what a soak adds to sets of targets
      # @param effort [NodeBudget] what is left of the answer's
      def initialize(planner, targets, soak: "none", crank: nil, effort: NodeBudget.new)
        @planner = planner
        @effort = effort
        @crank = crank || ClearingCrank.new(planner)
        @undecided = []
        @hands_on = ThreePoints.exact(planner.house["soaks"][soak]["hands_on"])
        @rows = compute(targets)
        freeze
      end

      private

      def compute(targets)
        now = @planner.plan(targets, effort: @effort)
        others = (@planner.graph.engine.targets - targets).select { |target| @planner.possible?(target) }
        unless now.proven?
          @undecided.concat(others)
          return []
        end

        others.filter_map { |target| row(target, targets, now.cost) }.sort_by.with_index { |row, i| [-row.share, i] }
      end

      def row(target, targets, now)
        soak = target.plug? ? @hands_on * target.plugs : 0r
        Row.new(
          target,
          @planner.least_cost(@crank.with(targets + [target]), effort: @effort) - now + soak,
          @planner.least_cost(@crank.with([target]), effort: @effort) + soak
        )
      rescue Planner::Undecided
        @undecided << target
        nil
      end
    end
  end
end
