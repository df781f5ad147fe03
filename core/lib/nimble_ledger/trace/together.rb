# frozen_string_literal: true

module NimbleLedger
  module Trace
    # What is renewed together (model.md section 9, "Given more"): coil and plug were swapped at once and the fault went
    # along, so that it is one of the two; where they sit now, and what cures them reaches ENOUGH, both are renewed.
    class Together
      ENOUGH = 0.9

      # @param belief [Posterior]
      # @param repairs [Repairs]
      def initialize(belief, repairs)
        @belief = belief
        @repairs = repairs
        freeze
      end

      # @return [Array<Profile::Target>] the likeliest first; none where one alone is enough, or all are not
      def targets
        swap = @belief.evidence.counted.reverse.find { |one| one.test == "swap-both" && one.outcome == "moved" }
        return [] unless swap

        chosen = []
        moved(swap.cylinder).each do |target|
          break if enough?(chosen)

          chosen << target
        end
        chosen.size > 1 && enough?(chosen) ? chosen : []
      end

      private

      # What renews the parts that sat at a cylinder, where they sit now.
      def moved(cylinder)
        held = @belief.held.select { |one| one.hypothesis.part && one.hypothesis.cylinders.include?(cylinder) }
        here = held.select { |one| %w[coil plug].include?(one.hypothesis.cause) }
        here.sort_by { |one| -one.chance }.filter_map { |one| @repairs.target(one.hypothesis) }.uniq
      end

      def enough?(targets)
        cured = @belief.held.select { |one| @repairs.cures?(targets, one.hypothesis) }
        cured.sum(0.0, &:chance) >= ENOUGH
      end
    end
  end
end
