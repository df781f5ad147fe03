# frozen_string_literal: true

module NimbleLedger
  module Card
    # Tools and parts of the whole job on one list, before it starts (model.md section 15): what is needed, what of it
    # this shop lacks, what is on the shelf and only perhaps needed.
    class LayOut
      SMALL_NM = 30 # torques below this take the small wrench

      # @param job [Job]
      def initialize(job)
        @job = job
        @plan = job.plan
        @car = job.car
        freeze
      end

      # @return [Hash] tools (what, lacking), parts (part, label, quantity, perhaps)
      def to_h = { "tools" => tools, "parts" => parts }

      private

      def tools
        lacking = closing_needs - @car.equipment
        names = (sizes + plug_tools + equipment + closing_needs + wrenches + soak_tools + compounds).uniq
        names.map { |name| { "what" => name.tr("-", " "), "lacking" => lacking.include?(name) } }
      end

      def sizes = @plan.steps.flat_map { |step| step.fasteners.filter_map { |one| one["size"] } }.uniq

      def plug_tools
        @plan.ways.flat_map { |target, way| ToolsOfWork.of(target, @car.engine, way.needs) }
      end

      def equipment = @plan.steps.flat_map(&:needs)
      def closing_needs = @plan.steps.flat_map { |step| step.closing.flat_map(&:needs) }.uniq

      # One wrench for all torques, or a small and a large one: what they must reach.
      def wrenches
        torques
          .partition { |nm| nm < SMALL_NM }
          .reject(&:empty?)
          .map do |list|
            low, high = list.minmax.map { |nm| nm.round(nm < 10 ? 1 : 0) }
            "torque wrench for #{low == high ? low : "#{low} to #{high}"} N·m"
          end
      end

      def torques = @plan.steps.flat_map { |step| step.fasteners.filter_map { |one| one["torque_nm"] } } + plug_torques

      def plug_torques
        @job.targets.select { |one| one.plug? && one.wrench_fits? }.filter_map { |one| PieceOfTarget.torque(one, @job) }
      end

      def soak_tools
        return [] unless @plan.soaked_together?

        ["penetrating fluid", "goggles", *("small impact wrench" if @job.soak == "overnight-impact")]
      end

      def compounds
        [
          ("nickel compound" if Parts::Compound.used?(@car.engine, @car.house) && @job.targets.any?(&:plug?)),
          ("dielectric grease" if @car.house["boot_grease"] == "reused" && boots?)
        ].compact
      end

      def boots? = @plan.steps.any? { |step| @car.engine.coils.any? { |coil| coil.id == step.id } }

      # Each part once as needed, and once as perhaps needed.
      def parts
        counted = @job.needed.rows.group_by { |row| [row.part, row.rule == "if-needed"] }
        counted.map do |(part, perhaps), rows|
          {
            "part" => part,
            "label" => @car.catalog&.description(part).to_s,
            "quantity" => rows.sum(&:quantity),
            "perhaps" => perhaps
          }
        end
      end
    end
  end
end
