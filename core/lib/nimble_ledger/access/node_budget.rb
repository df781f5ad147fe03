# frozen_string_literal: true

module NimbleLedger
  module Access
    # What one answer may spend on planning (model.md section 2, "Effort"), counted in nodes of the search: no clock, so
    # the same input gives the same output. Everything one answer computes shares it: the plan first, then soundings,
    # while-open, alternatives.
    #
    #   effort = Access::NodeBudget.new(tick: -> { Thread.pass })
    #   planner.plan(targets, effort: effort).proven?   #=> false when the nodes ran out first
    class NodeBudget
      NODES = 2_000 # about a second's worth on the hardest profiles the format allows

      attr_reader :visited

      # @param nodes [Integer] how many may be visited
      # @param tick [Proc, nil] called at every node: to let others run, or to raise when nobody waits for the answer
      def initialize(nodes = NODES, tick: nil)
        @nodes = nodes
        @tick = tick
        @visited = 0
        @charged = {}.compare_by_identity
      end

      # One node more.
      def visit
        @visited += 1
        @tick&.call
      end

      def spent? = @visited >= @nodes

      # Counts what was found out before, once for each answer.
      # @param planner [Planner] whose it is
      # @param key [Integer] what it is, among that planner's
      # @param nodes [Integer] what it took
      # @return [Boolean] false when that is more than is left: it has to be looked into again, as far as the rest goes
      def charge(planner, key, nodes)
        return true if @charged[planner]&.key?(key)
        return false if @visited + nodes > @nodes

        @visited += nodes
        paid(planner, key)
      end

      # Remembers that something was found out at this answer's cost.
      # @return [true]
      def paid(planner, key) = (@charged[planner] ||= {})[key] = true
    end
  end
end
