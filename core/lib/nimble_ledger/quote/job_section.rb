# frozen_string_literal: true

module NimbleLedger
  module Quote
    # What the page shows of a planned job, in rows: the descent, every task with its points, parts, routes, what else
    # is nearly free, cautions at their step.
    class JobSection
      # @param answer [Job]
      # @param reach [Picture::Reach] for what lies over the other cylinders
      # @param works [Array<String>] kinds of work chosen
      def initialize(answer, reach, works)
        @answer = answer
        @engine = answer.car.engine
        @routes = Routes.new(answer)
        @bundles = Bundles.new(answer, reach, works)
        freeze
      end

      # @return [Hash] see the contract, Sheet: estimate, descent, tasks, while_open, cautions, parts, routes, pinned
      def to_h
        {
          "estimate" => Estimate::Answer.new(@answer).to_h,
          "descent" => Sheet.descent(@answer.plan),
          "tasks" => tasks,
          "while_open" => @bundles.list.map { |bundle| bundle_row(bundle) },
          "cautions" => cautions,
          "parts" => parts,
          "grades" => grades,
          "routes" => @routes.decisions.map { |decision| decision_row(decision) },
          "pinned" => @routes.pinned?
        }
      end

      private

      # What is ordered and what may be, with what it is for.
      def parts
        @answer.needed.rows.map do |row|
          {
            "part" => row.part,
            "label" => @answer.car.catalog&.description(row.part).to_s,
            "quantity" => row.quantity,
            "rule" => row.rule,
            "chance" => row.chance,
            "because" => row.because.map { |id| (@engine.target(id) || @engine.step(id)).label }
          }
        end
      end

      # Plugs to choose from, by what they cost over their life with this access.
      def grades
        Bench::Grade
          .new(@answer)
          .rows
          .map do |row|
            {
              "part" => row.part,
              "label" => @answer.car.catalog.description(row.part),
              "taken" => row.part == @engine.plug("part"),
              "grade" => row.grade,
              "life_km" => row.life,
              "cents" => row.cents,
              "per_1000_km_cents" => row.per_1000_km
            }
          end
      end

      def decision_row(decision) =
        { "label" => decision.label, "options" => decision.options.map { |option| option_row(option) } }

      def option_row(option)
        other = option.answer
        {
          "label" => option.label,
          "in_force" => option.in_force,
          "pinned" => option.pinned,
          "reason" => option.reason,
          "added_minutes" => option.added_minutes,
          "quoted_hours" => other.quoted_tenths / 10.0,
          "added_hours" => (other.quoted_tenths - @answer.quoted_tenths) / 10.0,
          "total_cents" => other.price&.total_cents,
          "added_cents" => other.price && (other.price.total_cents - @answer.price.total_cents),
          "equipment" => other.plan.equipment.map { |id| Words.equipment(id) },
          "missing" => option.missing.map { |id| Words.equipment(id) },
          "pins" => option.pins.to_h,
          "descent" => option.in_force ? nil : Sheet.descent(other.plan)
        }
      end

      # Every figure of the hours, opened: three points, what multiplied them, and the mean.
      def tasks
        @answer.plan.job.tasks.map do |task|
          {
            "kind" => task.kind,
            "ref" => task.ref,
            "label" => task.label,
            "low" => task.points.low,
            "likely" => task.points.likely,
            "high" => task.points.high,
            "mean" => task.mean,
            "people" => task.people,
            "reasons" => task.reasons.map { |reason| reason.to_h.transform_keys(&:to_s) },
            "origin" => origin(task),
            "chain" => chain(task)
          }
        end
      end

      # Where the minutes of a step or of work come from; nil for what the house says.
      def origin(task)
        list = { "remove" => "steps", "refit" => "steps", "work" => "targets" }[task.kind]
        key = task.kind == "work" ? "minutes" : task.kind
        list && Profile::Origins.of(@engine.source, list, task.ref, key)
      end

      # For the work on a target: what it goes through, in removal order.
      def chain(task)
        return [] unless task.kind == "work"

        @answer.plan.chains.fetch(@engine.target(task.ref)).map { |id| @engine.step(id).label }
      end

      def bundle_row(bundle)
        {
          "label" => bundle.label,
          "opening" => bundle.opening&.to_h&.transform_keys(&:to_s),
          "targets" => bundle.targets.map(&:id),
          "cylinders" => bundle.targets.flat_map(&:cylinders).uniq.sort,
          "works" => bundle.targets.map(&:work).uniq,
          "added_hours" => bundle.added_tenths / 10.0,
          "added_cents" => bundle.added_cents,
          "alone_hours" => bundle.alone_tenths / 10.0,
          "alone_cents" => bundle.alone_cents
        }
      end

      def cautions =
        Cautions.new(@answer.plan).rows.map { |row| { "text" => row.text, "refs" => row.refs, "at" => row.at } }
    end
  end
end
