# frozen_string_literal: true

module NimbleLedger
  module Access
    # The order steps come off in (model.md section 2, "Order"): prerequisites first, staying in a zone while it
    # has anything free, starting at the top; otherwise file order.
    module Order
      module_function

      # @param steps [Array<Profile::Step>] the steps of a plan, in file order
      # @param before [Hash{String=>Array<String>}] step id to the ids that must be off before it
      # @return [Array<Profile::Step>] removal order
      # @param ports_last [Boolean] whether a step that opens ports is free only when no other is (rules 3)
      def removal(steps, before, ports_last: false)
        open = steps.to_h { |step| [step.id, before[step.id].uniq.size] }
        after = after(steps, before)
        free = steps.select { |step| open[step.id].zero? }
        zone = "top"
        steps.map do
          step = next_of(free, zone, ports_last)
          zone = step.zone
          free.delete(step)
          freed = after.fetch(step.id, []).select { |one| (open[one.id] -= 1).zero? }
          free = (free + freed).sort_by(&:position) unless freed.empty?
          step
        end
      end

      # @return [Hash{String=>Array<Profile::Step>}] what each step has to be off for
      # The first of the zone, else the first; a step that opens ports only where nothing else is free.
      def next_of(free, zone, ports_last)
        unmarked = ports_last ? free.reject(&:opens_ports?) : free
        choice = unmarked.empty? ? free : unmarked
        choice.find { |one| one.zone == zone } || choice.first
      end

      def after(steps, before)
        steps.each_with_object({}) { |step, after| before[step.id].uniq.each { |id| (after[id] ||= []) << step } }
      end
    end
  end
end
