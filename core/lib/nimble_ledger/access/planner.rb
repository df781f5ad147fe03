# frozen_string_literal: true

module NimbleLedger
  module Access
    # Plans jobs on one car: one graph, many sets of targets (model.md section 2). What was planned once is kept, so a
    # planner may serve every job on cars alike; it forgets what was not asked for longest.
    #
    #   planner = Access::Planner.new(car)
    #   planner.plan([engine.target("plug-5")])   #=> Access::Plan
    #   planner.least_cost([engine.target("plug-5")]) #=> Rational, minutes
    class Planner
      MOST_SETS = 500
      MOST_PLANS = 96

      # steps: mask; proven: whether it is the least; gap: minutes by which it could still be beaten; nodes: what it
      # took.
      ClosedSet = Struct.new(:steps, :proven, :gap, :nodes)

      # A way that may be taken: its node, the steps it goes through (a mask), its cost in units, its own choices.
      Candidate = Struct.new(:node, :steps, :cost, :choices)

      # A set of targets whose least plan could not be decided within the effort allowed.
      class Undecided < StandardError
      end

      attr_reader :graph

      # @param car [Car]
      def initialize(car)
        @graph = Graph.new(car)
        @sets = {}
        @plans = {}
        @candidates = {}
      end

      def car = graph.car
      def house = car.house

      # The plan of least cost; when the effort is spent, the best one found, which then says that it is not proven.
      # @param targets [Array<Profile::Target>]
      # @param effort [NodeBudget] shared by everything one answer computes
      # @raise [ImpossiblePlan] naming the target and the equipment or pin that stands in the way
      # @return [Plan]
      def plan(targets, soak: "none", codes: false, effort: NodeBudget.new)
        set = closed_set(targets, effort)
        return fresh_plan(targets, set, soak, codes) unless set.proven

        key = [targets.map(&:position), soak, codes]
        known = @plans.delete(key) || fresh_plan(targets, set, soak, codes)
        @plans.shift if @plans.size >= MOST_PLANS
        @plans[key] = known
      end

      # Minutes of the best plan, house tasks and soak left out; cheaper than #plan.
      # @raise [ImpossiblePlan]
      # @raise [Undecided] when the effort was spent before the least was proven
      # @return [Rational]
      def least_cost(targets, effort: NodeBudget.new)
        raise Undecided if effort.spent?

        set = closed_set(targets, effort)
        raise Undecided unless set.proven

        cost(set.steps, targets.map { |target| best_way(target, set.steps) })
      end

      def possible?(target) = !graph.ways(target).empty?

      private

      def fresh_plan(targets, set, soak, codes)
        mask = set.steps
        steps = Closures.bits(mask).map { |place| graph.engine.steps[place] }
        ways = targets.to_h { |target| [target, best_way(target, mask)] }
        cost = cost(mask, ways.values)
        plan = Plan.new(car, steps, ways, members_in(steps, ways, mask), cost: cost, soak: soak, codes: codes)
        set.proven ? plan.freeze : plan.unproven(set.gap).freeze
      end

      # The closed set of least weight for these targets. What was proven once is kept, and charged to each effort as if
      # it were proven again, so that an answer does not depend on what was asked before.
      # @return [ClosedSet]
      def closed_set(targets, effort)
        @sets.clear if @sets.size > MOST_SETS
        key = targets.reduce(0) { |mask, target| mask | (1 << target.position) }
        known = @sets[key]
        return known if known && effort.charge(self, key, known.nodes)

        found = search(targets, effort)
        return found unless found.proven

        effort.paid(self, key)
        @sets[key] = found
      end

      def search(targets, effort)
        base = 0
        routes = []
        targets.each do |target|
          nodes = candidates(target)
          nodes.size == 1 ? base |= graph.masks[nodes.first] : routes << [nil, nodes]
        end
        solve(base, routes, effort)
      end

      def solve(base, routes, effort)
        picks = reachable_picks(base, routes)
        if routes.empty? && picks.none? { |holder, members| base[holder] == 1 && !met?(members, base) }
          return ClosedSet.new(base & graph.step_mask, true, 0.0, 0)
        end

        found = Search.new(graph.weights, graph.lists, picks + routes, base, effort).best
        ClosedSet.new((base | found.mask) & graph.step_mask, found.gap.zero?, graph.minutes_of(found.gap), found.nodes)
      end

      def met?(members, base) = members.any? { |node| base[node] == 1 }

      # Choices that some plan for these targets could run into, deepest first.
      def reachable_picks(base, routes)
        mask = routes.reduce(base) { |m, (_none, nodes)| nodes.reduce(m) { |all, node| all | graph.masks[node] } }
        rest = graph.picks
        found = []
        loop do
          now, rest = rest.partition { |pick| mask[pick.holder] == 1 }
          break if now.empty?

          found.concat(now)
          now.each { |pick| pick.members.each { |node| mask |= graph.masks[node] } }
        end
        found.sort_by(&:height).map { |pick| [pick.holder, pick.members] }
      end

      # Way nodes worth trying: a way that takes at least the same steps for no less work is dropped.
      def candidates(target) = @candidates[target] ||= worth_trying(target)

      def worth_trying(target)
        ways = graph.ways(target)
        raise impossible(target) if ways.empty?
        return [graph.way_node(ways.first)] if ways.size == 1

        rows = ways.map { |way| row(way) }
        kept = rows.reject.with_index { |a, i| rows.each_with_index.any? { |b, j| i != j && beats?(b, a, j < i) } }
        kept.map(&:node)
      end

      def row(way)
        node = graph.way_node(way)
        Candidate.new(node, graph.masks[node] & graph.step_mask, graph.costs.way(way), way.choices)
      end

      # b is never worse than a: its steps are among a's, it costs no more, and it brings no choices of its own.
      def beats?(b, a, earlier)
        return false unless b.choices.empty? && a.steps.allbits?(b.steps) && b.cost <= a.cost

        earlier || a.steps != b.steps || b.cost < a.cost || !a.choices.empty?
      end

      def best_way(target, mask)
        ways = graph.ways(target)
        return ways.first if ways.size == 1

        ways.select { |way| inside?(way, mask) }.min_by.with_index { |way, i| [graph.costs.way(way), i] }
      end

      def inside?(way, mask)
        steps = graph.masks[graph.way_node(way)] & graph.step_mask
        (steps & mask) == steps && way.choices.all? { |choice| member_in(choice, mask) }
      end

      def member_in(choice, mask) = graph.members(choice).find { |id| mask[graph.engine.step(id).position] == 1 }

      def members_in(steps, ways, mask)
        (steps + ways.values)
          .flat_map(&:choices)
          .each_with_object({}.compare_by_identity) { |choice, members| members[choice] = member_in(choice, mask) }
      end

      def cost(mask, ways)
        costs = graph.costs
        units = Closures.bits(mask).sum { |place| costs.step(place) } + ways.sum { |way| costs.way(way) }
        units += costs.battery if mask.anybits?(graph.battery_mask)
        units += costs.battery_of_all
        costs.minutes(units)
      end

      def impossible(target)
        path = "/targets/#{target.id}"
        details =
          target.ways.map do |way|
            pinned = graph.pins.ways[target.id]
            lacking = graph.missing(way)
            reason = (lacking.any? ? "needs #{lacking.join(" and ")}" : "is ruled out by the pin on #{pinned}")
            {
              "path" => path,
              "message" => "#{way.id} #{reason}",
              "way" => way.id,
              "equipment" => lacking,
              "label" => target.label
            }
          end
        ImpossiblePlan.new(
          "#{target.label} (#{target.id}) cannot be reached with the equipment and pins in force: " \
            "#{details.map { |d| d["message"] }.join("; ")}.",
          details: details
        )
      end
    end
  end
end
