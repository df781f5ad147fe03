# frozen_string_literal: true

module NimbleLedger
  module Access
    # What Search decides about next: a dear step that the cheapest members of several choices share, in or out; where
    # no step is shared like that, the member of the choice that is surest of it (measured: half the nodes of the latter
    # alone).
    class Decision
      CONTENDED = 3

      # @param lists [Array<Array<Integer>>] closure of each node
      # @param masks [Array<Integer>] the same as masks
      def initialize(lists, masks)
        @lists = lists
        @masks = masks
        freeze
      end

      # @param certain [Array<Array<Integer>>] members of choices that must be met
      # @param costs [Array<Array<Integer>>] what each of them adds to the bound
      # @param open [Array<Integer>] weights not yet in the plan
      # @return [Array(Integer, Numeric)] the node, and what doing without it adds at least
      def next(certain, costs, open)
        node = contended(certain, costs, open)
        node ? [node, without(node, certain, costs)] : surest(certain, costs)
      end

      private

      def contended(certain, costs, open)
        uses = Hash.new(0)
        certain.each_with_index do |members, c|
          @lists[members[costs[c].index(costs[c].min)]].each { |node| uses[node] += 1 if open[node].positive? }
        end
        uses.select { |_node, count| count >= CONTENDED }.max_by { |node, count| [open[node] * count, -node] }&.first
      end

      # Without a node every choice has to do with the members that do not go through it.
      def without(node, certain, costs)
        certain
          .each_with_index
          .map do |members, c|
            costs[c].each_index.map { |m| @masks[members[m]][node] == 1 ? Float::INFINITY : costs[c][m] }.min
          end
          .max
      end

      # The choice whose cheapest member is most ahead of its second, small choices before large; that member is tried
      # first.
      def surest(certain, costs)
        best = nil
        lead = -1
        otherwise = 0
        certain.each_with_index do |members, c|
          least, second = costs[c].min(2)
          ahead = (second - least) / members.size
          best, lead, otherwise = members[costs[c].index(least)], ahead, second if ahead > lead
        end
        [best, otherwise]
      end
    end
  end
end
