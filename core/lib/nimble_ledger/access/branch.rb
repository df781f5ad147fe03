# frozen_string_literal: true

module NimbleLedger
  module Access
    # A plan half decided, as Search carries it: which nodes are in it, which it does without, what it weighs so far,
    # and which choices are still to be met.
    class Branch
      # What every branch of one search has in common, by node (its closure, what lies above it) and by choice (its
      # members; its holder, nil where it must be met), deepest holder first.
      Problem = Struct.new(:lists, :above, :members, :holders)

      FREE = 0
      IN = 1
      OUT = 2
      private_constant :FREE, :IN, :OUT

      # A choice that has to be met only if its holder is in.
      Pending = Struct.new(:holder, :members)

      # @return [Integer] of what is in
      attr_reader :weight

      # @return [Array<Integer>] weights by node; 0 for what is in
      attr_reader :open

      # @return [Array<Array<Integer>>] members left of the choices that must be met; set by #force
      attr_reader :certain

      # @return [Array<Pending>] choices that may have to be met; set by #force
      attr_reader :pending

      # @return [Integer] what it will weigh at least
      attr_accessor :floor

      # @param weights [Array<Integer>] by node
      # @return [Branch] with nothing decided
      def self.root(problem, weights) =
        new(problem, Array.new(weights.size, FREE), problem.members.each_index.to_a, 0, weights.dup, 0)

      def initialize(problem, marks, picks, weight, open, floor)
        @problem = problem
        @marks = marks
        @picks = picks
        @weight = weight
        @open = open
        @floor = floor
      end

      # Another branch that starts where this one stands.
      def copy = Branch.new(@problem, @marks.dup, @picks, @weight, @open.dup, @floor)

      def in?(node) = @marks[node] == IN

      # Takes a node and all below it.
      # @return [Boolean] false when it does without some of that
      def take(node)
        @problem.lists[node].each do |i|
          mark = @marks[i]
          next if mark == IN
          return false if mark == OUT

          @marks[i] = IN
          @weight += @open[i]
          @open[i] = 0
        end
        true
      end

      # Does without a node and all above it.
      # @return [Boolean] false when some of that is in
      def leave(node)
        @problem.above[node].each do |i|
          return false if @marks[i] == IN

          @marks[i] = OUT
        end
        true
      end

      # Follows what is forced: a choice with one member left takes it; a holder with none left is done without.
      # @return [Boolean] false when no plan comes of it
      def force
        while (moved = pass) == :moved
          nil
        end
        moved == :settled
      end

      private

      # Looks at every choice once.
      # @return [Symbol] :moved, :settled when nothing did, :contradiction
      def pass
        @certain = []
        @pending = []
        before = @picks
        @picks = []
        moved = :settled
        before.each do |p|
          step = look_at(p) or next
          return step if step == :contradiction

          moved = step if step == :moved
        end
        moved
      end

      # @return [Symbol, nil] what came of looking at a choice; nil when it is met or has not to be
      def look_at(p)
        holder = @problem.holders[p]
        held = holder ? @marks[holder] : IN
        return nil if held == OUT || (left = left_of(@problem.members[p])).nil?

        @picks << p
        if held == FREE
          return leave(holder) ? :moved : :contradiction if left.empty?

          @pending << Pending.new(holder, left)
          :settled
        else
          must(left)
        end
      end

      def must(left)
        if left.size > 1
          @certain << left
          return :settled
        end

        left.size == 1 && take(left.first) ? :moved : :contradiction
      end

      # @return [Array<Integer>, nil] members that may still be taken; nil when one is in
      def left_of(members)
        some_out = false
        m = members.size
        while (m -= 1) >= 0
          mark = @marks[members[m]]
          return nil if mark == IN

          some_out = true if mark == OUT
        end
        some_out ? members.reject { |i| @marks[i] == OUT } : members
      end
    end
  end
end
