# frozen_string_literal: true

module NimbleLedger
  module Parts
    # What a plan needs and why (model.md section 6): the targets' own parts, every disturbed seal by its rule,
    # single-use fasteners, clips that may break, parts of mishaps. Coils shared by several cylinders are needed once.
    class Needed
      # rule: "needed" (a target asks for it), "replace" (a step disturbs it) or "if-needed" (with its chance).
      Row = Struct.new(:part, :quantity, :because, :rule, :chance)

      # Work that is nothing without its part: a target that names none makes the total incomplete, never free.
      OWN_PARTS = %w[wire boot cap-and-rotor tube-seal cover-gasket].freeze

      attr_reader :rows, :unnamed

      def initialize(plan, house:)
        @plan = plan
        @house = house
        @rows = []
        @unnamed = []
        coils = {}
        plan.targets.each { |target| own_parts(target, coils) }
        plan.steps.each { |step| disturbed(step) }
        Risk::Mishaps.of(plan, condition: plan.condition, house: house).each { |mishap| mishap_parts(mishap) }
        freeze
      end

      # Rows that are certainly billed.
      def billed = rows.reject { |row| row.rule == "if-needed" }

      # @return [Array<Consumables::Row>] what the job uses up
      def consumables = Consumables.new(@plan, house: @house).rows

      private

      def own_parts(target, coils)
        add_plugs(target) if target.plug?
        add_coils(target, coils) if target.work == "coil"
        @unnamed << target.id if OWN_PARTS.include?(target.work) && target.own_parts.empty?
        target.own_parts.each { |own| add(own["part"], own["quantity"].to_i, target.id, "needed") }
      end

      def add_plugs(target)
        part = target.plug_part || @plan.engine.plug("part")
        return add(part, target.plugs, target.id, "needed") if part

        @unnamed << target.id if target.own_parts.empty?
      end

      def add_coils(target, seen)
        found = @plan.engine.coils_for(target)
        @unnamed << target.id if found.empty? && target.own_parts.empty?
        found.each do |coil|
          row = seen[coil.id] ? row_for(coil.part, "needed") : add(coil.part, 1, target.id, "needed")
          row.because << target.id unless row.because.include?(target.id)
          seen[coil.id] = true
        end
      end

      def disturbed(step)
        step.seals.each do |seal|
          replace = (seal["rule"] || "replace") == "replace" || @house["inspect_seals"] == "replace"
          add(
            seal["part"],
            (seal["quantity"] || 1).to_i,
            step.id,
            replace ? "replace" : "if-needed",
            replace ? nil : seal["chance"]
          )
        end
        step.fasteners.each do |f|
          add(f["part"], (f["count"] || 1).to_i, step.id, "replace") if f["part"] && f["rule"] == "replace"
        end
        step.clips.each do |clip|
          add(clip["part"], (clip["count"] || 1).to_i, step.id, "if-needed", clip["chance"] || 0)
        end
      end

      def mishap_parts(mishap)
        mishap.parts.each { |part| add(part["part"], part["quantity"].to_i, mishap.step, "if-needed", mishap.chance) }
      end

      def row_for(part, rule, chance = nil) =
        rows.find { |row| row.part == part && row.rule == rule && row.chance == chance }

      def add(part, quantity, because, rule, chance = nil)
        row = row_for(part, rule, chance)
        unless row
          row = Row.new(part, 0, [], rule, chance)
          @rows << row
        end
        row.quantity += quantity
        row.because << because unless row.because.include?(because)
        row
      end
    end

    # What a job needs that bills nothing.
    module Nothing
      def self.rows = []
      def self.billed = []
      def self.unnamed = []
      def self.consumables = []
    end
  end
end
