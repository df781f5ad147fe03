# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # Every job predicted from those that were finished strictly before it, and nothing else (model.md section 12,
    # "Backtest"); at the end, what all of them have taught.
    class Backtest
      # A job with whether it kept within its quantiles, as estimated and as corrected.
      Tested = Struct.new(:job, :estimated, :corrected)

      # A job's own estimate as a learner would correct it, in the job's own quarter.
      # @return [Time::Correction::Moved]
      def self.corrected(learner, job) =
        learner.corrected(
          job.mean,
          job.spread,
          job.own_spread,
          quarter: job.quarter,
          engine: job.engine,
          technician: job.technician
        )

      # @return [Array<Tested>] in order of finishing
      attr_reader :tested

      # @return [Learner] of all jobs
      attr_reader :learner

      # @param jobs [Array<Job>] any order
      # @param house [House::Settings]
      # @param progress [Proc] told the share that is done, now and then
      # @param watch [Proc] told each job and the learner of the jobs before it
      def initialize(jobs, house, starts: {}, progress: ->(_share) {}, watch: ->(_job, _learner) {})
        @watch = watch
        ordered = jobs.each_with_index.sort_by { |job, i| [job.finished, i] }.map(&:first)
        @learner = Learner.new(room_for(ordered, starts), house)
        @tested = []
        ordered
          .chunk_while { |one, other| one.finished == other.finished }
          .each { |group| take(group, ordered.size, progress) }
        freeze
      end

      private

      # Room for every quarter from the first job's to the last one's, every engine and technician.
      def room_for(ordered, starts)
        quarters = ordered.empty? ? (0...0) : (ordered.first.quarter..ordered.last.quarter)
        Effects.new(quarters, ordered.map(&:engine).uniq.sort, ordered.map(&:technician).uniq.sort, starts: starts)
      end

      # Jobs finished at one instant know nothing of each other.
      def take(group, whole, progress)
        zs = Coverage::QUANTILES.transform_values { |p| @learner.calibrated(p) }
        errors = group.map { |job| test(job, zs) }
        group.each { |job| @watch.call(job, @learner) }
        group.each { |job| @learner.add(job) }
        errors.each { |error| @learner.erred(error) }
        progress.call(@tested.size / whole.to_f) if (@tested.size % 50).zero?
      end

      # @return [Float] the error of the prediction, in its own spreads
      def test(job, zs)
        corrected = Backtest.corrected(@learner, job)
        @tested << Tested.new(
          job,
          Coverage::QUANTILES.transform_values { |p| job.plain <= job.estimated(p) },
          zs.transform_values { |z| job.plain <= corrected.quantile(z) }
        )
        (Math.log(job.plain / corrected.mean) + (corrected.spread / 2)) / Math.sqrt(corrected.spread)
      end
    end
  end
end
