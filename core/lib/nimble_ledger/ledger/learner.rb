# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # What some jobs have taught (model.md section 12): effects, common variation, residual variance, calibration; and
    # the corrected estimate that follows. Jobs are added one after another.
    class Learner
      WEIGHT = 20
      LEAST_VARIATION = 0.02
      CALIBRATING = 40
      LAST = 200

      # Jobs alike in quarter, engine and technician: how many, the sum of their log ratios and of the squares.
      Cell = Struct.new(:row, :count, :sum, :squares)
      private_constant :Cell

      attr_reader :effects, :count

      # @param effects [Effects] with room for all that will be added
      # @param house [House::Settings]
      def initialize(effects, house)
        @effects = effects
        @prior = Math.log(1 + (house["common_variation"]**2))
        @cells = {}
        @count = 0
        @own = 0.0
        @errors = []
        @seen = Hash.new(0)
        @jobs_of = Hash.new(0)
        @residual_sum = nil
      end

      # @param job [FinishedJob]
      def add(job)
        row = @effects.row(job.quarter, job.engine, job.technician)
        @effects.add(row, job.log_ratio)
        cell = (@cells[row] ||= Cell.new(row, 0, 0.0, 0.0))
        cell.count += 1
        cell.sum += job.log_ratio
        cell.squares += job.log_ratio**2
        @count += 1
        @own += job.own_spread
        @seen[job.technician] += 1
        @jobs_of[job.engine] += 1
        @residual_sum = nil
      end

      # An error of a prediction that was made without its job.
      def erred(error) = @errors << error

      # Σ ẽ²: squares of residuals, each as if its job had not been there.
      def residual_sum =
        @residual_sum ||= @cells.each_value.sum(0.0) { |c| @effects.left_over(c.row, c.count, c.sum, c.squares) }

      # @return [Float] κ
      def common
        learned = ((WEIGHT * @prior) + residual_sum - @own) / (WEIGHT + count)
        [learned, Math.log(1 + (LEAST_VARIATION**2))].max
      end

      # @return [Float] c
      def common_variation = Math.sqrt(Math.exp(common) - 1)

      # @return [Float] σ²
      def residual_variance
        own = count.zero? ? 0.0 : @own / count
        ((WEIGHT * (own + common)) + residual_sum) / (WEIGHT + count)
      end

      # @param mean [Float] minutes, before any correction
      # @param spread [Float] s²
      # @param own [Float] ln(1+u)
      # @param technician [String, nil] nil: not known yet
      # @return [Time::Correction::Moved]
      def corrected(mean, spread, own, quarter:, engine:, technician:) =
        correction(quarter: quarter, engine: engine, technician: technician).moved(mean, spread, own)

      # What is applied to an estimate for an engine by a technician.
      # @param technician [String, nil] nil: not known yet
      # @param at [Array<Float>] quantiles that are calibrated in it
      # @return [Time::Correction]
      def correction(quarter:, engine:, technician:, at: [])
        effect, doubt = technician.nil? ? over_technicians(quarter, engine) : known(quarter, engine, technician)
        Time::Correction.new(
          jobs: @jobs_of[engine],
          effect: effect,
          common: common,
          doubt: (residual_variance * doubt.leverage) + doubt.between,
          bent: at.to_h { |p| [p, calibrated(p)] }
        )
      end

      # @param p [Float]
      # @return [Float] the normal quantile, bent toward what the shop's days are like
      def calibrated(p)
        z = Time::Normal.quantile(p)
        last = @errors.last(LAST)
        return z if last.empty?

        n = last.size
        place = [((n + 1) * p).ceil, n].min
        ((CALIBRATING * z) + (n * last.sort[[place, 1].max - 1])) / (CALIBRATING + n)
      end

      private

      # What an estimate's place in the effects leaves open: x(XᵀX+Λ)⁻¹xᵀ, and how far technicians lie apart.
      Doubt = Struct.new(:leverage, :between)
      private_constant :Doubt

      def known(quarter, engine, technician)
        row = @effects.row(quarter, engine, technician)
        [@effects.fit(row), Doubt.new(@effects.leverage(row), 0.0)]
      end

      # Whoever will do it: weighed by the jobs each has done.
      def over_technicians(quarter, engine)
        return known(quarter, engine, nil) if @seen.empty?

        jobs = @seen.values.sum.to_f
        rows = @seen.map { |name, n| [@effects.row(quarter, engine, name), n / jobs] }
        mean = rows.sum { |row, share| share * @effects.fit(row) }
        between = rows.sum { |row, share| share * ((@effects.fit(row) - mean)**2) }
        [mean, Doubt.new(rows.sum { |row, share| share * @effects.leverage(row) }, between)]
      end
    end
  end
end
