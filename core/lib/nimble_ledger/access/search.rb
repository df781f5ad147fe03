# frozen_string_literal: true

module NimbleLedger
  module Access
    # Finds the closed set of least weight, exactly (model.md section 2): branch and bound over single nodes (in or
    # out), with Bound to prune and to rule out nodes that cannot be part of a better plan. It follows the likelier side
    # of each decision down to a plan and comes back to the other sides by the least they can still cost (measured: a
    # quarter fewer nodes than coming back to the last one first).
    #
    # Nodes that every plan holds are taken for granted; the rest are numbered anew, so that masks stay short.
    # Bounds are computed on weights cut to machine words (rounded down, so they stay bounds); complete plans are
    # compared by their full weights.
    class Search
      WORD_BITS = 61
      MOST_WAITING = 4_000

      # A side of a decision not yet looked into: what it costs at least, what is in and out, its weight, weights left.
      Side = Struct.new(:floor, :inside, :outside, :weight, :open)

      # mask: what to add to the base, in the caller's numbers, nil when there is no plan; gap: weight by which a plan
      # not looked into could still be better, 0 when this one is proven least; nodes: how many were visited.
      Found = Struct.new(:mask, :gap, :nodes)

      # @param weights [Array<Integer>] of each node
      # @param lists [Array<Array<Integer>>] closure of each node, itself included
      # @param picks [Array<[Integer or nil, Array<Integer>]>] holder and members, deepest holder first
      # @param base [Integer] mask of what every plan holds
      # @param effort [Effort] what may be visited; the first plan is found whatever it says
      def initialize(weights, lists, picks, base, effort)
        @effort = effort
        @visited = 0
        @nodes =
          picks
            .flat_map { |_holder, members| members.flat_map { |node| lists[node] } }
            .uniq
            .reject { |n| base[n] == 1 }
            .sort
        @place = @nodes.each_with_index.to_h
        @full = @nodes.map { |node| weights[node] }
        @weights = cut(@full)
        renumber(lists, picks, base)
        @bound = Bound.new(spare_shared(@lists))
        @decision = Decision.new(@lists, @masks)
      end

      # @return [Found]
      def best
        @best_full = @best_weight = @best_mask = nil
        @waiting = [Side.new(0, 0, 0, 0, @weights.dup)]
        while (side = next_side)
          follow(side)
        end
        Found.new(@best_mask && @nodes.each_index.sum { |i| @best_mask[i] == 1 ? 1 << @nodes[i] : 0 }, gap, @visited)
      end

      private

      # Weights without the low bits that would not fit a machine word.
      def cut(full)
        @spare = [full.sum.bit_length - WORD_BITS, 0].max
        full.map { |weight| weight >> @spare }
      end

      def renumber(lists, picks, base)
        @lists = @nodes.map { |node| lists[node].filter_map { |n| @place[n] } }
        @masks = @lists.map { |list| mask_of(list) }
        @above = Array.new(@nodes.size, 0)
        @lists.each_with_index { |list, j| list.each { |i| @above[i] |= 1 << j } }
        renumber_picks(picks.reject { |_holder, members| members.any? { |node| base[node] == 1 } }, base)
      end

      def renumber_picks(open, base)
        @holders = open.map { |holder, _members| @place.fetch(holder) if holder && base[holder].zero? }
        @members = open.map { |_holder, members| members.map { |node| @place.fetch(node) } }
        @member_masks = @members.map { |members| mask_of(members) }
      end

      def mask_of(places) = places.reduce(0) { |mask, i| mask | (1 << i) }

      # Closures with the nodes few choices share first, so that payments spare what others need.
      def spare_shared(lists)
        use = Array.new(lists.size, 0)
        @members.each { |members| members.flat_map { |i| lists[i] }.uniq.each { |i| use[i] += 1 } }
        lists.map { |list| list.sort_by { |i| [use[i], i] } }
      end

      # What the cheapest side left could still save; sides are left when the effort is spent.
      def gap
        least = @waiting.map(&:floor).min
        least && @best_weight ? [@best_full - (least << @spare), 0].max : 0
      end

      # A plan is there, and no more may be visited.
      def enough? = @best_mask && @effort.spent?

      # The side that can still cost least; when very many wait, the one that costs most, which is done with soonest.
      def next_side
        return nil if enough?

        while (side = @waiting.size > MOST_WAITING ? @waiting.shift : @waiting.pop)
          return side unless worse?(side.floor)
        end
      end

      # Decides down to a plan, or to where nothing better can come; the other sides wait.
      def follow(side)
        inside, outside, weight, open = side.to_a.drop(1)
        floor = side.floor
        loop do
          return @waiting.push(Side.new(floor, inside, outside, weight, open)) if enough?

          @visited += 1
          @effort.visit
          inside, outside, weight, floor, certain, costs = settle(inside, outside, weight, open)
          return unless inside
          return improve(inside, weight) if certain.empty?

          node, otherwise = @decision.next(certain, costs, open)
          wait(Side.new(floor + otherwise, inside, outside | @above[node], weight, open))
          inside |= @masks[node]
          weight += take(node, open = open.dup)
        end
      end

      # Dearest first, of equals the newest last.
      def wait(side)
        return if worse?(side.floor)
        @waiting.insert(@waiting.bsearch_index { |other| other.floor < side.floor } || @waiting.size, side)
      end

      # Follows what is forced and what the bound rules out, until nothing moves.
      # @param weight [Integer] of what is inside
      # @param open [Array<Integer>] weights of what is not; changed here
      # @return [Array, nil] inside, outside, its weight, what it costs at least, certain choices and what each member
      # of
      #   them adds to that; nil when nothing better is to be had
      def settle(inside, outside, weight, open)
        loop do
          inside, outside, weight, certain, pending = force(inside, outside, weight, open)
          return nil if inside.nil? || worse?(weight)

          rest = open.dup
          floor = weight + @bound.raise_over(certain, pending, rest, @best_weight && (@best_weight - weight))
          return nil if worse?(floor)

          costs = certain.map { |members| members.map { |i| @bound.sum(i, rest) } }
          ruled_out = @best_weight ? rule_out(certain, costs, @best_weight - floor) : 0
          return inside, outside, weight, floor, certain, costs if ruled_out.zero?

          outside |= ruled_out
        end
      end

      # Takes a node and all below it out of the open weights.
      # @return [Integer] what they weighed
      def take(node, open)
        weight = 0
        @lists[node].each do |below|
          weight += open[below]
          open[below] = 0
        end
        weight
      end

      def worse?(floor) = @best_weight && floor > @best_weight

      # A choice with one member left takes it; a holder with none left is out; a contradiction ends the branch.
      # @return [Array, nil] inside, outside, its weight, certain choices (lists of members), pending ones ([holder,
      # members])
      def force(inside, outside, weight, open)
        loop do
          certain = []
          pending = []
          moved = false
          @members.each_with_index do |members, p|
            holder = @holders[p]
            next if inside.anybits?(@member_masks[p]) || (holder && outside[holder] == 1)

            left = left_of(members, outside & @member_masks[p])
            if holder && inside[holder].zero?
              next pending << [holder, left] if left.any?

              outside |= @above[holder]
              moved = true
            elsif left.size > 1
              certain << left
            else
              return nil if left.empty?

              inside |= @masks[left.first]
              weight += take(left.first, open)
              moved = true
            end
          end
          return nil if inside.anybits?(outside)
          return inside, outside, weight, certain, pending unless moved
        end
      end

      def left_of(members, ruled_out) = ruled_out.zero? ? members : members.reject { |i| ruled_out[i] == 1 }

      # Members that would lift the bound above the best plan so far.
      def rule_out(certain, costs, slack)
        mask = 0
        certain.each_with_index do |members, c|
          costs[c].each_with_index { |cost, m| mask |= @above[members[m]] if cost > slack }
        end
        mask
      end

      def improve(inside, weight)
        full = 0
        @full.each_with_index { |one, i| full += one if inside[i] == 1 }
        return if @best_full && full >= @best_full

        @best_full = full
        @best_weight = weight
        @best_mask = inside
      end
    end
  end
end
