# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # How often plugs really broke, took their thread along or were stubborn, against what was expected (model.md
    # section
    # 12, "Outcomes"): breaks by construction, and by soak of it after that; threads and stubborn plugs over all. Where
    # other shops have found something, that is what is started from (section 17).
    class Outcomes
      JOBS = 40

      # What was seen of one kind: how many plugs; Σ (1 − b) over those it happened to, Σ b over the others.
      Seen =
        Struct.new(:plugs, :broken_sum, :whole_sum) do
          def to_h = { "plugs" => plugs, "broken_sum" => broken_sum, "whole_sum" => whole_sum }

          # @param base [Float] the shipped or house chance
          # @return [Float] what odds are multiplied by
          def factor(base)
            weight = [JOBS * base, 1].max
            (weight + broken_sum) / (weight + whole_sum)
          end
        end

      # @param plugs [Array<FinishedJob::Plug>]
      # @param house [House::Settings]
      # @param pooled [Hash, nil] "outcomes" of a pool: factors of other shops
      def initialize(plugs, house, pooled: nil)
        @plugs = plugs
        @house = house
        @pooled = pooled || { "broken" => {}, "thread" => 1.0, "stubborn" => 1.0 }
        @constructions = constructions
        freeze
      end

      # @return [Hash] see formats.md, learned: factors by which odds are multiplied
      def to_h
        {
          "broken" => @constructions.transform_values { |one| { "factor" => one.factor, "soaks" => one.soaks } },
          "thread" => own("thread", whole, @house["thread_chance"], &:thread),
          "stubborn" => own("stubborn", sound, @house["stubborn_chance"], &:stubborn)
        }
      end

      # @return [Hash] see formats.md, shares: sums only, as if there were no pool
      def shares
        alone = Outcomes.new(@plugs, @house)
        {
          "broken" => alone.sums_by_construction,
          "thread" => seen(whole, "thread", &:thread).to_h,
          "stubborn" => seen(sound, "stubborn", &:stubborn).to_h
        }
      end

      # What a plug's break chance is after what was learned of its construction and soak.
      # @param plug [FinishedJob::Plug]
      # @return [Float]
      def learned(plug)
        one = @constructions.fetch(plug.construction)
        Risk::Odds.shift(plug.broken, one.factor * one.soaks.fetch(plug.soak, 1.0))
      end

      protected

      def sums_by_construction
        @plugs
          .group_by(&:construction)
          .sort
          .to_h do |name, plugs|
            factor = @constructions.fetch(name).factor
            soaks =
              plugs
                .group_by(&:soak)
                .sort
                .to_h do |soak, same|
                  [soak, seen(same, "broken") { |plug| Risk::Odds.shift(plug.broken, factor) }.to_h]
                end
            [name, seen(plugs, "broken", &:broken).to_h.merge("soaks" => soaks)]
          end
      end

      private

      Construction = Struct.new(:factor, :soaks)
      private_constant :Construction

      def whole = @plugs.reject { |plug| plug.outcome == "broken" }
      def sound = whole.reject { |plug| plug.outcome == "thread" }

      def constructions
        seen = @plugs.group_by(&:construction)
        (seen.keys | @pooled["broken"].keys).sort.to_h { |name| [name, construction(name, seen.fetch(name, []))] }
      end

      def construction(name, plugs)
        base = @house["break_chance"][name]
        pooled = @pooled["broken"].fetch(name, { "factor" => 1.0, "soaks" => {} })
        factor = after(pooled["factor"], plugs, "broken", base, &:broken)
        by_soak = plugs.group_by(&:soak)
        soaks =
          (by_soak.keys | pooled["soaks"].keys).sort.to_h do |soak, _none|
            from = pooled["soaks"].fetch(soak, 1.0)
            learned =
              after(from, by_soak.fetch(soak, []), "broken", base) { |plug| Risk::Odds.shift(plug.broken, factor) }
            [soak, learned]
          end
        Construction.new(factor, soaks)
      end

      def own(name, plugs, base, &chance) = after(@pooled[name], plugs, name, base, &chance)

      # The whole factor: what others have found, and what this shop has found after that.
      def after(pooled, plugs, outcome, base)
        pooled * seen(plugs, outcome) { |plug| Risk::Odds.shift(yield(plug), pooled) }.factor(base)
      end

      def seen(plugs, outcome, &chance)
        happened, others = plugs.partition { |plug| plug.outcome == outcome }
        Seen.new(plugs.size, happened.size - happened.sum(0.0, &chance), others.sum(0.0, &chance))
      end
    end
  end
end
