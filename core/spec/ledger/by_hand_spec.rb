# frozen_string_literal: true

require "matrix"
require_relative "../spec_helper"

# The whole of model.md section 12 a second time, with matrices inverted anew for every job: effects, common variation,
# residual variance, calibration, corrected estimates, backtest and tasks must come to the same, whatever the history.
RSpec.describe "a history by hand" do
  # A ridge fit over some jobs, in the room of all of them.
  class WholeFit
    C0 = 0.12

    attr_reader :jobs

    def initialize(jobs, all)
      @jobs = jobs
      @quarters = all.map { |job| quarter(job) }.then { |list| (list.min..list.max).to_a }
      @engines, @hands = %w[engine technician].map { |key| all.map { |job| job[key] }.uniq.sort }
      rows = Matrix.rows(jobs.map { |job| row_of(job) })
      @inverse = (jobs.empty? ? penalty : (rows.transpose * rows) + penalty).inverse
      @effects = jobs.empty? ? Vector.zero(size) : @inverse * (rows.transpose * Vector[*jobs.map { |job| y(job) }])
    end

    def quarter(job) = Time.iso8601(job["finished"]).then { |at| (at.year * 4) + ((at.month - 1) / 3) }
    def spread(job) = Math.log(1 + ((job["sd_minutes"] / job["mean_minutes"].to_f)**2))
    def own(job) = [spread(job) - Math.log(1 + (C0**2)), 0].max
    def plain(job) = job["actual_minutes"] - job["trouble_minutes"]
    def y(job) = Math.log(plain(job) / job["mean_minutes"]) + (spread(job) / 2)

    def effect(name) = @effects[place(name)]

    # Σ ẽ²
    def left_over
      @jobs.sum do |job|
        at = row_of(job)
        ((y(job) - fit(at))**2) / (1 - leverage(at))
      end
    end

    def common
      prior = Math.log(1 + (C0**2))
      learned = ((20 * prior) + left_over - @jobs.sum { |job| own(job) }) / (20 + @jobs.size)
      [learned, Math.log(1 + (0.02**2))].max
    end

    def residual
      mean = @jobs.empty? ? 0.0 : @jobs.sum { |job| own(job) } / @jobs.size
      ((20 * (mean + common)) + left_over) / (20 + @jobs.size)
    end

    # @return [Array(Float, Float)] m′, s′² of a job by its own quarter, engine and technician
    def corrected(job)
      at = row_of(job)
      width = own(job) + common + (residual * leverage(at))
      [job["mean_minutes"] * Math.exp(fit(at) + ((width - spread(job)) / 2)), width]
    end

    private

    def names = @quarters + @engines + @hands
    def size = names.size
    def place(name) = names.index(name)
    def fit(at) = Vector[*at].inner_product(@effects)
    def leverage(at) = Vector[*at].inner_product(@inverse * Vector[*at])
    def row_of(job) = row(quarter(job), job["engine"], job["technician"])
    def row(*wanted) = names.map { |name| wanted.include?(name) ? 1.0 : 0.0 }

    def penalty
      rows = Array.new(size) { Array.new(size, 0.0) }
      rows[0][0] += 1.0
      @quarters
        .each_cons(2)
        .each_with_index do |_, i|
          rows[i][i] += 20.0
          rows[i + 1][i + 1] += 20.0
          rows[i][i + 1] -= 20.0
          rows[i + 1][i] -= 20.0
        end
      (@quarters.size...size).each { |i| rows[i][i] += 5.0 }
      Matrix[*rows]
    end
  end

  def bent(errors, probability)
    z = NimbleLedger::Time::Normal.quantile(probability)
    last = errors.last(200)
    return z if last.empty?

    place = [((last.size + 1) * probability).ceil, last.size].min
    ((40 * z) + (last.size * last.sort[place - 1])) / (40 + last.size)
  end

  # Each job predicted from those before it: its error, and whether it kept within what was promised.
  def backtest(jobs)
    errors = []
    kept = Hash.new(0)
    jobs.each_index do |i|
      before = WholeFit.new(jobs.first(i), jobs)
      mean, width = before.corrected(jobs[i])
      took = before.plain(jobs[i])
      { "p50" => 0.5, "p80" => 0.8, "p95" => 0.95 }.each do |name, share|
        bound = mean * Math.exp((-width / 2) + (Math.sqrt(width) * bent(errors, share)))
        kept[name] += 1 if took <= bound
      end
      errors << ((Math.log(took / mean) + (width / 2)) / Math.sqrt(width))
    end
    [errors, kept]
  end

  # Few jobs over some quarters, one of them empty, with steps timed.
  def drawn(seed)
    rng = Random.new(seed)
    NimbleLedger::Ledger::Simulator
      .new(seed)
      .jobs(26, days: 500)
      .reject { |job| job["finished"].between?("2024-10", "2025-01") }
      .map do |job|
        tasks = [{ "task" => "step:a:remove", "estimate" => 10.0, "actual" => 8.0 + (rng.rand * 8) }]
        job.merge("sd_minutes" => job["mean_minutes"] * (0.05 + (rng.rand * 0.2)), "tasks" => tasks)
      end
  end

  (61..64).each do |seed|
    it "comes to the same for history #{seed}" do
      jobs = drawn(seed)
      found = NimbleLedger::Answers.to({ "format" => "nimble-ledger.history", "version" => 1, "jobs" => jobs })
      whole = WholeFit.new(jobs, jobs)
      found["engines"]
        .merge(found["technicians"])
        .each { |name, value| expect(value).to be_within(1e-9).of(whole.effect(name)) }
      expect(found["common_variation"]).to be_within(1e-9).of(Math.sqrt(Math.exp(whole.common) - 1))
      expect(found["residual_variance"]).to be_within(1e-9).of(whole.residual)
      errors, kept = backtest(jobs)
      { "p50" => 0.5, "p65" => 0.65, "p80" => 0.8, "p95" => 0.95 }.each do |name, share|
        expect(found["calibration"][name]).to be_within(1e-7).of(bent(errors, share))
      end
      kept.each { |name, count| expect(found["backtest"]["corrected"][name]["share"]).to eq(count / jobs.size.to_f) }
      tasks(whole, jobs).each do |engine, delta|
        expect(found["tasks"][engine]["step:a:remove"]).to be_within(1e-9).of(delta)
      end
    end
  end

  # e^δ = (5 + Σ actual ÷ (estimate · m′/m)) ÷ (5 + n), by engine.
  def tasks(whole, jobs)
    jobs
      .group_by { |job| job["engine"] }
      .transform_values do |same|
        ratios =
          same.map { |job| job["tasks"].first["actual"] / (10.0 * whole.corrected(job).first / job["mean_minutes"]) }
        Math.log((5 + ratios.sum) / (5 + ratios.size))
      end
  end
end
