# frozen_string_literal: true

module NimbleLedger
  module Risk
    # What may happen on one job, all plugs and mishaps together (model.md section 5, "Job level").
    class Outcomes
      PlugRow = Struct.new(:target, :chances)

      attr_reader :plug_rows, :mishaps

      # @param plan [Access::Plan]
      # @param removal [PlugRemoval]
      def initialize(plan, removal, condition:, house:)
        @house = house
        @plug_rows = plan.targets.select(&:plug?).map { |target| PlugRow.new(target, removal.chances(target)) }
        @mishaps = Mishaps.of(plan, condition: condition, house: house)
        freeze
      end

      # Chance that nothing on this job fights back.
      def no_trouble
        plugs = plug_rows.reduce(1.0) { |p, row| p * (row.chances.no_trouble**row.target.plugs) }
        mishaps.reduce(plugs) { |p, mishap| p * (1 - mishap.chance) }
      end

      # Hands-on minutes beyond the quote, on average; cure waits are not counted.
      def expected_extra_minutes
        plug_rows.sum(0.0) { |row| row.target.plugs * extra_of(row) } + mishaps.sum(0.0) { |m| m.chance * m.minutes.mean }
      end

      # @return [Array<Float>] [k] = chance that exactly k plugs break, k = 0..plugs
      def broken_counts
        plug_rows.each_with_object([1.0]) do |row, counts|
          row.target.plugs.times { add_plug(counts, row.chances.broken) }
        end
      end

      # Minutes a plug takes beyond the plan when it breaks, loses its thread or is stubborn.
      def break_minutes(target) = ThreePoints.from(@house["extraction_minutes"]) * target.extraction_factor

      def thread_minutes = ThreePoints.from(@house["insert_minutes"])

      def stubborn_minutes = ThreePoints.from(@house["stubborn_minutes"])

      private

      def extra_of(row)
        broken, thread, stubborn = row.chances.to_a
        whole = 1 - broken
        (broken * break_minutes(row.target).mean) + (whole * thread * thread_minutes.mean) +
          (whole * (1 - thread) * stubborn * stubborn_minutes.mean)
      end

      def add_plug(counts, chance)
        counts.push(0.0)
        (counts.size - 1).downto(0) do |k|
          counts[k] = (counts[k] * (1 - chance)) + (k.positive? ? counts[k - 1] * chance : 0.0)
        end
      end
    end
  end
end
