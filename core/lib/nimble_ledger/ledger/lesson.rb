# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # What the jobs have taught, as a shop can take it: corrections for each engine it has seen and for any other, and
    # the odds of plugs; with the evidence, and what it would have done to the last months (model.md section 12).
    class Lesson
      # Quantiles every page asks for; the house's own beside them.
      AT = [0.1, 0.5, 0.65, 0.8, 0.95].freeze

      # @param learner [Learner] of all jobs
      # @param jobs [Array<Job>]
      # @param lately [LessonEffect]
      # @param house [House::Settings]
      def initialize(learner, jobs, lately, house)
        @learner = learner
        @jobs = jobs
        @lately = lately
        @house = house
        freeze
      end

      # @return [Hash] "engines" and "other": hours as an estimate request takes them (learned); "outcomes" likewise;
      #   "rows": each engine with its jobs and between which shares its work takes longer; "lately"
      def to_h
        {
          "jobs" => @jobs.size,
          "engines" => corrections.transform_values(&:to_h),
          "other" => correction(nil).to_h,
          "outcomes" => Outcomes.new(@jobs.flat_map(&:plugs), @house).to_h,
          "rows" => rows,
          "lately" => @lately.to_h
        }
      end

      private

      def at = (AT + [@house["quantile"].to_f]).uniq

      def correction(engine)
        now = @learner.effects.quarters.to_a.last || 0
        @learner.correction(quarter: now, engine: engine, technician: nil, at: at)
      end

      def corrections = @jobs.map(&:engine).uniq.sort.to_h { |engine| [engine, correction(engine)] }

      def rows
        corrections.map do |engine, found|
          {
            "engine" => engine,
            "jobs" => found.jobs,
            "over" => Time::Correction.share(found.effect),
            "over_low" => found.over.begin,
            "over_high" => found.over.end
          }
        end
      end
    end
  end
end
