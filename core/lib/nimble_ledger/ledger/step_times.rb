# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # What each step and work of an engine takes beyond its estimate, where cards timed it: which one to mend first
    # (model.md section 12, "Scorecard"). How far its engine goes beyond the estimate is in it.
    module StepTimes
      module_function

      # @param jobs [Array<Job>]
      # @return [Array<Hash>] engine, task, jobs, over (as a share of the estimate), minutes_lost with the interval of
      #   the sum; the costliest first
      def of(jobs)
        timed = jobs.flat_map { |job| job.tasks.map { |task| [job.engine, task] } }
        rows =
          timed
            .group_by { |engine, task| [engine, task.name] }
            .map { |(engine, name), same| row(engine, name, same.map(&:last)) }
        rows.sort_by { |row| [-row["minutes_lost"], row["engine"], row["task"]] }
      end

      def row(engine, name, tasks)
        lost = Sum.of(tasks.map { |task| task.actual - task.estimate })
        { "engine" => engine, "task" => name, "jobs" => tasks.size, "over" => lost.sum / tasks.sum(&:estimate) }.merge(
          lost.named("minutes_lost")
        )
      end
    end
  end
end
