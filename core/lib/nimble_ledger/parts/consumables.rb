# frozen_string_literal: true

module NimbleLedger
  module Parts
    # What the job uses up (model.md section 6): grease for each plug whose own boot is old, compound where it is in
    # force, cleaner for each soaked plug, coolant for what a step lets out.
    class Consumables
      Row = Struct.new(:label, :quantity, :unit_cents)

      # @param plan [Access::Plan]
      # @param house [House::Settings] resolved for the job
      def initialize(plan, house:)
        @plan = plan
        @house = house
        freeze
      end

      # @return [Array<Row>] unit price in cents; only what is used
      def rows
        [
          Row.new("Boot grease", greased_boots, @house["grease_cents"]),
          Row.new("Thread compound", compound? ? plugs : 0, @house["compound_cents"]),
          Row.new("Penetrating cleaner", @plan.soak == "none" ? 0 : plugs, @house["cleaner_cents"]),
          Row.new("Coolant top-up", coolant_liters, @house["coolant_cents_per_liter"])
        ].select { |row| row.quantity.positive? }
      end

      private

      def compound? = Compound.used?(@plan.engine, @house)

      def plugs = @plan.targets.sum(&:plugs)

      def greased_boots
        return 0 if @house["boot_grease"] == "none"

        boots = Boots.new(@plan.engine, @plan.targets, @plan.chains)
        @plan.targets.sum { |target| target.plug? ? boots.old(target) : 0 }
      end

      def coolant_liters
        @plan
          .steps
          .flat_map(&:releases)
          .select { |release| release["fluid"] == "coolant" }
          .sum(0r) { |release| ThreePoints.exact(release["liters"]) }
          .to_f
      end
    end
  end
end
