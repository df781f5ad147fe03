# frozen_string_literal: true

module NimbleLedger
  module Access
    # Ways about as short as the least plan that spare the car something (model.md section 2, "Near tie"): no closing
    # work, no battery or no new part where the least plan has one. Named beside it; an advisor may want the quieter
    # way.
    class NearTies
      # ways and choices as an answer has them; extra: minutes; spares: "closing", "battery", "parts".
      Row = Struct.new(:ways, :choices, :extra, :spares)

      # @param job [Job] as planned
      # @param minutes [Numeric] how near a tie is
      # @param new_parts [Proc] whether a plan takes parts that are always new
      def initialize(job, minutes:, new_parts:)
        @new_parts = new_parts
        @job = job
        @plan = job.plan
        @within = minutes
      end

      # @return [Array<Row>] least extra minutes first
      def rows
        return [] if needs_of(@plan).values.none?

        found =
          Alternatives
            .new(@job.planner, @plan, effort: @job.effort)
            .rows
            .select(&:feasible?)
            .filter_map { |row| tie(row) }
        found.uniq { |row| [row.ways, row.choices] }.sort_by { |row| [row.extra, row.ways.to_a, row.choices.to_a] }
      end

      private

      def tie(row)
        return nil if row.added > @within + 1e-9

        spares = needs_of(@plan).select { |name, there| there && !needs_of(row.plan)[name] }.keys
        return unless spares.any?
        Row.new(row.plan.ways.to_h { |target, way| [target.id, way.id] }, row.plan.choices, row.added.to_f, spares)
      end

      # What a plan brings with it beyond taking things off and putting them back.
      def needs_of(plan)
        {
          "closing" => plan.steps.any? { |step| step.closing.any? },
          "battery" => !Costs.battery_always?(@job.car) && plan.steps.any?(&:battery?),
          "parts" => @new_parts.call(plan)
        }
      end
    end
  end
end
