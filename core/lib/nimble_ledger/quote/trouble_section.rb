# frozen_string_literal: true

module NimbleLedger
  module Quote
    # What the page shows of trouble (model.md section 5): chances per plug and why, mishaps, the allowance in money and
    # pick-up time, the soak protocols side by side, and what to have on the shelf.
    class TroubleSection
      POINTS = 28

      # @param trouble [Risk::Trouble]
      # @param pick_up [PickUp]
      # @param with_soak [Proc] protocol to Risk::Trouble of the same job
      # @param promised [Slots::ReadyTime::Moment, nil]
      # @param compare_soaks [Boolean] whether the protocols are wanted side by side
      def initialize(trouble, pick_up, with_soak:, promised: nil, compare_soaks: true)
        @compare_soaks = compare_soaks
        @trouble = trouble
        @answer = trouble.answer
        @pick_up = pick_up
        @with_soak = with_soak
        @promised = promised
      end

      # The soak protocols of a job's engine, compared.
      # @return [Risk::SoakPlanner]
      def self.soaks_of(trouble, pick_up, with_soak)
        Risk::SoakPlanner.new(
          ["none"] | trouble.plan.engine.soaks,
          with_soak,
          ready: ->(other) { pick_up.ready(other.plan) }
        )
      end

      # @return [Hash] see the contract, Trouble
      def to_h
        comparison.merge(
          "no_trouble" => @trouble.outcomes.no_trouble,
          "plugs" => plugs,
          "mishaps" => mishaps,
          "allowance" => allowance,
          "not_above_cents" => @trouble.allowance.not_above_cents,
          "likely_cents" => likely,
          "all_told_share" => all_told,
          "unpriced" => @trouble.unpriced,
          "expected_extra_minutes" => @trouble.outcomes.expected_extra_minutes,
          "extraction_fails" => @trouble.extraction_fails,
          "curve" => curve,
          "shelf" => @trouble.on_the_shelf.map { |label, quantity| { "label" => label, "quantity" => quantity } },
          "longest_extra_minutes" => longest
        )
      end

      private

      # The total of the middle one of such jobs, where more than half of them meet with trouble.
      def likely = @trouble.outcomes.no_trouble < 0.5 ? @trouble.allowance.likely_cents : nil

      # Share of such jobs, trouble counted in, that are done within the quoted hours.
      def all_told = @trouble.mixture.cdf(@answer.quoted_tenths * 6.0)

      def house = @answer.car.house

      def plugs
        @trouble.outcomes.plug_rows.map do |row|
          {
            "target" => row.target.id,
            "label" => row.target.label,
            "cylinder" => row.target.cylinder,
            "broken" => row.chances.broken,
            "thread" => row.chances.thread,
            "stubborn" => row.chances.stubborn,
            "extraction_factor" => row.target.extraction_factor,
            "base" => house["break_chance"][@answer.removal.construction(row.target.cylinders.first)],
            "factors" => @answer.removal.factors(row.target).map { |factor| factor.to_h.transform_keys(&:to_s) }
          }
        end
      end

      def mishaps
        @trouble.outcomes.mishaps.map do |m|
          { "step" => m.step, "what" => m.what, "chance" => m.chance, "minutes" => m.minutes.mean }
        end
      end

      def allowance
        @trouble.allowance.rows.map do |row|
          ready = @pick_up.ready(@answer.plan, extra: [row.mean_minutes, 0], cure: row.cure_minutes)
          {
            "broken" => row.broken,
            "chance" => row.chance,
            "extra_hours" => row.extra_tenths / 10.0,
            "extra_cents" => row.extra_cents,
            "cure_minutes" => row.cure_minutes,
            "ready" => ready.to_s
          }
        end
      end

      def hours =
        { "p50" => 0.5, "p80" => 0.8, "p95" => 0.95 }.transform_values { |p| @trouble.mixture.quantile(p) / 60 }

      # The second hump: density of the job when something breaks or goes wrong, on the scale of the first.
      def curve
        bad = @trouble.space.likely.select { |o| o.broken.positive? || o.threads.positive? || o.mishaps.positive? }
        share = bad.sum(0.0, &:chance)
        return [] if share < 0.005

        total = @answer.plan.job.total
        mixture = Risk::Mixture.new(total, Risk::OutcomeSpace.pooled(bad, POINTS))
        low = total.quantile(0.1) / 60
        step = (((mixture.mean + (2.2 * mixture.sd)) / 60) - low) / POINTS
        density(mixture, low, step).map { |hours, height| [hours, share * height] }
      end

      # @return [Array<Array(Float, Float)>] hours and density, POINTS of them
      def density(mixture, low, step)
        edges = (0..POINTS).map { |i| mixture.cdf((low + (i * step)) * 60) }
        edges.each_cons(2).with_index.map { |(before, after), i| [low + ((i + 0.5) * step), (after - before) / step] }
      end

      # Extra minutes of the likeliest break, for the descent.
      def longest
        factor = @trouble.outcomes.plug_rows.map { |row| row.target.extraction_factor }.max
        factor ? (ThreePoints.from(house["extraction_minutes"]) * factor).mean : 0
      end

      def planner = @planner ||= TroubleSection.soaks_of(@trouble, @pick_up, @with_soak)

      # The soaks side by side: left out unless somebody looks at them.
      def comparison
        return { "soaks" => [] } unless @compare_soaks

        about = { "recommended_soak" => recommended, "promise" => planner.promise(@promised) }
        about.merge("soaks" => soaks, "hours" => hours)
      end

      def recommended = planner.recommended(promised: @promised)

      def soaks
        return [] if @trouble.outcomes.plug_rows.empty?

        planner.rows.map do |row|
          {
            "protocol" => row.protocol,
            "hands_on_hours" => row.hands_on_minutes / 60,
            "wait_minutes" => row.wait_minutes,
            "overnight" => row.overnight || false,
            "break_chance" => row.break_chance,
            "expected_cents" => row.expected_cents.round,
            "total_cents" => row.total_cents,
            "ready" => row.ready.to_s
          }
        end
      end
    end
  end
end
