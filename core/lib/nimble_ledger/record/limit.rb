# frozen_string_literal: true

module NimbleLedger
  module Record
    # The "not above without a call" total a customer agrees to (model.md section 14): never below the total itself, and
    # no line is billed beyond it without another yes.
    module Limit
      module_function

      # What is offered as the limit of a scope: what its trouble may come to, else the house margin above the total.
      # @param answer [Hash] a frozen estimate, "price" in it
      # @param page [Hash] what was frozen of its page; "trouble" where there is any
      # @param house [House::Settings]
      # @return [Integer] cents
      def offered(answer, page, house)
        total = answer["price"]["total_cents"]
        known = page.dig("trouble", "not_above_cents")
        known || Money.round(total * (1 + ThreePoints.exact(house["call_margin"])))
      end

      # @param limit_cents [Integer] that is agreed to
      # @param total_cents [Integer]
      # @return [String, nil] code of what is wrong with it: "below_total"
      def fault(limit_cents, total_cents) = limit_cents < total_cents ? "below_total" : nil
    end
  end
end
