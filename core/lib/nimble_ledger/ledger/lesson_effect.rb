# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # What taking the lesson would have done to the last months (model.md section 12): each job quoted again from what
    # was known before it, by whoever would do it; beside that what was quoted and what it took.
    class LessonEffect
      DAYS = 182
      PROMISED = Coverage::QUANTILES.fetch("p80")

      # A job quoted again: hours quoted, minutes expected, minutes promised to 80 of 100.
      Row = Struct.new(:job, :would, :mean, :promised)
      private_constant :Row

      # @param house [House::Settings]
      def initialize(house)
        @quoted = Time::QuotedHours.new(house)
        @quantile = house["quantile"]
        @rows = []
      end

      # @param job [FinishedJob]
      # @param learner [Learner] of the jobs before it
      def watch(job, learner)
        moved =
          learner.corrected(
            job.mean,
            job.spread,
            job.own_spread,
            quarter: job.quarter,
            engine: job.engine,
            technician: nil
          )
        @rows << Row.new(
          job,
          @quoted.up(moved.quantile(learner.calibrated(@quantile))) / 10.0,
          moved.mean,
          moved.quantile(learner.calibrated(PROMISED))
        )
      end

      # @return [Hash] jobs; quoted_hours, would_hours, worked_hours (what fought back apart); held, would_held: shares
      #   within what is promised to 80 of 100, with their intervals; off_hours, would_off_hours: mean distance of
      #   estimate and truth (nil over no jobs)
      def to_h
        rows = lately
        {
          "days" => DAYS,
          "jobs" => rows.size,
          "quoted_hours" => rows.sum(0.0) { |row| row.job.quoted_hours },
          "would_hours" => rows.sum(0.0, &:would),
          "worked_hours" => rows.sum(0.0) { |row| row.job.plain / 60 },
          "held" => held(rows) { |row| row.job.estimated(PROMISED) },
          "would_held" => held(rows, &:promised),
          "off_hours" => off(rows) { |row| row.job.mean },
          "would_off_hours" => off(rows, &:mean)
        }
      end

      private

      def lately
        last = @rows.map { |row| row.job.finished }.max or return []

        @rows.select { |row| row.job.finished > last - (DAYS * 86_400) }
      end

      def held(rows) = Coverage.interval(rows.count { |row| row.job.plain <= yield(row) }, rows.size)

      def off(rows)
        rows.empty? ? nil : rows.sum { |row| (row.job.plain - yield(row)).abs } / 60 / rows.size
      end
    end
  end
end
