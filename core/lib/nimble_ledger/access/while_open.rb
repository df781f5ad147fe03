# frozen_string_literal: true

module NimbleLedger
  module Access
    # What else becomes nearly free (model.md section 2, "While it's open"): for every target not in the job, the
    # minutes it adds now and the minutes it takes alone on another day, under the same pins, equipment and condition.
    class WhileOpen
      Row = Struct.new(:target, :added, :alone) do
        def saved = alone - added
        def share = alone.zero? ? 0r : saved / alone
      end

      def initialize(planner, soak: "none")
        @planner = planner
        @hands_on = ThreePoints.exact(planner.house["soaks"][soak]["hands_on"])
      end

      # @param targets [Array<Profile::Target>] what the job holds
      # @return [Array<Row>] exact minutes, best saving share first; targets without a plan are left out
      def rows(targets)
        now = @planner.least_cost(targets)
        others = @planner.graph.engine.targets - targets
        others.select { |target| @planner.possible?(target) }
              .map { |target| row(target, targets, now) }
              .sort_by.with_index { |row, i| [-row.share, i] }
      end

      private

      def row(target, targets, now)
        soak = target.plug? ? @hands_on * target.plugs : 0r
        Row.new(target, @planner.least_cost(targets + [target]) - now + soak, @planner.least_cost([target]) + soak)
      end
    end
  end
end
