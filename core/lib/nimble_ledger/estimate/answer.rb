# frozen_string_literal: true

require "forwardable"

module NimbleLedger
  module Estimate
    # The answer to an estimate request: plan, hours, while_open, risk, parts, price (formats.md). Sections that the
    # request lacks the inputs for are left out. `rules` numbers the arithmetic, so that a stored answer recomputes.
    class Answer
      extend Forwardable

      PERCENTILES = { "p10" => 0.10, "p50" => 0.50, "p65" => 0.65, "p80" => 0.80, "p95" => 0.95 }.freeze

      attr_reader :job

      def_delegators :job,
                     :car,
                     :targets,
                     :planner,
                     :plan,
                     :price,
                     :outcomes,
                     :needed,
                     :owed,
                     :billed,
                     :quoted_tenths,
                     :while_open,
                     :effort,
                     :soak,
                     :removal,
                     :override_tenths,
                     :selling_price,
                     :quoted_share,
                     :with_soak,
                     :with_targets,
                     :another_day,
                     :on

      # @param request [Request, Job] a request, or a job that was worked out already
      # @param effort [Access::NodeBudget] what it may take
      # @param assumed_variants [Hash{String=>String}] of a job: questions nobody answered, with what was taken
      # @raise [ImpossiblePlan]
      def initialize(request, effort: Access::NodeBudget.new, assumed_variants: {})
        @job = request.is_a?(Job) ? request : request.job(effort: effort)
        @assumed = request.is_a?(Job) ? assumed_variants : request.assumed_variants
        @given = request.is_a?(Job) ? car.engine.warnings : request.warnings
        @asks_order = !request.is_a?(Job) && request.sequence?
      end

      # @return [Hash] the answer object of formats.md
      def to_h
        while_open # before what comes last in the order of effort
        sections = {
          "format" => "nimble-ledger.estimate",
          "version" => 1,
          "rules" => car.rules.number,
          "plan" => plan_section,
          "hours" => hours_section,
          "while_open" => while_open_section,
          "parts" => parts_section
        }
        sections.merge!(sequence_sections) if @asks_order
        sections["risk"] = risk_section if outcomes
        sections["price"] = price_section if price
        sections["warnings"] = warnings if warnings.any?
        sections
      end

      # @return [Hash] `price` of the answer object; not asked for without a catalog
      def price_section
        section = {
          "currency" => car.house["currency"],
          "lines" => price.list.map { |line| line_row(line) },
          "total_cents" => price.total_cents
        }
        section.merge!("incomplete" => true, "missing" => price.missing) if price.incomplete?
        section["left_over"] = price.leftovers if price.leftovers.any?
        section["included_tax_cents"] = price.included_tax_cents if car.house["tax_inclusive"]
        section
      end

      private

      # Pieces in order, and what is done to plugs (model.md section 15).
      def sequence_sections = { "sequence" => sequence.ids, "acts" => sequence.acts }

      def sequence = @sequence ||= plan.sequence

      # Those of the profile and the request, and what the effort did not suffice for.
      def warnings = @warnings ||= @given + effort_warnings + order_warnings

      def order_warnings
        return [] unless car.rules.order_of_work?

        found = []
        if job.crank.impossible?(job.asked)
          found << {
            "path" => "/soak",
            "message" => "no way leads to the clearing crank: each soaked bore is emptied and turned by hand"
          }
        end
        found << { "path" => "/targets", "message" => LONE_COMPRESSION } if lone_compression?
        found
      end

      LONE_COMPRESSION =
        "a compression test of some cylinders is comparable only with all plugs out, and those of the others stay in"
      private_constant :LONE_COMPRESSION

      # Fewer cylinders tested than there are, the plugs of the others not in the job.
      def lone_compression?
        tested = targets.select { |target| target.work == "compression" }.flat_map(&:cylinders)
        return false if tested.empty?

        plugs_out = targets.select(&:plug?).flat_map(&:cylinders)
        (car.engine.cylinders.map(&:number) - tested - plugs_out).any?
      end

      def effort_warnings
        found = []
        unless plan.proven?
          found << {
            "path" => "/plan",
            "message" =>
              "this engine is too tangled to prove the shortest plan: this one is at most " \
                "#{format("%.1f", plan.gap)} min longer than the shortest"
          }
        end
        if job.undecided.any?
          found << {
            "path" => "/while_open",
            "message" => "left out, because the engine is too tangled to decide: #{job.undecided.map(&:id).join(", ")}"
          }
        end
        found
      end

      def plan_section
        section = plan_rows.merge("proven" => plan.proven?)
        section["gap_minutes"] = plan.gap unless plan.proven?
        section["assumed_variants"] = @assumed if @assumed.any?
        added = targets - job.asked
        section["added"] = added.map { |one| { "target" => one.id, "because" => because(one) } } if added.any?
        ties = near_ties
        section["near_ties"] = ties if ties.any?
        section
      end

      # A clearing crank belongs to the soak, new boots to the plugs.
      def because(target) = target.crank? ? "soak" : "boots"

      def plan_rows
        {
          "steps" => plan.steps.map(&:id),
          "ways" => plan.ways.to_h { |target, way| [target.id, way.id] },
          "choices" => plan.choices,
          "minutes" => minutes,
          "turns" => plan.turns.list.map { |turn| turn_row(turn) },
          "waits" => plan.wait_minutes,
          "overnight" => plan.overnight?,
          "order_of_work" => plan.order_of_work
        }
      end

      def near_ties =
        job.near_ties.map do |row|
          { "ways" => row.ways, "choices" => row.choices, "extra_minutes" => row.extra, "spares" => row.spares }
        end

      def turn_row(turn)
        row = { "cylinder" => turn.cylinder, "steps" => turn.steps.map(&:id), "targets" => turn.targets.map(&:id) }
        sequence.early.include?(turn.cylinder) ? row.merge("early" => true) : row
      end

      def minutes
        tasks = plan.job
        {
          "remove" => tasks.minutes("remove"),
          "work" => tasks.minutes("work", "soak"),
          "refit" => tasks.minutes("refit", "closing"),
          "house" => tasks.minutes("house"),
          "total" => tasks.estimated.mean
        }
      end

      def hours_section
        tasks = plan.job
        hours = { "mean_minutes" => tasks.total.mean, "sd_minutes" => tasks.total.sd }.merge(
          PERCENTILES.transform_values { |p| tasks.hours(p) },
          "quoted" => quoted_tenths / 10.0
        )
        hours.merge!("computed" => tasks.quoted_tenths / 10.0, "reason" => job.override.reason) if job.override
        hours.merge!(learned(tasks)) if car.correction
        hours
      end

      # What was learned, beside the figures before it (model.md section 12).
      def learned(tasks)
        estimated = tasks.estimated
        {
          "learned" => {
            "jobs" => car.correction.jobs,
            "mean_minutes" => estimated.mean,
            "sd_minutes" => estimated.sd,
            "quoted" => tasks.estimated_tenths / 10.0
          }
        }
      end

      def while_open_section
        while_open.map do |row|
          {
            "target" => row.target.id,
            "added_minutes" => row.added.to_f,
            "alone_minutes" => row.alone.to_f,
            "saved_minutes" => row.saved.to_f
          }
        end
      end

      def risk_section
        section = {
          "plugs" =>
            outcomes.plug_rows.map { |row| { "target" => row.target.id, **row.chances.to_h.transform_keys(&:to_s) } }
        }
        section["out"] = job.live.given if job.live
        section.merge(
          "mishaps" => outcomes.mishaps.map { |m| { "step" => m.step, "what" => m.what, "chance" => m.chance } },
          "no_trouble" => outcomes.no_trouble,
          "expected_extra_minutes" => outcomes.expected_extra_minutes,
          "broken_counts" => outcomes.broken_counts
        )
      end

      def parts_section
        needed.rows.map do |row|
          { "part" => row.part, "quantity" => row.quantity, "because" => row.because, "rule" => row.rule }.tap do |hash|
            hash["chance"] = row.chance if row.chance
          end
        end
      end

      def line_row(line)
        {
          "kind" => line.kind,
          "label" => line.label,
          "quantity" => line.quantity,
          "cents" => line.cents,
          "unit_cents" => line.unit_cents,
          "part" => line.part,
          "because" => line.because,
          "basis" => line.basis
        }.compact
      end
    end
  end
end
