# frozen_string_literal: true

require_relative "../../core/spec/support/engines"
require_relative "../../core/lib/nimble_ledger"

# A seeded simulation of a million jobs (all eight plugs of the V8, whose outcomes merge) against the quantiles the core
# computes. Run by hand: bundle exec ruby bin/support/simulate_risk.rb; the result is recorded in docs/budgets.md.
class SimulateRisk
  JOBS = Integer(ENV.fetch("JOBS", "1000000"))

  def initialize
    history = { "odometer_km" => 190_000, "plugs_changed_km" => 0, "plugs_changed_years" => 14 }
    answer = Engines.answer("YUX8", (1..8).map { |n| "plug-#{n}" }, catalog: Engines.catalog, history: history)
    @trouble = NimbleLedger::Risk::Trouble.new(answer)
    @total = answer.plan.job.total
    @rng = Random.new(2026)
    @events = plugs + mishaps
  end

  def run
    times = Array.new(JOBS) { job }.sort
    [0.5, 0.65, 0.8, 0.9, 0.95].each do |p|
      simulated = times[(p * JOBS).to_i]
      computed = @trouble.mixture.quantile(p)
      puts format(
             "p%-3d  simulated %8.2f min  computed %8.2f min  difference %+.3f %%",
             (p * 100).round,
             simulated,
             computed,
             100 * ((computed / simulated) - 1)
           )
    end
  end

  private

  # [upper bounds of the chances, [mean, variance] of each end]
  def plugs
    @trouble.outcomes.plug_rows.map do |row|
      b, t, s = row.chances.to_a
      ends =
        %w[broken thread stubborn]
          .map { |outcome| @trouble.outcomes.minutes_of(outcome, row.target) }
          .map { |points| [points.mean, points.variance] }
      [[b, b + ((1 - b) * t), b + ((1 - b) * (t + ((1 - t) * s)))], ends]
    end
  end

  def mishaps = @trouble.outcomes.mishaps.map { |m| [[m.chance], [[m.minutes.mean, m.minutes.variance]]] }

  def job
    mean = variance = 0.0
    @events.each do |bounds, ends|
      roll = @rng.rand
      hit = bounds.index { |bound| roll < bound } or next
      mean += ends[hit][0]
      variance += ends[hit][1]
    end
    draw(@total.mean + mean, @total.variance + variance)
  end

  # One draw of a lognormal with this mean and variance.
  def draw(mean, variance)
    spread = Math.log(1 + (variance / (mean * mean)))
    normal = Math.sqrt(-2 * Math.log(1 - @rng.rand)) * Math.cos(2 * Math::PI * @rng.rand)
    Math.exp(Math.log(mean) - (spread / 2) + (Math.sqrt(spread) * normal))
  end
end

SimulateRisk.new.run
