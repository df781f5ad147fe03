# frozen_string_literal: true

module NimbleLedger
  module Day
    # What of a job's equipment its bay has to have (model.md section 11, a job's `equipment` on the board): what stands
    # in no bay is carried about and asked of none. Where no single bay has all of it, what the one with the most of it
    # has; the rest is carried there.
    #
    #   BayEquipment.asked(%w[two-post-lift torch], [[], %w[two-post-lift]])  #=> ["two-post-lift"]
    module BayEquipment
      # @param needs [Array<String>] equipment ids of a job's plan
      # @param bays [Array<Array<String>>] equipment ids of each bay, at least one
      # @return [Array<String>] [] where nothing is asked
      def self.asked(needs, bays) = bays.map { |equipment| needs & equipment }.max_by(&:size)
    end
  end
end
