# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # What each step and work of an engine takes beyond its estimate, where cards timed it: which one to mend first
    # (model.md section 12, "Scorecard").
    module Steps
      module_function

      # @param jobs [Array<Job>]
      # @return [Array<Hash>] engine, task, jobs, minutes_lost with the interval of the sum; the costliest first
      def of(jobs)
        timed = jobs.flat_map { |job| job.tasks.map { |task| [job.engine, task] } }
        rows =
          timed
            .group_by { |engine, task| [engine, task.name] }
            .map { |(engine, name), same| row(engine, name, same.map { |_, task| task.actual - task.estimate }) }
        rows.sort_by { |row| [-row["minutes_lost"], row["engine"], row["task"]] }
      end

      def row(engine, name, beyond)
        { "engine" => engine, "task" => name, "jobs" => beyond.size }.merge(Sum.of(beyond).named("minutes_lost"))
      end
    end
  end
end
