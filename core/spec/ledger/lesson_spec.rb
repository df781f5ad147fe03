# frozen_string_literal: true

require_relative "../spec_helper"

# What the jobs have taught as a shop can take it, and what it does to estimates.
RSpec.describe NimbleLedger::Ledger::Lesson do
  def history(jobs, **rest)
    hash = { "format" => "nimble-ledger.history", "version" => 1, "jobs" => jobs }
    NimbleLedger::Ledger::History.build(hash.merge(rest.transform_keys(&:to_s)))
  end

  def simulated(count, seed: 12, **rest) = NimbleLedger::Ledger::Simulator.new(seed, **rest).jobs(count)

  def estimate(code, targets, **rest)
    NimbleLedger::Estimate::Request.build(
      {
        "format" => "nimble-ledger.estimate-request",
        "version" => 1,
        "engine" => Engines.profile_of(code),
        "targets" => targets
      }.merge(rest.transform_keys(&:to_s))
    )
  end

  let(:jobs) { simulated(400) }
  let(:learnt) { history(jobs).learn }
  let(:lesson) { learnt["lesson"] }

  it "says the same as the answer: its corrections are those predictions are made with" do
    ask = { "engine" => "E2", "technician" => nil, "mean_minutes" => 120, "sd_minutes" => 20 }
    predicted = history(jobs, predict: [ask]).answer["predict"].first
    total = NimbleLedger::Time::LognormalTotal.new(120.0, 400.0)
    found = NimbleLedger::Time::Correction.from(lesson["engines"]["E2"]).of(total, common_variation: 0.12)
    expect(found.mean).to be_within(1e-9).of(predicted["mean_minutes"])
    { "p50" => 0.5, "p80" => 0.8, "p95" => 0.95 }.each do |name, p|
      expect(found.quantile(p)).to be_within(1e-9).of(predicted[name])
    end
  end

  it "knows less of an engine nobody has seen, and says how many jobs taught it" do
    expect(lesson["engines"].transform_values { |one| one["jobs"] }).to eq(jobs.map { |job| job["engine"] }.tally)
    expect(lesson["other"]["jobs"]).to eq(0)
    expect(lesson["engines"].values.map { |one| one["doubt"] }).to all(be < lesson["other"]["doubt"])
    row = lesson["rows"].find { |one| one["engine"] == "E2" }
    expect(row["over"]).to be_between(row["over_low"], row["over_high"])
    expect(row["over_low"]).to be_positive
  end

  it "quotes the last months again from what was known before each job, and would have kept more promises" do
    lately = lesson["lately"]
    last = jobs.map { |job| Time.iso8601(job["finished"]) }.max
    recent = jobs.select { |job| Time.iso8601(job["finished"]) > last - (182 * 86_400) }
    expect(lately["jobs"]).to eq(recent.size)
    expect(lately["quoted_hours"]).to be_within(1e-9).of(recent.sum { |job| job["quoted_hours"] })
    expect(lately["worked_hours"]).to be_within(1e-6).of(
      recent.sum { |job| (job["actual_minutes"] - job["trouble_minutes"]) / 60.0 }
    )
    off = recent.sum { |job| (job["actual_minutes"] - job["trouble_minutes"] - job["mean_minutes"]).abs / 60.0 }
    expect(lately["off_hours"]).to be_within(1e-9).of(off / recent.size)
    expect(lately["would_off_hours"]).to be < lately["off_hours"]
    expect(lately["would_held"]["share"]).to be > lately["held"]["share"]
    expect(lately["would_held"]["share"]).to be_within(0.08).of(0.8)
  end

  it "calibrates the quantile the house quotes at, whichever that is" do
    found = history(jobs, house: { "quantile" => 0.72 }).learn
    asked = found["lesson"]["engines"]["E1"]["z"].to_h { |row| row.values_at("p", "z") }
    expect(asked.keys).to include(0.72, 0.5, 0.8, 0.95)
    expect(asked.sort.map(&:last)).to eq(asked.values.sort)
    total = NimbleLedger::Time::LognormalTotal.new(120.0, 400.0)
    correction = NimbleLedger::Time::Correction.from(found["lesson"]["engines"]["E1"])
    house = NimbleLedger::House::Settings.defaults.with({ "quantile" => 0.72 })
    ask = { "engine" => "E1", "technician" => nil, "mean_minutes" => 120, "sd_minutes" => 20 }
    predicted = history(jobs, predict: [ask], house: { "quantile" => 0.72 }).answer["predict"].first
    corrected = correction.of(total, common_variation: house["common_variation"])
    expect(NimbleLedger::Time::QuotedHours.new(house).tenths(corrected) / 10.0).to eq(predicted["quoted_hours"])
  end

  it "says nothing of a shop without jobs, and takes no press for it" do
    empty = history([]).learn
    expect(empty["lesson"]).to include("jobs" => 0, "engines" => {}, "rows" => [])
    expect(empty["lesson"]["lately"]).to include("jobs" => 0, "off_hours" => nil, "would_hours" => 0.0)
    expect(empty.values_at("steps", "protocols")).to eq([[], []])
  end

  it "would have quoted nothing otherwise, whatever comes after a job" do
    poisoned = jobs.map.with_index { |job, i| i < 300 ? job : job.merge("actual_minutes" => job["actual_minutes"] * 9) }
    wanted = ->(list) do
      rows = []
      watch = ->(job, learner) do
        rows << learner.corrected(
          job.mean,
          job.spread,
          job.own_spread,
          quarter: job.quarter,
          engine: job.engine,
          technician: nil
        ).mean
      end
      built = list.map { |job| NimbleLedger::Ledger::FinishedJob.new(job, NimbleLedger::House::Settings.defaults) }
      NimbleLedger::Ledger::Backtest.new(built, NimbleLedger::House::Settings.defaults, watch: watch)
      rows.first(300)
    end
    expect(wanted.call(poisoned)).to eq(wanted.call(jobs))
  end

  describe "in an estimate" do
    let(:targets) { %w[plug-5 coil-5] }
    let(:past) do
      { "odometer_km" => 150_000, "plugs_changed_km" => 40_000, "plugs_changed_years" => 8, "compound_used" => false }
    end
    let(:hours) { { "jobs" => 14, "effect" => 0.13, "common" => 0.02, "doubt" => 0.002, "z" => [] } }
    let(:plain) { estimate("JIV6", targets, history: past).answer }

    it "keeps both figures: what is promised, and what was estimated" do
      found = estimate("JIV6", targets, history: past, learned: { "hours" => hours }).answer
      expect(found["plan"]).to eq(plain["plan"])
      expect(found["hours"]["mean_minutes"]).to be > plain["hours"]["mean_minutes"] * 1.1
      expect(found["hours"]["learned"]).to eq(
        "jobs" => 14,
        **plain["hours"].slice("mean_minutes", "sd_minutes"),
        "quoted" => plain["hours"]["quoted"]
      )
      expect(plain["hours"]).not_to have_key("learned")
    end

    it "moves the odds of a break by construction, then by soak, and those of threads and stubborn plugs" do
      outcomes = {
        "broken" => {
          "one-piece-long-reach" => {
            "factor" => 2.0,
            "soaks" => {
              "none" => 1.5,
              "short" => 7.0
            }
          }
        },
        "thread" => 0.5,
        "stubborn" => 3.0
      }
      odds = ->(answer, name) { answer["risk"]["plugs"].first[name].then { |chance| chance / (1 - chance) } }
      found = estimate("JIV6", targets, history: past, learned: { "outcomes" => outcomes }).answer
      { "broken" => 3.0, "thread" => 0.5, "stubborn" => 3.0 }.each do |name, times|
        expect(odds.call(found, name) / odds.call(plain, name)).to be_within(1e-9).of(times)
      end
      expect(found["hours"]).to eq(plain["hours"])
    end

    it "is refused with its path where it does not fit" do
      bad = hours.merge("z" => [{ "p" => 0, "z" => 1 }])
      expect { estimate("JIV6", targets, learned: { "hours" => bad }) }.to raise_error(
        NimbleLedger::InvalidInput
      ) { |error| expect(error.details.first["path"]).to eq("/learned/hours/z/0/p") }
    end

    it "is left out of what is estimated: the car as it was before anything was learned" do
      request = estimate("JIV6", targets, history: past, learned: { "hours" => hours })
      job = request.job
      again = job.on(job.car.uncorrected)
      expect(again.plan.job.total.mean).to eq(job.plan.job.estimated.mean)
      expect(job.plan.job.total.mean).not_to eq(job.plan.job.estimated.mean)
    end
  end

  describe "what costs most" do
    def job(id, tasks: [], plugs: [])
      {
        "id" => id.to_s,
        "finished" => "2026-03-0#{id}T10:00:00Z",
        "engine" => "E1",
        "technician" => "Ada",
        "mean_minutes" => 60,
        "sd_minutes" => 9,
        "actual_minutes" => 66,
        "trouble_minutes" => 0,
        "quoted_hours" => 1.1,
        "tasks" => tasks,
        "plugs" => plugs
      }
    end

    def task(name, estimate, actual) = { "task" => name, "estimate" => estimate, "actual" => actual }

    def plug(soak, outcome, broken) =
      {
        "construction" => "multi-piece",
        "soak" => soak,
        "predicted" => {
          "broken" => broken,
          "thread" => 0.01,
          "stubborn" => 0.1
        },
        "outcome" => outcome
      }

    it "adds up what each step took beyond its estimate, with the interval of the sum" do
      told =
        history([job(1, tasks: [task("a", 10, 14), task("b", 9, 8)]), job(2, tasks: [task("a", 10, 12)])]).learn[
          "steps"
        ]
      expect(told.map { |row| row["task"] }).to eq(%w[a b])
      # 4 and 2: sum 6, variance 2, half 1.96·√(2·2) = 3.92
      expect(told.first).to include("jobs" => 2, "minutes_lost" => 6.0, "over" => 0.3)
      expect(told.first["minutes_lost_low"]).to be_within(1e-3).of(2.0801)
      expect(told.last).to include("minutes_lost" => -1.0, "minutes_lost_low" => nil)
    end

    it "compares soaks by how many plugs broke against how many were expected to" do
      plugs = [plug("none", "broken", 0.2), plug("none", "free", 0.2), plug("short", "free", 0.1)]
      told = history([job(1, plugs: plugs)]).learn["protocols"]
      expect(told.map { |row| row.values_at("soak", "plugs", "broken", "expected", "share") }).to eq(
        [["none", 2, 1, 0.4, 0.5], ["short", 1, 0, 0.1, 0.0]]
      )
      expect(told).to all(include("too_few" => true))
    end
  end
end
