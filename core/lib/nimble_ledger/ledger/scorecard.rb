# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # Promise against truth, by engine, technician and month (model.md section 12, "Scorecard").
    class Scorecard
      # @param tested [Array<Backtest::Tested>]
      def initialize(tested)
        @tested = tested
        freeze
      end

      # @return [Hash] see formats.md, learned: scorecard
      def to_h = { "engines" => by(&:engine), "technicians" => by(&:technician), "months" => by(&:month) }

      # What hours come to at the labor rate in force.
      # @param hours [Float]
      # @return [Integer] cents, rounded half up
      def self.cents(hours, house) = Money.round(ThreePoints.exact(hours) * house["rate_cents"])

      # Mean log ratio; nil over no jobs.
      def self.bias(tested) = mean(tested.map { |one| one.job.log_ratio })

      # Mean distance between estimate and truth, hours; nil over no jobs.
      def self.error_hours(tested) = mean(tested.map { |one| (one.job.plain - one.job.mean).abs / 60 })

      def self.mean(figures) = figures.empty? ? nil : figures.sum / figures.size
      private_class_method :mean

      private

      def by = @tested.group_by { |one| yield(one.job) }.sort.to_h.transform_values { |group| row(group) }

      def row(group)
        corrected = Coverage.of(group.map(&:corrected))
        {
          "jobs" => group.size,
          "bias" => Scorecard.bias(group),
          "mean_absolute_error_hours" => Scorecard.error_hours(group),
          "estimated" => Coverage.of(group.map(&:estimated)),
          "corrected" => corrected,
          "too_few" => Coverage.too_few?(corrected)
        }.merge(Sum.of(group.map { |one| one.job.hours_lost }).named("hours_lost"), guide(group.map(&:job)))
      end

      # Which was nearer: our quoted hours or the printed guide's.
      def guide(jobs)
        told = jobs.select(&:reference_hours)
        return {} if told.empty?

        nearer =
          told.count { |job| ((job.plain / 60) - job.quoted_hours).abs < ((job.plain / 60) - job.reference_hours).abs }
        { "against_guide" => { "jobs" => told.size, "ours_nearer" => nearer } }
      end
    end
  end
end
