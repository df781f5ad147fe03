# frozen_string_literal: true

module NimbleLedger
  module Access
    # A good plan at once, for Search to start with: choice by choice the member that adds least, the choice first whose
    # second best would add most. It is not proven to be the least, and mostly is not (measured on the hardest profiles:
    # one to three parts in a hundred above it), but what cannot beat it need not be looked into (a third of the nodes
    # fewer).
    class StartingPlan
      BEYOND = 1 << 62
      private_constant :BEYOND

      # @param problem [Branch::Problem]
      # @param weights [Array<Integer>] by node
      # @param bound [Bound] which says what a member adds
      def initialize(problem, weights, bound)
        @problem = problem
        @bound = bound
        @weights = with_what_follows(weights)
      end

      # @param without [Integer, nil] a node it has to do without
      # @return [Branch, nil] that meets every choice it holds; nil when it ran into one that cannot be met
      def best(without: nil)
        branch = Branch.root(@problem, @weights)
        return nil if without && !branch.leave(without)

        while branch.force
          return branch if branch.certain.empty?
          return nil unless branch.take(dearest_to_miss(branch.certain, branch.open))
        end
      end

      private

      # Weights with, at the holder of a choice, the least that choice will add.
      def with_what_follows(weights)
        all = weights.dup
        @problem.members.each_with_index do |members, p|
          holder = @problem.holders[p]
          all[holder] += members.map { |i| @bound.sum(i, all) }.min if holder
        end
        all
      end

      # The best member of the choice whose second best adds most.
      def dearest_to_miss(certain, open)
        found = nil
        most = -1
        certain.each do |members|
          node = nil
          least = second = BEYOND
          members.each do |i|
            adds = @bound.sum(i, open)
            if adds < least
              second = least
              least = adds
              node = i
            elsif adds < second
              second = adds
            end
          end
          found, most = node, second if second > most
        end
        found
      end
    end
  end
end
