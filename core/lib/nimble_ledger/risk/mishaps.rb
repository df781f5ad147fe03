# frozen_string_literal: true

module NimbleLedger
  module Risk
    # Mishaps of the steps in a plan (model.md section 5): independent events, odds moved by brittle connectors and
    # rust.
    module Mishaps
      Mishap = Struct.new(:step, :what, :chance, :minutes, :parts)

      module_function

      # @param plan [Access::Plan]
      # @return [Array<Mishap>] in removal order; chance 0..1, minutes as ThreePoints
      def of(plan, condition:, house:)
        plan.steps.flat_map do |step|
          factor = odds_factor(step, condition, house)
          step.mishaps.map { |m| Mishap.new(step.id, m.what, Odds.shift(m.chance, factor), m.minutes, m.parts) }
        end
      end

      def odds_factor(step, condition, house)
        factor = 1.0
        factor *= house["mishap_brittle_factor"] if step.brittle? && condition.brittle?
        factor *= house["mishap_rust_factor"][condition.corrosion] if step.rust_prone?
        factor
      end
    end
  end
end
