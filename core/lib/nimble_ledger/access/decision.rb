# frozen_string_literal: true

module NimbleLedger
  module Access
    # What Search decides about next: a dear step that the cheapest members of several choices share, in or out; where
    # no step is shared like that, the member of the choice that is surest of it (measured: half the nodes of the latter
    # alone).
    class Decision
      CONTENDED = 3
      IMPOSSIBLE = 1 << 61
      private_constant :IMPOSSIBLE

      # A node, and what doing without it adds at least.
      Choice = Struct.new(:node, :without)

      # @param lists [Array<Array<Integer>>] closure of each node
      def initialize(lists)
        @lists = lists
        freeze
      end

      # @param certain [Array<Array<Integer>>] members of choices that must be met
      # @param costs [Array<Array<Integer>>] what each of them adds to the bound
      # @param open [Array<Integer>] weights not yet in the plan
      # @return [Choice]
      def next(certain, costs, open)
        node = contended(certain, costs, open)
        node ? Choice.new(node, without(node, certain, costs)) : surest(certain, costs)
      end

      private

      # The node of the most weight times choices; of equals the first.
      def contended(certain, costs, open)
        uses = uses(certain, costs)
        best = nil
        most = 0
        uses.each_with_index do |count, node|
          next if count < CONTENDED

          worth = open[node] * count
          best, most = node, worth if worth > most
        end
        best
      end

      # @return [Array<Integer>] by node, through how many choices' cheapest members it is gone
      def uses(certain, costs)
        uses = Array.new(@lists.size, 0)
        certain.each_with_index do |members, c|
          own = costs[c]
          @lists[members[own.index(own.min)]].each { |node| uses[node] += 1 }
        end
        uses
      end

      # Without a node every choice has to do with the members that do not go through it.
      def without(node, certain, costs)
        most = 0
        certain.each_with_index do |members, c|
          least = IMPOSSIBLE
          own = costs[c]
          members.each_with_index { |member, m| least = own[m] if own[m] < least && !@lists[member].include?(node) }
          most = least if least > most
        end
        most
      end

      # The choice whose cheapest member is most ahead of its second, small choices before large; that member is tried
      # first.
      def surest(certain, costs)
        best = nil
        lead = -1
        certain.each_with_index do |members, c|
          least, second = costs[c].min(2)
          ahead = (second - least) / members.size
          best, lead = Choice.new(members[costs[c].index(least)], second), ahead if ahead > lead
        end
        best
      end
    end
  end
end
