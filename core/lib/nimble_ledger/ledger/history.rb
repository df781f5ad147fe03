# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # A shop's finished jobs (formats.md, nimble-ledger.history), answered with all they teach: effects, variation,
    # tasks, outcomes, backtest, scorecard, and corrected estimates of what is asked.
    class History
      FORMAT = "nimble-ledger.history"
      TASKS = 5.0
      CALIBRATED = { "p50" => 0.5, "p65" => 0.65, "p80" => 0.8, "p95" => 0.95 }.freeze
      INSTANT = /\A\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?(Z|[+-]\d\d:\d\d)\z/

      name = Shape.string(max: 120)
      minutes = Shape.number(above: 0, max: 10_000_000, unit: "minutes")
      chance = Shape.number(max: 1, unit: "share")
      PLUG =
        Shape.object(
          required: {
            "construction" => Shape.one_of(*Risk::History::CONSTRUCTIONS),
            "soak" => Shape.one_of("none", *Profile::SOAKS.reject { |soak| soak == "none" }),
            "predicted" => Shape.object(required: { "broken" => chance, "thread" => chance, "stubborn" => chance }),
            "outcome" => Shape.one_of(*Risk::LiveOdds::OUTCOMES)
          }
        )
      JOB =
        Shape.object(
          required: {
            "id" => name,
            "finished" => Shape.string(max: 40, pattern: INSTANT),
            "engine" => name,
            "technician" => name,
            "mean_minutes" => minutes,
            "sd_minutes" => minutes,
            "actual_minutes" => minutes,
            "trouble_minutes" => Shape.number(max: 10_000_000, unit: "minutes"),
            "quoted_hours" => Shape.number(max: 100_000, unit: "hours")
          },
          optional: {
            "common_variation" => Shape.number(max: 100),
            "reference_hours" => Shape.number(max: 100_000, unit: "hours"),
            "tasks" =>
              Shape.list(
                Shape.object(required: { "task" => name, "estimate" => minutes, "actual" => minutes }),
                max: 1000
              ),
            "plugs" => Shape.list(PLUG, max: 200)
          }
        )
      SHAPE =
        Shape.object(
          required: {
            "format" => Shape.const(FORMAT),
            "version" => Shape.const(1),
            "jobs" => Shape.list(JOB, max: 50_000)
          },
          optional: {
            "house" => House::Settings::SHAPE,
            "priors" =>
              Shape.object(
                required: {
                  "engines" => Shape.map(PoolRequest::LOG, max: 5_000)
                },
                optional: {
                  "outcomes" => PoolRequest::OUTCOMES
                }
              ),
            "predict" =>
              Shape.list(
                Shape.object(
                  required: {
                    "engine" => name,
                    "technician" => Shape.nullable(name),
                    "mean_minutes" => minutes,
                    "sd_minutes" => minutes
                  }
                ),
                max: 10_000
              )
          }
        )

      # @param hash [Hash] parsed JSON
      # @param base [House::Settings]
      # @raise [InvalidInput] with the path of every fault
      def self.build(hash, base: House::Settings.defaults, **)
        SHAPE.check!(hash, what: "history", code: "invalid_request")
        new(hash, base)
      end

      def initialize(hash, base)
        @house = base.with(hash["house"])
        refuse(hash["jobs"])
        @jobs = hash["jobs"].map { |job| FinishedJob.new(job, @house) }
        @asked = hash["predict"] || []
        priors = hash["priors"] || {}
        @kept = {}
        @starts = (priors["engines"] || {}).transform_values(&:to_f)
        @pooled = priors["outcomes"]
        PoolRequest.refuse_unknown(@pooled["broken"], "/priors/outcomes/broken") if @pooled
        freeze
      end

      # @return [Hash] see formats.md, nimble-ledger.learned
      def answer(**) = answered(Backtest.new(@jobs, @house, starts: @starts))

      # All a shop reads of its jobs: the answer, the lesson to take, and what costs most.
      # @param progress [Proc] told the share that is done, now and then
      # @return [Hash] "answer", "lesson" (see Lesson), "steps" (see StepTimes), "protocols" (see SoakProtocols)
      def learn(progress: ->(_share) {})
        lately = LessonEffect.new(@house)
        backtest = Backtest.new(@jobs, @house, starts: @starts, progress: progress, watch: lately.method(:watch))
        {
          "answer" => answered(backtest),
          "lesson" => Lesson.new(backtest.learner, @jobs, lately, @house).to_h,
          "steps" => StepTimes.of(@jobs),
          "protocols" => SoakProtocols.of(@jobs.flat_map(&:plugs))
        }
      end

      private

      def answered(backtest)
        learner = @kept[:learner] = backtest.learner
        effects = learner.effects
        quarters = effects.quarter_effects
        {
          "format" => "nimble-ledger.learned",
          "version" => 1,
          "shop" => quarters.values.last || 0.0,
          "quarters" => quarters.transform_keys { |number| Ledger.quarter_name(number) },
          "engines" => effects.engine_effects,
          "technicians" => effects.technician_effects,
          "tasks" => tasks(learner),
          "common_variation" => learner.common_variation,
          "residual_variance" => learner.residual_variance,
          "calibration" => CALIBRATED.transform_values { |p| learner.calibrated(p) },
          "outcomes" => outcomes.to_h.merge("frailty" => FrailtyVariance.new(@jobs, outcomes, @house).to_h),
          "shares" => shares
        }.merge(tested(backtest.tested), "predict" => predictions(learner))
      end

      def outcomes = @kept[:outcomes] ||= Outcomes.new(plugs, @house, pooled: @pooled)
      def plugs = @jobs.flat_map(&:plugs)

      # What this shop has learned by itself, as sums (model.md section 17).
      def shares
        alone = @starts.empty? ? nil : Backtest.new(@jobs, @house).learner
        effects = (alone || @kept[:learner]).effects.engine_effects
        counts = @jobs.map(&:engine).tally
        {
          "engines" =>
            counts.sort.to_h do |code, jobs|
              [code, { "jobs" => jobs, "mean_log" => effects.fetch(code) * (jobs + Pool::DOUBT) / jobs }]
            end,
          "outcomes" => outcomes.shares
        }
      end

      def tested(tested)
        {
          "backtest" => {
            "estimated" => Coverage.of(tested.map(&:estimated)),
            "corrected" => Coverage.of(tested.map(&:corrected)),
            "jobs" => tested.size
          },
          "bias" => Scorecard.bias(tested),
          "mean_absolute_error_hours" => Scorecard.error_hours(tested),
          "scorecard" => Scorecard.new(tested).to_h
        }
      end

      # How much longer each timed task takes than estimated, its job's own correction apart (logs).
      def tasks(learner)
        timed =
          @jobs.flat_map do |job|
            next [] if job.tasks.empty?

            times = Backtest.corrected(learner, job).mean / job.mean
            job.tasks.map { |task| [job.engine, task.name, task.actual / (task.estimate * times)] }
          end
        timed
          .group_by(&:first)
          .sort
          .to_h
          .transform_values do |rows|
            rows.group_by { |row| row[1] }.sort.to_h.transform_values { |same| delta(same.map(&:last)) }
          end
      end

      def delta(ratios) = Math.log((TASKS + ratios.sum) / (TASKS + ratios.size))

      def predictions(learner)
        now = learner.effects.quarters.to_a.last || 0
        @asked.map { |one| predicted(learner, one, now) }
      end

      def predicted(learner, asked, quarter)
        mean = asked["mean_minutes"].to_f
        spread = Time::Correction.spread(mean, asked["sd_minutes"].to_f**2)
        own = Time::Correction.own(spread, @house["common_variation"])
        found =
          learner.corrected(
            mean,
            spread,
            own,
            quarter: quarter,
            engine: asked["engine"],
            technician: asked["technician"]
          )
        promised = found.quantile(learner.calibrated(@house["quantile"]))
        {
          "mean_minutes" => found.mean,
          **Coverage::QUANTILES.transform_values { |p| found.quantile(learner.calibrated(p)) },
          "quoted_hours" => Time::QuotedHours.new(@house).up(promised) / 10.0
        }
      end

      def refuse(jobs)
        seen = {}
        jobs.each_with_index do |job, i|
          raise InvalidInput.at("/jobs/#{i}/id", "is there already (#{job["id"]})", what: "history") if seen[job["id"]]
          seen[job["id"]] = true
          if job["trouble_minutes"] >= job["actual_minutes"]
            raise InvalidInput.at("/jobs/#{i}/trouble_minutes", "must be below actual_minutes", what: "history")
          end
          instant(job["finished"], "/jobs/#{i}/finished")
        end
      end

      def instant(text, path)
        ::Time.iso8601(text)
      rescue ArgumentError
        raise InvalidInput.at(path, "is no instant; one is like 2026-05-04T15:20:00Z", what: "history")
      end
    end
  end
end
