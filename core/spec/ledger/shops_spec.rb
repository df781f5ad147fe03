# frozen_string_literal: true

require_relative "../spec_helper"

# Shops nobody tuned anything to: what was hidden is found, promises come true as often as they say, and nobody is
# blamed for what cannot be known.
RSpec.describe "unseen shops" do
  Simulated = NimbleLedger::Ledger::Simulator

  def drawn(seed)
    rng = Random.new(seed)
    Simulated::Truth.new(
      engines: (1..7).to_h { |i| ["E#{i}", (rng.rand * 0.5) - 0.2] },
      technicians: %w[Una Vic Wyn Xan].to_h { |name| [name, (rng.rand * 0.2) - 0.1] },
      level: (rng.rand * 0.3) - 0.1,
      drift: (rng.rand * 0.1) - 0.05,
      common: 0.08 + (rng.rand * 0.2),
      own: 0.04 + (rng.rand * 0.1),
      breaks: 1.0
    )
  end

  def learned(jobs, **rest)
    hash = { "format" => "nimble-ledger.history", "version" => 1, "jobs" => jobs }
    NimbleLedger::Ledger::History.build(hash.merge(rest.transform_keys(&:to_s)))
  end

  def answer(jobs) = learned(jobs).answer

  SHOPS = (41..44).to_a.freeze

  let(:told) do
    SHOPS.to_h do |seed|
      truth = drawn(seed)
      [truth, answer(Simulated.new(seed, truth: truth).jobs(1_000))]
    end
  end

  it "finds each engine's and technician's effect beside the others', to a few hundredths" do
    told.each do |truth, found|
      { truth.engines => found["engines"], truth.technicians => found["technicians"] }.each do |hidden, seen|
        middle = ->(effects) { effects.values.sum / effects.size }
        hidden.each do |name, value|
          expect(seen[name] - middle.call(seen)).to be_within(0.05).of(value - middle.call(hidden))
        end
      end
    end
  end

  it "finds how much days vary: the square of the common variation, the own part taken out" do
    told.each do |truth, found|
      # What the shop took for its tasks' own spread stands in s²; what is true of days beyond that is common to it.
      wanted = truth.variance - Math.log(1 + (0.09**2))
      expect(Math.log(1 + (found["common_variation"]**2))).to be_within(0.012).of([wanted, 0.0004].max)
    end
  end

  it "keeps its promises as often as they say, all shops together, to three points" do
    { "p50" => 0.5, "p80" => 0.8, "p95" => 0.95 }.each do |name, share|
      kept = told.values.map { |found| found["backtest"]["corrected"][name]["share"] }
      expect(kept.sum / kept.size).to be_within(0.03).of(share)
      expect(kept).to all(be_within(0.05).of(share))
    end
  end

  it "bends promises where days are not bell-shaped: a few that go badly wrong" do
    rng = Random.new(3)
    jobs =
      Simulated
        .new(45, truth: drawn(45))
        .jobs(900)
        .map { |job| rng.rand < 0.08 ? job.merge("actual_minutes" => job["actual_minutes"] * 1.9) : job }
    found = answer(jobs)
    expect(found["calibration"]["p95"]).to be > 1.75
    %w[p50 p80 p95]
      .zip([0.5, 0.8, 0.95])
      .each { |name, share| expect(found["backtest"]["corrected"][name]["share"]).to be_within(0.03).of(share) }
  end

  it "follows a shop that gets faster, and promises by its last quarter" do
    truth = drawn(46).tap { |one| one.drift = -0.15 }
    found = answer(Simulated.new(46, truth: truth).jobs(700, days: 1_000))
    levels = found["quarters"].values
    expect(levels.first - levels.last).to be > 0.15
    expect(found["shop"]).to eq(levels.last)
  end

  it "shares between an engine and its only technician what nobody can tell apart, and names the two" do
    truth = drawn(47)
    truth.technicians["Una"] = 0.0
    truth.engines["E1"] = 0.3
    simulated = Simulated.new(47, truth: truth)
    apart =
      simulated.jobs(500, only: { "E1" => "Una" }).reject { |job| job["technician"] == "Una" && job["engine"] != "E1" }
    found = answer(apart)
    expect(found["engines"]["E1"]).to be_within(1e-9).of(found["technicians"]["Una"])
    pairs = apart.map { |job| job.values_at("engine", "technician") }
    expect(NimbleLedger::Ledger::ConfoundedEffects.of(pairs).map(&:to_a)).to eq([%w[E1 Una]])
  end

  it "says the same whatever the jobs are called and in whatever order they stand" do
    jobs = Simulated.new(48, truth: drawn(48)).jobs(80)
    same = ->(found) { found.except("scorecard", "backtest").to_json }
    renamed = jobs.reverse.map { |job| job.merge("id" => "other #{job["id"]}") }
    close(answer(renamed), answer(jobs))
    expect(same.call(answer(jobs))).to eq(same.call(answer(jobs.map(&:dup))))
  end

  # Equal but for the last digits of floats.
  def close(one, other)
    case one
    when Hash
      expect(one.keys).to eq(other.keys)
      one.each { |key, value| close(value, other[key]) }
    when Float
      expect(one).to be_within(1e-9).of(other)
    else
      expect(one).to eq(other)
    end
  end

  it "takes a past that knows quoted hours only: its estimate is the one behind the quote" do
    house = NimbleLedger::House::Settings.defaults
    [0.6, 1.5, 7.9].each do |hours|
      told = NimbleLedger::Ledger::EstimateFromQuotedHours.estimate(hours, house)
      total = NimbleLedger::Time::LognormalTotal.new(told["mean_minutes"], told["sd_minutes"]**2)
      expect(total.quantile(house["quantile"])).to be_within(1e-9).of(hours * 60)
      expect(told["sd_minutes"] / told["mean_minutes"]).to be_within(1e-12).of(house["common_variation"])
    end
  end

  it "reports how far it has come, from nothing to nearly all, without going back" do
    shares = []
    learned(Simulated.new(49, truth: drawn(49)).jobs(260)).learn(progress: ->(share) { shares << share })
    expect(shares).to eq(shares.sort)
    expect([shares.size, shares.last]).to match([be >= 5, be_between(0.9, 1)])
  end
end
