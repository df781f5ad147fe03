# frozen_string_literal: true

module NimbleLedger
  module Trace
    # What is believed of every suspect after codes, when it misfires, and tests (model.md section 9, "Posterior"), with
    # what each piece of evidence did.
    class Posterior
      # A suspect with its chance.
      Held = Struct.new(:hypothesis, :chance, :now)
      # What a piece of evidence did to the suspect that leads in the end.
      Step = Struct.new(:name, :before, :after)

      attr_reader :places, :evidence

      # @param hypotheses [Array<Hypothesis>]
      # @param codes [Codes]
      # @param moment [String, nil] when it misfires
      # @param evidence [Evidence]
      # @param tables [Tables]
      # @param counters [Counters]
      # @raise [InvalidInput] when nothing is left that could be
      def initialize(hypotheses, codes, moment, evidence, tables, counters)
        @hypotheses = hypotheses
        @tables = tables
        @evidence = evidence
        @places = evidence.places
        pieces = [
          ["codes", ->(h) { codes.likelihood(h) }],
          ["when", ->(h) { moment ? tables.when(h.row, moment) : 1.0 }]
        ]
        pieces << ["counters", ->(h) { counters.likelihood(places.affects(h)) }] if counters.any?
        pieces += evidence.counted.map { |one| [one, ->(h) { evidence.likelihood(h, one) }] }
        @stages = stages(pieces)
        freeze
      end

      # @return [Array<Held>] in the order of the hypotheses
      def held
        @hypotheses
          .zip(@stages.last.last)
          .map { |hypothesis, chance| Held.new(hypothesis, chance, places.affects(hypothesis)) }
      end

      # @return [Array<Step>] codes, when, and each test that counts
      def steps
        leading = @stages.last.last.each_with_index.max_by { |chance, i| [chance, -i] }.last
        @stages.each_cons(2).map { |before, after| Step.new(after.first, before.last[leading], after.last[leading]) }
      end

      private

      # Chances before anything, and after each piece.
      def stages(pieces)
        first = [nil, @hypotheses.map(&:prior)]
        pieces.reduce([first]) do |all, (name, likelihood)|
          all + [[name, normal(all.last.last.zip(@hypotheses).map { |chance, h| chance * likelihood.call(h) })]]
        end
      end

      def normal(weights)
        whole = weights.sum
        return weights.map { |weight| weight / whole } if whole.positive?

        raise InvalidInput.at("/evidence", "contradicts the tables: nothing is left that could be the fault")
      end
    end
  end
end
