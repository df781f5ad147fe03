# frozen_string_literal: true

module NimbleLedger
  module Access
    # Finds the closed set of least weight, exactly (model.md section 2): branch and bound over single nodes (in or
    # out). It starts with a good plan (StartingPlan); Bound prunes and rules out nodes that cannot be part of a better
    # one. It follows the likelier side of each decision down to a plan and comes back to the other sides by the least
    # they can still cost (measured: a quarter fewer nodes than coming back to the last one first).
    #
    # Nodes that every plan holds are taken for granted; the rest are numbered anew, so that lists stay short.
    # Bounds are computed on weights cut to machine words (rounded down, so they stay bounds); complete plans are
    # compared by their full weights.
    class Search
      WORD_BITS = 61
      MOST_WAITING = 4_000
      # How many choices make it worth while to start with a good plan: a few are decided sooner than guessed.
      MANY = 8
      TRIES = 4 # (measured: a sixth of the nodes; more take longer than they spare)

      # mask: what to add to the base, in the caller's numbers, nil when there is no plan; gap: weight by which a plan
      # not looked into could still be better, 0 when this one is proven least; nodes: how many were visited.
      Found = Struct.new(:mask, :gap, :nodes)

      # @param weights [Array<Integer>] of each node
      # @param lists [Array<Array<Integer>>] closure of each node, itself included
      # @param picks [Array<[Integer or nil, Array<Integer>]>] holder and members, deepest holder first
      # @param base [Integer] mask of what every plan holds
      # @param effort [NodeBudget] what may be visited; the first plan is found whatever it says
      def initialize(weights, lists, picks, base, effort)
        @effort = effort
        @visited = 0
        @nodes =
          picks
            .flat_map { |_holder, members| members.flat_map { |node| lists[node] } }
            .uniq
            .reject { |n| base[n] == 1 }
            .sort
        @full = @nodes.map { |node| weights[node] }
        @weights = cut(@full)
        @problem = problem(lists, picks, base)
        closures = spare_shared(@problem)
        @bound = Bound.new(closures)
        @decision = Decision.new(closures)
      end

      # @return [Found]
      def best
        @best = @best_full = @best_weight = nil
        guess if @problem.members.size >= MANY
        @waiting = [Branch.root(@problem, @weights)]
        while (branch = next_branch)
          follow(branch)
        end
        Found.new(@best&.sum { |i| 1 << @nodes[i] }, gap, @visited)
      end

      private

      # Weights without the low bits that would not fit a machine word.
      def cut(full)
        @spare = [full.sum.bit_length - WORD_BITS, 0].max
        full.map { |weight| weight >> @spare }
      end

      # Closures and choices in the numbers of what is not taken for granted.
      def problem(lists, picks, base)
        place = @nodes.each_with_index.to_h
        closures = @nodes.map { |node| lists[node].filter_map { |n| place[n] } }
        above = Array.new(@nodes.size) { [] }
        closures.each_with_index { |list, j| list.each { |i| above[i] << j } }
        open = picks.reject { |_holder, members| members.any? { |node| base[node] == 1 } }
        Branch::Problem.new(
          closures,
          above,
          open.map { |_holder, members| members.map { |node| place.fetch(node) } },
          open.map { |holder, _members| place.fetch(holder) if holder && base[holder].zero? }
        )
      end

      # Closures of members with the nodes few choices share first, so that payments spare what others need.
      # @return [Array<Array<Integer>, nil>] by node
      def spare_shared(problem)
        rank = sharing(problem).each_with_index.map { |choices, i| (choices * @nodes.size) + i }
        closures = Array.new(@nodes.size)
        problem.members.each do |members|
          members.each { |node| closures[node] ||= problem.lists[node].sort_by { |i| rank[i] } }
        end
        closures
      end

      # @return [Array<Integer>] by node, how many choices go through it by some member
      def sharing(problem)
        choices = Array.new(@nodes.size, 0)
        last = Array.new(@nodes.size)
        problem.members.each_with_index do |members, p|
          members.each do |node|
            problem.lists[node].each do |i|
              next if last[i] == p

              last[i] = p
              choices[i] += 1
            end
          end
        end
        choices
      end

      # What the cheapest branch left could still save; branches are left when the effort is spent.
      def gap
        least = @waiting.map(&:floor).min
        least && @best_weight ? [@best_full - (least << @spare), 0].max : 0
      end

      # A plan is there, and no more may be visited.
      def enough? = @best && @effort.spent?

      # The branch that can still cost least; when very many wait, the one that costs most, which is done with soonest.
      def next_branch
        return nil if enough?

        while (branch = @waiting.size > MOST_WAITING ? @waiting.shift : @waiting.pop)
          return branch unless worse?(branch.floor)
        end
      end

      # Decides down to a plan, or to where nothing better can come; the other sides wait.
      def follow(branch)
        loop do
          return @waiting.push(branch) if enough?

          @visited += 1
          @effort.visit
          costs = settle(branch) or return
          return improve(branch) if branch.certain.empty?

          split(branch, @decision.next(branch.certain, costs, branch.open))
        end
      end

      # With the node here, without it later.
      # @param choice [Decision::Choice]
      def split(branch, choice)
        other = branch.copy
        other.floor = branch.floor + choice.without
        wait(other) if !worse?(other.floor) && other.leave(choice.node)
        branch.take(choice.node)
      end

      # Dearest first, of equals the newest last.
      def wait(branch)
        place = @waiting.bsearch_index { |other| other.floor < branch.floor } || @waiting.size
        @waiting.insert(place, branch)
      end

      # Follows what is forced and what the bound rules out, until nothing moves.
      # @return [Array<Array<Integer>>, nil] what each member of the certain choices adds to the floor; nil when nothing
      #   better is to be had
      def settle(branch)
        loop do
          return nil if !branch.force || worse?(branch.weight)

          rest = branch.open.dup
          branch.floor = branch.weight + @bound.raise_over(branch.certain, branch.pending, rest, slack(branch.weight))
          return nil if worse?(branch.floor)

          costs = branch.certain.map { |members| members.map { |i| @bound.sum(i, rest) } }
          beyond = ruled_out(branch.certain, costs, slack(branch.floor))
          return costs if beyond.empty?
          return nil unless beyond.all? { |node| branch.leave(node) }
        end
      end

      # @return [Integer, nil] what may be added to a floor before it is worse than the best plan; nil without one
      def slack(floor) = @best_weight && (@best_weight - floor)

      def worse?(floor) = @best_weight && floor > @best_weight

      # Members that would lift the floor above the best plan so far.
      def ruled_out(certain, costs, slack)
        beyond = []
        return beyond unless slack

        certain.each_with_index do |members, c|
          costs[c].each_with_index { |cost, m| beyond << members[m] if cost > slack }
        end
        beyond
      end

      # Starts with a good plan, so that what cannot beat it is left alone from the first.
      def guess
        guess = StartingPlan.new(@problem, @weights, @bound)
        branch = guess.best or return
        improve(branch)
        @best
          .max_by(TRIES) { |i| @weights[i] }
          .each do |node|
            other = guess.best(without: node)
            improve(other) if other
          end
      end

      # @param branch [Branch] with every choice met
      def improve(branch)
        inside = @nodes.each_index.select { |i| branch.in?(i) }
        full = inside.sum { |i| @full[i] }
        return if @best_full && full >= @best_full

        @best = inside
        @best_full = full
        @best_weight = inside.sum { |i| @weights[i] }
      end
    end
  end
end
