# frozen_string_literal: true

module NimbleLedger
  module Access
    # The profile as the planner sees it, for one car: nodes are steps and ways, an edge is "must also be in".
    # Equipment and pins have already removed what is not available; costs are exact fractions of a minute after
    # the condition multipliers (model.md sections 2 and 3). Sets of nodes are bit masks.
    #
    # A plan is a closed set of steps: it holds the prerequisites of its members, one member of each choice they
    # hold, and one way of every target. Its cost does not depend on which member "stands for" a choice, so the
    # search looks for the best closed set, and ways and members are read off it afterwards.
    class Graph
      # A choice among nodes, held by a node (or by the job itself: which way to a target).
      Pick = Struct.new(:holder, :members, :mask, :height)

      attr_reader :car, :masks, :picks, :costs

      # @param car [Car]
      # @param costs [Costs, nil] of this engine, condition and equipment, when another graph has them already
      def initialize(car, costs: nil)
        @car = car
        @costs = costs || Costs.new(car)
        @size = engine.steps.size
        @missing = {}.compare_by_identity
        @ways = engine.targets.to_h { |target| [target.id, available_ways(target)] }
        number_nodes
        gather_picks
        close
      end

      def engine = car.engine
      def equipment = car.equipment
      def pins = car.pins

      # @return [Rational] minutes: remove, refit and closing of a step, for all people it takes
      def step_cost(index) = costs.minutes(costs.step(index))

      # @return [Rational] minutes of a target by one of its ways
      def way_cost(way) = costs.minutes(costs.way(way))

      # Available ways of a target, the pinned one only if it is pinned; file order.
      def ways(target) = @ways.fetch(target.id)

      # Available members of a choice in file order, the pinned one only if it is pinned.
      def members(choice)
        pinned = pins.member(choice)
        choice.members.select { |id| missing(engine.step(id)).empty? && (pinned.nil? || pinned == id) }
      end

      # Index of a way's node.
      def way_node(way) = @way_nodes.fetch(way)

      # Weight of a node: cost first, then the number of steps, then their places in the file, in one whole number.
      # Comparing sums of weights compares plans by all three (model.md section 2, ties).
      def weights
        @weights ||=
          begin
            step_weights =
              @size.times.map { |i| (costs.step(i) << shift) + (1 << (@size + 1)) - (1 << (@size - 1 - i)) }
            step_weights + @way_list.map { |_target, way| costs.way(way) << shift } + [costs.battery << shift]
          end
      end

      # @param weight [Integer] a sum of weights
      # @return [Float] the minutes in it
      def minutes_of(weight) = costs.minutes(weight >> shift).to_f

      # Closure of each node as a list of nodes.
      def lists
        @lists ||= masks.map { |mask| Graph.bits(mask) }
      end

      # @return [Array<Integer>] places of the bits set in a mask
      def self.bits(mask)
        places = []
        until mask.zero?
          lowest = mask & -mask
          places << (lowest.bit_length - 1)
          mask ^= lowest
        end
        places
      end

      def step_mask = @step_mask ||= (1 << @size) - 1

      # What keeps a step or way from being used: a list of equipment, or of pins, none when it is available.
      def missing(holder)
        @missing[holder] ||= begin
          own = holder.needs - equipment
          own += holder.closing.flat_map { |task| task.lacking(equipment) } if holder.is_a?(Profile::Step)
          plain = holder.is_a?(Profile::Step) ? holder.after : holder.through
          below = plain.flat_map { |id| missing(engine.step(id)) }
          chosen = holder.choices.flat_map { |choice| least_missing(choice) }
          (own + below + chosen).uniq
        end
      end

      private

      def least_missing(choice)
        pinned = pins.member(choice)
        candidates = pinned ? [pinned] : choice.members
        candidates.map { |id| missing(engine.step(id)) }.min_by(&:size)
      end

      def available_ways(target)
        pinned = pins.ways[target.id]
        target.ways.select { |way| (pinned.nil? || pinned == way.id) && missing(way).empty? }
      end

      def shift = @size + 9

      def number_nodes
        @way_list = engine.targets.flat_map { |target| ways(target).map { |way| [target, way] } }
        @way_nodes = {}.compare_by_identity
        @way_list.each_with_index { |(_target, way), i| @way_nodes[way] = @size + i }
      end

      # Choices of every available holder; a choice with one member left is a plain prerequisite.
      def gather_picks
        @forced = Hash.new { |hash, node| hash[node] = [] }
        @picks = []
        engine.steps.each { |step| hold(step.position, step) if missing(step).empty? }
        @way_list.map(&:last).each { |way| hold(way_node(way), way) }
      end

      def hold(node, holder)
        holder.choices.each do |choice|
          ids = members(choice).map { |id| engine.step(id).position }
          ids.size == 1 ? @forced[node] << ids.first : @picks << Pick.new(node, ids, 0, 0)
        end
      end

      # Closures over plain prerequisites; members that are never better than another member are dropped, which may
      # leave choices with one member, which lengthens closures: repeat until nothing changes.
      def close
        loop do
          @masks = closures
          narrowed = @picks.map { |pick| [pick, undominated(pick.members)] }
          single, @picks = narrowed.partition { |_pick, members| members.size == 1 }
          single.each { |pick, members| @forced[pick.holder] << members.first }
          @picks = @picks.map { |pick, members| Pick.new(pick.holder, members, mask_of(members), 0) }
          break if single.empty?
        end
        measure_heights
      end

      def closures
        memo = []
        (battery_node + 1).times.map { |node| closure(node, memo) }
      end

      def closure(node, memo)
        memo[node] ||= before(node).reduce(1 << node) { |mask, other| mask | closure(other, memo) }
      end

      # The node behind all ways: what every step that asks for the battery brings with it (rules 2).
      def battery_node = @size + @way_list.size

      def before(node)
        return [] if node == battery_node

        battery = node < @size && engine.steps[node].battery? && costs.battery.positive? ? [battery_node] : []
        plain = node < @size ? engine.steps[node].after : @way_list[node - @size].last.through
        battery + plain.map { |id| engine.step(id).position } + (@forced.key?(node) ? @forced[node] : [])
      end

      # A member whose closure contains another member's closure is never needed for the best closed set.
      def undominated(members)
        members.reject do |a|
          members.any? { |b| a != b && (masks[a] & masks[b]) == masks[b] && (masks[a] != masks[b] || b < a) }
        end
      end

      def mask_of(nodes) = nodes.reduce(0) { |mask, node| mask | (1 << node) }

      # How much lies below a holder by any route; orders choices from the deepest up.
      def measure_heights
        reach = {}
        @picks.each { |pick| pick.height = all_below(pick.holder, reach).to_s(2).count("1") }
        @picks.sort_by!.with_index { |pick, i| [pick.height, i] }
      end

      def all_below(node, reach)
        reach[node] ||= begin
          open = before(node) + @picks.select { |pick| pick.holder == node }.flat_map(&:members)
          open.reduce(1 << node) { |mask, other| mask | all_below(other, reach) }
        end
      end
    end
  end
end
