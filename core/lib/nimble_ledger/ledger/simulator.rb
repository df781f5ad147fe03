# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # A seeded shop whose truth is known (model.md section 12, "Simulator"): effects of engines and technicians, a level
    # that drifts from year to year, days that vary more or less than believed, plugs that break oftener than expected.
    # It makes the jobs such a shop would have posted; learning from them must recover the truth.
    #
    #   Simulator.new(7).jobs(300)  #=> entries of a nimble-ledger.history
    class Simulator
      # What is true: log effects, level and its drift a year, common variation, and how much oftener plugs break.
      Truth =
        Struct.new(:engines, :technicians, :level, :drift, :common, :own, :breaks, keyword_init: true) do
          # Variance of the log of a day.
          def variance = Math.log(1 + (own**2)) + Math.log(1 + (common**2))
        end

      TRUTH =
        Truth.new(
          engines: {
            "E1" => 0.0,
            "E2" => 0.22,
            "E3" => -0.12,
            "E4" => 0.05
          },
          technicians: {
            "Ada" => -0.06,
            "Bo" => 0.0,
            "Cy" => 0.09
          },
          level: 0.05,
          drift: 0.04,
          common: 0.17,
          own: 0.09,
          breaks: 1.0
        )
      # What the shop believed of its days when it estimated.
      BELIEVED = 0.12
      # @param seed [Integer]
      # @param truth [Truth]
      # @param work [Hash{String=>Array<Hash>}] by engine, estimates it may be asked for ("mean_minutes", "sd_minutes",
      #   "quoted_hours", "reference_hours", "tasks" and "plugs" as a history has them, outcomes left out); any job
      #   between one and four hours where there is none
      def initialize(seed, truth: TRUTH, work: {})
        @rng = Random.new(seed)
        @truth = truth
        @work = work
      end

      # @param count [Integer]
      # @param from [::Time] the first is finished then
      # @param days [Numeric] over how many
      # @param only [Hash] engine to the one technician who does it
      # @return [Array<Hash>] jobs of a history, in the order they were finished
      def jobs(count, from: ::Time.utc(2024, 2, 1), days: 700, only: {})
        @from = from
        Array.new(count) do |i|
          engine = @truth.engines.keys.sample(random: @rng)
          hand = only[engine] || @truth.technicians.keys.sample(random: @rng)
          job("J#{i}", from + (i * days * 86_400 / count), engine, hand)
        end
      end

      # One job, finished at a time.
      # @return [Hash] an entry of a history
      def job(id, at, engine, hand)
        estimate = @work[engine]&.sample(random: @rng) || plain
        share = took(at, engine, hand)
        plugs = (estimate["plugs"] || []).map { |plug| plug.merge("outcome" => outcome(plug["predicted"])) }
        trouble = plugs.sum { |plug| minutes_of(plug["outcome"]) }
        tasks = (estimate["tasks"] || []).map { |task| task.merge("actual" => task["estimate"] * share * day(0.25)) }
        {
          "id" => id,
          "finished" => at.utc.iso8601,
          "engine" => engine,
          "technician" => hand,
          **estimate.slice("mean_minutes", "sd_minutes", "quoted_hours", "reference_hours"),
          "actual_minutes" => (estimate["mean_minutes"] * share) + trouble,
          "trouble_minutes" => trouble.to_f,
          "tasks" => tasks,
          "plugs" => plugs
        }.reject { |_key, value| value == [] }
      end

      private

      def plain
        mean = 60 + (@rng.rand * 180)
        { "mean_minutes" => mean, "sd_minutes" => mean * believed, "quoted_hours" => (mean / 60).ceil(1) }
      end

      def believed = Math.sqrt(((@truth.own**2) * (1 + (BELIEVED**2))) + (BELIEVED**2))

      # What a day takes of its estimate.
      def took(at, engine, hand)
        level = @truth.level + (@truth.drift * (at.year - (@from || at).year))
        effects = @truth.engines.fetch(engine) + @truth.technicians.fetch(hand)
        Math.exp(level + effects + (Math.sqrt(@truth.variance) * normal) - (@truth.variance / 2))
      end

      # A factor with mean 1.
      def day(spread) = Math.exp((spread * normal) - ((spread**2) / 2))

      def outcome(predicted)
        return "broken" if @rng.rand < predicted["broken"] * @truth.breaks
        return "thread" if @rng.rand < predicted["thread"]

        @rng.rand < predicted["stubborn"] ? "stubborn" : "free"
      end

      def minutes_of(outcome) = { "broken" => 45, "thread" => 60, "stubborn" => 8 }.fetch(outcome, 0) * day(0.4)
      def normal = Math.sqrt(-2 * Math.log(1 - @rng.rand)) * Math.cos(2 * Math::PI * @rng.rand)
    end
  end
end
