# frozen_string_literal: true

module NimbleLedger
  module Access
    # Why a step is in a plan, and what a target goes through (model.md section 2, "Why"). The plain-language
    # explanation is built from this, never typed.
    module Why
      module_function

      # Each target's own steps, in removal order.
      # @param steps [Array<Profile::Step>] of the plan, in removal order
      # @param ways [Hash{Profile::Target=>Profile::Way}]
      # @param before [Hash{String=>Array<String>}] step id to the ids that come off before it
      # @param members [Hash] Profile::Choice (by identity) to the member id chosen
      # @return [Hash{Profile::Target=>Array<String>}] step ids
      def chains(steps, ways, before, members)
        ways.to_h do |target, way|
          reached = below(way.through + way.choices.map { |choice| members[choice] }, before)
          [target, steps.map(&:id).select { |id| reached[id] }]
        end
      end

      # These steps and all that comes off before them.
      # @return [Hash{String=>true}]
      def below(ids, before)
        open = ids.dup
        seen = {}
        until open.empty?
          id = open.pop
          next if seen[id]

          seen[id] = true
          open.concat(before[id])
        end
        seen
      end

      # Targets that need a step.
      # @param chains [Hash{Profile::Target=>Array<String>}]
      def needed_by(step, chains) = chains.select { |_target, ids| ids.include?(step.id) }.keys
    end
  end
end
