# frozen_string_literal: true

module NimbleLedger
  module Estimate
    # The answer to an estimate request: plan, hours, while_open, risk, parts, price (formats.md). Sections that the
    # request lacks the inputs for are left out. `rules` numbers the arithmetic, so that a stored answer recomputes.
    class Answer
      RULES = 1
      PERCENTILES = { "p10" => 0.10, "p50" => 0.50, "p65" => 0.65, "p80" => 0.80, "p95" => 0.95 }.freeze

      attr_reader :request, :planner, :targets, :plan, :effort

      # @param request [Request]
      # @param targets [Array<Profile::Target>] another set of targets on the same car, for comparisons
      # @param planner [Access::Planner, nil] of an earlier answer to the same request
      # @param override [Override, nil] the advisor's own hours, for the targets they were set for
      # @param discount [Hash, nil] {"label", "cents"}
      # @param effort [Access::Effort] shared by all that is computed for one answer or page
      # @raise [ImpossiblePlan]
      def initialize(request, targets: request.targets, planner: nil, soak: request.soak, override: (request.override if targets == request.targets), discount: request.discount,
                     effort: Access::Effort.new)
        @effort = effort
        @request = request
        @soak = soak
        @targets = targets
        @override = override
        @discount = discount
        @planner = planner || Access::Planner.new(
          Access::Graph.new(request.engine, condition: request.condition, equipment: request.equipment, pins: request.pins), house: request.house
        )
        @plan = @planner.plan(targets, soak: soak, codes: request.codes?, effort: effort)
      end

      # The same car and settings with other targets.
      def with_targets(targets) = Answer.new(request, targets: targets, planner: planner, soak: @soak, effort: effort)

      # Other work on the same car on a day of its own: what was set by hand for this job does not touch it.
      def another_day(targets) = Answer.new(request, targets: targets, planner: planner, soak: @soak, override: nil, discount: nil, effort: effort)

      # The same job planned with other pins or equipment.
      # @param planner [Access::Planner]
      def with_planner(planner) = Answer.new(request, targets: targets, planner: planner, soak: @soak, effort: effort)

      # The same job with another soak protocol.
      def with_soak(protocol) = Answer.new(request, targets: targets, planner: planner, soak: protocol, effort: effort)

      # Hours billed without removal trouble: the house quantile, moved by the advisor's override (model.md section 4).
      # @return [Integer] tenths of an hour
      def quoted_tenths = [plan.job.quoted_tenths + override_tenths, 0].max

      # What the advisor added to the computed hours; 0 without an override.
      # @return [Integer] tenths of an hour
      def override_tenths = @override ? @override.tenths : 0

      # @return [Float] share of such jobs, without removal trouble, that are done within the quoted hours
      def quoted_share = plan.job.total.cdf(quoted_tenths * 6.0)

      # @return [Hash] the answer object of formats.md
      def to_h
        sections = { "format" => "nimble-ledger.estimate", "version" => 1, "rules" => RULES, "plan" => plan_section,
                     "hours" => hours_section, "while_open" => while_open_section, "parts" => parts_section }
        sections["risk"] = risk_section if outcomes
        sections["price"] = price_section if price
        sections["warnings"] = warnings if warnings.any?
        sections
      end

      # @return [Array<Access::WhileOpen::Row>]
      def while_open = opened.first

      # Targets whose minutes while open could not be decided within the effort.
      # @return [Array<Profile::Target>]
      def undecided = opened.last

      # @return [Parts::Needed]
      def needed = @needed ||= Parts::Needed.new(plan, house: request.house)

      # @return [Price::Lines, nil] nil without a catalog
      def price
        return nil unless request.catalog

        @price ||= Price::Lines.new(quoted_tenths, needed, request.catalog, house: request.house, discount: @discount)
      end

      # @return [Risk::Outcomes, nil] nil without history, or when the profile does not state the plug's construction
      def outcomes
        return nil unless request.history && Risk::PlugRemoval.known?(request.engine)

        @outcomes ||= begin
          removal = Risk::PlugRemoval.new(request.engine, condition: request.condition, history: request.history,
                                                          house: request.house, soak: @soak)
          Risk::Outcomes.new(plan, removal, condition: request.condition, house: request.house)
        end
      end

      private

      def opened
        @opened ||= Access::WhileOpen.new(planner, soak: @soak, effort: effort).then { |table| [table.rows(targets), table.undecided] }
      end

      # Those of the profile, and what the effort did not suffice for.
      def warnings
        @warnings ||= request.engine.warnings + effort_warnings
      end

      def effort_warnings
        found = []
        found << { "path" => "/plan", "message" => "this engine is too tangled to prove the shortest plan: this one is at most #{format("%.1f", plan.gap)} min longer than the shortest" } unless plan.proven?
        found << { "path" => "/while_open", "message" => "left out, because the engine is too tangled to decide: #{undecided.map(&:id).join(", ")}" } if undecided.any?
        found
      end

      def plan_section
        section = plan_rows.merge("proven" => plan.proven?)
        plan.proven? ? section : section.merge("gap_minutes" => plan.gap)
      end

      def plan_rows
        {
          "steps" => plan.steps.map(&:id), "ways" => plan.ways.to_h { |target, way| [target.id, way.id] }, "choices" => plan.choices,
          "minutes" => minutes, "turns" => plan.turns.list.map { |turn| turn_row(turn) },
          "waits" => plan.wait_minutes, "overnight" => plan.overnight?, "order_of_work" => plan.order_of_work
        }
      end

      def turn_row(turn)
        { "cylinder" => turn.cylinder, "steps" => turn.steps.map(&:id), "targets" => turn.targets.map(&:id) }
      end

      def minutes
        job = plan.job
        { "remove" => job.minutes("remove"), "work" => job.minutes("work", "soak"), "refit" => job.minutes("refit", "closing"),
          "house" => job.minutes("house"), "total" => job.total.mean }
      end

      def hours_section
        job = plan.job
        hours = { "mean_minutes" => job.total.mean, "sd_minutes" => job.total.sd }
                .merge(PERCENTILES.transform_values { |p| job.hours(p) }, "quoted" => quoted_tenths / 10.0)
        @override ? hours.merge("computed" => job.quoted_tenths / 10.0, "reason" => @override.reason) : hours
      end

      def while_open_section
        while_open.map do |row|
          { "target" => row.target.id, "added_minutes" => row.added.to_f, "alone_minutes" => row.alone.to_f, "saved_minutes" => row.saved.to_f }
        end
      end

      def risk_section
        {
          "plugs" => outcomes.plug_rows.map { |row| { "target" => row.target.id, **row.chances.to_h.transform_keys(&:to_s) } },
          "mishaps" => outcomes.mishaps.map { |m| { "step" => m.step, "what" => m.what, "chance" => m.chance } },
          "no_trouble" => outcomes.no_trouble, "expected_extra_minutes" => outcomes.expected_extra_minutes,
          "broken_counts" => outcomes.broken_counts
        }
      end

      def parts_section
        needed.rows.map do |row|
          { "part" => row.part, "quantity" => row.quantity, "because" => row.because, "rule" => row.rule }.tap do |hash|
            hash["chance"] = row.chance if row.chance
          end
        end
      end

      def price_section
        lines = price.list.map do |line|
          { "kind" => line.kind, "label" => line.label, "quantity" => line.quantity, "cents" => line.cents }.tap do |hash|
            hash["unit_cents"] = line.unit_cents
            hash["part"] = line.part if line.part
            hash["because"] = line.because if line.because
            hash["basis"] = line.basis if line.basis
          end
        end
        section = { "currency" => request.house["currency"], "lines" => lines, "total_cents" => price.total_cents }
        section.merge!("incomplete" => true, "missing" => price.missing) if price.incomplete?
        section["left_over"] = price.leftovers if price.leftovers.any?
        section["included_tax_cents"] = price.included_tax_cents if request.house["tax_inclusive"]
        section
      end
    end
  end
end
