# frozen_string_literal: true

module NimbleLedger
  module Quote
    # The reach drawing and its layer list as the page shows them: layers numbered in removal order, contours labeled
    # with those numbers, the depth of each in layers.
    class Chart
      # @param reach [Picture::Reach]
      # @param answer [Job, nil] the job, when there is one
      # @param condition [Time::Condition]
      # @param chosen [Array<Integer>] cylinders
      # @param equipment [Array<String>] what the shop has
      def initialize(reach, answer = nil, condition:, chosen: [], equipment: [])
        @equipment = equipment
        @reach = reach
        @engine = reach.engine
        @answer = answer
        @condition = condition
        @chosen = chosen
      end

      # @return [Array<Hash>] see the contract, Layer
      def layers
        numbered.map do |step, number|
          {
            "number" => number,
            "step" => step.id,
            "label" => step.label,
            "in_plan" => in_plan?(step),
            "cylinder" => step.cylinder,
            "zone" => step.zone,
            "off_minutes" => mean(step.remove, @condition.remove_factor(step), step),
            "on_minutes" => mean(step.refit, @condition.refit_factor(step), step),
            "closing_minutes" => step.closing.sum(0.0) { |task| task.minutes(@equipment).mean } * step.people,
            "people" => step.people,
            "needs" => step.needs.map { |id| Words.equipment(id) },
            "over" => @reach.over(step),
            "needed_by" => in_plan?(step) ? @answer.plan.needed_by(step).map(&:label) : []
          }
        end
      end

      # @return [Hash] see the contract, Reach
      def reach_section
        {
          "rows" => @reach.rows,
          "columns" => @reach.columns,
          "front" => @reach.front,
          "banks" => @reach.bank_names,
          "arrangement" => @engine.arrangement,
          "cylinders" => cylinders,
          "contours" => @reach.contours.map { |contour| contour_row(contour) },
          "links" => @reach.links.map { |coil| { "coil" => coil.id, "cylinders" => coil.cylinders } },
          "listed" =>
            @reach.listed_only.map { |contour| { "label" => label(contour), "cylinders" => contour.cylinders } }
        }
      end

      private

      # Numbered in removal order: the job's own layers first, then those that lie elsewhere.
      def numbered
        @numbered ||=
          begin
            own = @answer ? @answer.plan.steps : []
            shown = (@reach.contours + @reach.listed_only).flat_map(&:steps) + @reach.locals.values.flatten
            (own + (shown - own)).uniq.each_with_index.to_h { |step, i| [step, i + 1] }
          end
      end

      def in_plan?(step) = @answer&.plan&.steps&.include?(step) || false

      def mean(points, factor, step) = (points * factor).mean * step.people

      def cylinders
        @engine.cylinders.map do |cylinder|
          row, column = @reach.place(cylinder.number)
          {
            "number" => cylinder.number,
            "row" => row,
            "column" => column,
            "bank" => cylinder.bank,
            "plugs" => @engine.plugs_per_cylinder,
            "chosen" => @chosen.include?(cylinder.number),
            "hours" => @reach.soundings[cylinder.number],
            "beneath" => @reach.beneath?(cylinder.number),
            "layers" => (@reach.locals[cylinder.number] || []).map { |step| numbered[step] }
          }
        end
      end

      def contour_row(contour)
        {
          "numbers" => contour.steps.map { |step| numbered[step] }.sort,
          "label" => label(contour),
          "cylinders" => contour.cylinders,
          "partial" => contour.partial,
          "level" => contour.level,
          "depth" => @reach.depth(contour),
          "beneath" => contour.steps.all? { |step| step.zone == "under" },
          "in_plan" => !@answer.nil? && (contour.steps - @answer.plan.steps).empty?,
          "runs" => contour.runs.map { |run| run.to_h.transform_keys(&:to_s) }
        }
      end

      # "2", "4–6", "2, 4–6"
      def label(contour)
        contour
          .steps
          .map { |step| numbered[step] }
          .sort
          .slice_when { |a, b| b != a + 1 }
          .map { |run| run.size > 1 ? "#{run.first}–#{run.last}" : run.first.to_s }
          .join(", ")
      end
    end
  end
end
