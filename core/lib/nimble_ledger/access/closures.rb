# frozen_string_literal: true

module NimbleLedger
  module Access
    # What comes off with what (model.md section 2), on one engine with some equipment and pins: nodes are steps and
    # ways, an edge is "must also be in". Equipment and pins have already removed what is not available. What anything
    # costs is no part of it (Costs), so cars in any condition share it. Sets of nodes are bit masks.
    #
    # A plan is a closed set of steps: it holds the prerequisites of its members, one member of each choice they
    # hold, and one way of every target. Its cost does not depend on which member "stands for" a choice, so the
    # search looks for the best closed set, and ways and members are read off it afterwards.
    class Closures
      # A choice among nodes, held by a node (or by the job itself: which way to a target).
      Pick = Struct.new(:holder, :members, :mask, :height)

      attr_reader :masks, :picks, :lists, :step_mask, :battery_mask

      # @param car [Car]
      # @return [Closures] worked out once for cars alike in engine, equipment and pins
      def self.of(car)
        engine = car.engine
        equipment = engine.equipment & car.equipment
        battery = Costs.battery_minutes(car).positive?
        engine.kept.of(:closures, [equipment, car.pins.to_h, battery]) { new(engine, equipment, car.pins, battery) }
      end

      # What fits a machine word.
      WORD = 60
      private_constant :WORD

      # @return [Array<Integer>] places of the bits set in a mask
      def self.bits(mask)
        places = []
        from = 0
        until mask == 0
          word = mask & ((1 << WORD) - 1)
          until word == 0
            lowest = word & -word
            places << (from + lowest.bit_length - 1)
            word ^= lowest
          end
          mask >>= WORD
          from += WORD
        end
        places
      end

      # @param battery [Boolean] whether the battery is part of a plan's cost
      def initialize(engine, equipment, pins, battery)
        @engine = engine
        @equipment = equipment
        @pins = pins
        @battery = battery
        @size = engine.steps.size
        @step_mask = (1 << @size) - 1
        @battery_mask = mask_of(engine.steps.select(&:battery?).map(&:position))
        @missing = {}.compare_by_identity
        @ways = engine.targets.to_h { |target| [target.id, available_ways(target)] }
        @members = {}.compare_by_identity
        number_nodes
        gather_picks
        close
        @lists = masks.map { |mask| Closures.bits(mask) }
      end

      # Available ways of a target, the pinned one only if it is pinned; file order.
      def ways(target) = @ways.fetch(target.id)

      # Available members of a choice in file order, the pinned one only if it is pinned.
      def members(choice)
        @members[choice] ||= begin
          pinned = @pins.member(choice)
          choice.members.select { |id| missing(@engine.step(id)).empty? && (pinned.nil? || pinned == id) }
        end
      end

      # Index of a way's node.
      def way_node(way) = @way_nodes.fetch(way)

      # Ways that have a node, in the order of their nodes, which follow those of the steps.
      # @return [Array<Profile::Way>]
      def way_list = @way_nodes.keys

      # What keeps a step or way from being used: a list of equipment, or of pins, none when it is available.
      def missing(holder)
        @missing[holder] ||= begin
          own = holder.needs - @equipment
          own += holder.closing.flat_map { |task| task.lacking(@equipment) } if holder.is_a?(Profile::Step)
          plain = holder.is_a?(Profile::Step) ? holder.after : holder.through
          below = plain.flat_map { |id| missing(@engine.step(id)) }
          chosen = holder.choices.flat_map { |choice| least_missing(choice) }
          (own + below + chosen).uniq
        end
      end

      private

      def least_missing(choice)
        pinned = @pins.member(choice)
        candidates = pinned ? [pinned] : choice.members
        candidates.map { |id| missing(@engine.step(id)) }.min_by(&:size)
      end

      def available_ways(target)
        pinned = @pins.ways[target.id]
        target.ways.select { |way| (pinned.nil? || pinned == way.id) && missing(way).empty? }
      end

      def number_nodes
        @way_nodes = {}.compare_by_identity
        @engine.targets.each { |target| ways(target).each { |way| @way_nodes[way] = @size + @way_nodes.size } }
      end

      # Choices of every available holder; a choice with one member left is a plain prerequisite.
      def gather_picks
        @forced = Hash.new { |hash, node| hash[node] = [] }
        @picks = []
        @engine.steps.each { |step| hold(step.position, step) if missing(step).empty? }
        way_list.each { |way| hold(way_node(way), way) }
      end

      def hold(node, holder)
        holder.choices.each do |choice|
          ids = members(choice).map { |id| @engine.step(id).position }
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
        plain = before_of_each
        plain.each_index { |node| closure(node, plain, memo) }
        memo
      end

      def closure(node, plain, memo)
        memo[node] ||= plain[node].reduce(1 << node) { |mask, other| mask | closure(other, plain, memo) }
      end

      # The node behind all ways: what every step that asks for the battery brings with it (rules 2).
      def battery_node = @size + @way_nodes.size

      # What must be in with each node, choices aside.
      # @return [Array<Array<Integer>>] by node
      def before_of_each
        steps =
          @engine.steps.map do |step|
            (@battery && step.battery? ? [battery_node] : []) + places(step.after) + @forced.fetch(step.position, [])
          end
        ways = way_list.map { |way| places(way.through) + @forced.fetch(way_node(way), []) }
        [*steps, *ways, []]
      end

      def places(ids) = ids.map { |id| @engine.step(id).position }

      # A member whose closure contains another member's closure is never needed for the best closed set.
      def undominated(members)
        members.reject do |a|
          members.any? { |b| a != b && (masks[a] & masks[b]) == masks[b] && (masks[a] != masks[b] || b < a) }
        end
      end

      def mask_of(nodes) = nodes.reduce(0) { |mask, node| mask | (1 << node) }

      # How much lies below a holder by any route; orders choices from the deepest up.
      def measure_heights
        plain = before_of_each
        reach = {}
        @picks.each { |pick| pick.height = all_below(pick.holder, plain, reach).to_s(2).count("1") }
        @picks.sort_by!.with_index { |pick, i| [pick.height, i] }
      end

      def all_below(node, plain, reach)
        reach[node] ||= begin
          open = plain[node] + @picks.select { |pick| pick.holder == node }.flat_map(&:members)
          open.reduce(1 << node) { |mask, other| mask | all_below(other, plain, reach) }
        end
      end
    end
  end
end
