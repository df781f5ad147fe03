# frozen_string_literal: true

module NimbleLedger
  module Quote
    # Which soak a quote starts with (model.md section 5, "What the quote says of itself"): the recommended one where
    # the chance of at least one break without a soak is above the house's bound and the engine allows one; none
    # otherwise.
    module StartingSoak
      module_function

      # @param trouble [Risk::Trouble, nil] of the job without a soak
      # @param recommended [Proc] gives the protocol of least expected cost that meets the promise
      # @return [String] protocol
      def of(trouble, recommended)
        return "none" if trouble.nil? || (trouble.plan.engine.soaks - ["none"]).empty?

        chance = 1 - trouble.outcomes.broken_counts.first
        chance > trouble.answer.car.house["soak_above"] ? recommended.call : "none"
      end
    end
  end
end
