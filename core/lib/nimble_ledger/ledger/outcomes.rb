# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # What plugs have taught about breaking, threads and stubbornness (model.md section 12, "Outcomes"): a factor on the
    # odds for each construction, and for each soak of it after that; threads and stubborn plugs over all constructions.
    class Outcomes
      JOBS = 40

      # @param plugs [Array<Job::Plug>]
      # @param house [House::Settings]
      def initialize(plugs, house)
        @plugs = plugs
        @house = house
        freeze
      end

      # @return [Hash] see formats.md, learned: outcomes
      def to_h
        whole = @plugs.reject { |plug| plug.outcome == "broken" }
        sound = whole.reject { |plug| plug.outcome == "thread" }
        {
          "broken" => constructions,
          "thread" => factor(whole, "thread", @house["thread_chance"], &:thread),
          "stubborn" => factor(sound, "stubborn", @house["stubborn_chance"], &:stubborn)
        }
      end

      private

      def constructions
        @plugs
          .group_by(&:construction)
          .sort
          .to_h do |name, plugs|
            base = @house["break_chance"][name]
            times = factor(plugs, "broken", base, &:broken)
            soaks =
              plugs
                .group_by(&:soak)
                .sort
                .to_h do |soak, same|
                  [soak, factor(same, "broken", base) { |plug| Risk::Odds.shift(plug.broken, times) }]
                end
            [name, { "factor" => times, "soaks" => soaks }]
          end
      end

      # (w + Σ over those it happened to (1 − b)) / (w + Σ over the others b).
      def factor(plugs, outcome, base, &chance)
        weight = [JOBS * base, 1].max
        happened, others = plugs.partition { |plug| plug.outcome == outcome }
        (weight + happened.size - happened.sum(0.0, &chance)) / (weight + others.sum(0.0, &chance))
      end
    end
  end
end
