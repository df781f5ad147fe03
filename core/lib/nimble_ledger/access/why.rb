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
        ids = steps.map(&:id)
        below = below(ids, before)
        ways.to_h do |target, way|
          own = way.through + way.choices.map { |choice| members[choice] }
          [target, Closures.bits(own.reduce(0) { |mask, id| mask | below[id] }).map { |place| ids[place] }]
        end
      end

      # Each step with all that comes off before it.
      # @param ids [Array<String>] in removal order: what comes before a step stands before it
      # @return [Hash{String=>Integer}] masks of places in that order
      def below(ids, before)
        ids
          .each_with_index
          .with_object({}) do |(id, place), masks|
            masks[id] = before[id].reduce(1 << place) { |mask, other| mask | masks[other] }
          end
      end

      # Targets that need a step.
      # @param chains [Hash{Profile::Target=>Array<String>}]
      def needed_by(step, chains) = chains.select { |_target, ids| ids.include?(step.id) }.keys
    end
  end
end
