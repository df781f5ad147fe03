# frozen_string_literal: true

module NimbleLedger
  module Scope
    # What the old parts of one kind share (model.md section 8): a gamma frailty of mean 1, moved by what has failed
    # already against what was to be expected.
    class OldPartsFrailty
      # @param variance [Numeric]
      # @param failures [Integer] of the kind on this set, today's and earlier
      # @param hazard [Float] taken on by all its parts, those that failed included
      def initialize(variance, failures:, hazard:)
        @shape = (1 / variance.to_f) + failures
        @rate = (1 / variance.to_f) + hazard
        freeze
      end

      # @param more [Float] hazard still to come
      # @return [Float] chance that nothing fails over it
      def none(more) = (@rate / (@rate + more))**@shape

      # @return [Float] chance that one does
      def fails(more) = 1 - none(more)
    end
  end
end
