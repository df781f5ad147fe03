# frozen_string_literal: true

module NimbleLedger
  module Price
    # A discount (model.md section 7): taken off before tax, never beyond the lines it is taken off, and spread over all
    # of them by largest remainder, remainder ties to the earlier line.
    module Discount
      module_function

      # @param cents [Integer] what was agreed
      # @param gross [Array<Integer>] cents of every line before tax
      # @return [Integer] cents taken off
      def amount(cents, gross) = [cents, gross.sum].min

      # @param cents [Integer] taken off
      # @return [Array<Integer>] cents of each line with its share of the discount taken off
      def net(cents, gross)
        return gross unless cents.positive?

        gross.zip(Money.spread(cents, gross)).map { |whole, off| whole - off }
      end
    end
  end
end
