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
      def removal(steps, before)
        waiting = steps.dup
        off = {}
        zone = "top"
        order = []
        until waiting.empty?
          free = waiting.select { |step| before[step.id].all? { |id| off[id] } }
          nxt = free.find { |step| step.zone == zone } || free.first
          zone = nxt.zone
          off[nxt.id] = true
          order << nxt
          waiting.delete(nxt)
        end
        order
      end
    end
  end
end
