# frozen_string_literal: true

require_relative "../spec_helper"
require_relative "../support/normal_equations"

RSpec.describe NimbleLedger::Ledger do
  def truth = NimbleLedger::Ledger::Simulator::TRUTH

  def learned(jobs, predict: [], **rest)
    hash = { "format" => "nimble-ledger.history", "version" => 1, "jobs" => jobs, "predict" => predict }
    NimbleLedger::Answers.to(hash.merge(rest.transform_keys(&:to_s)))
  end

  def ask(engine, technician) =
    { "engine" => engine, "technician" => technician, "mean_minutes" => 100, "sd_minutes" => 15 }

  it "finds the effects that the normal equations give, in whatever order the jobs come" do
    jobs = NimbleLedger::Ledger::Simulator.new(3).jobs(90)
    whole = NormalEquations.solve(jobs)
    found = learned(jobs.shuffle(random: Random.new(1)))
    found["engines"].merge(found["technicians"]).each { |name, value| expect(value).to be_within(1e-9).of(whole[name]) }
    expect(found["shop"]).to be_within(1e-9).of(whole[whole.keys.grep(Integer).max])
  end

  it "includes quarters nobody finished a job in, and does not mind what lies beyond" do
    jobs = NimbleLedger::Ledger::Simulator.new(4).jobs(12)
    gap = jobs.reject { |job| job["finished"] > "2024-06" && job["finished"] < "2025-06" }
    whole = NormalEquations.solve(gap)
    expect(learned(gap)["quarters"].values).to all(be_a(Float))
    expect(learned(gap)["quarters"].size).to eq(whole.keys.grep(Integer).size)
    expect(learned(gap)["shop"]).to be_within(1e-9).of(whole[whole.keys.grep(Integer).max])
  end

  it "recovers the truth of a simulated shop, and its promises come true as often as they say" do
    found = learned(NimbleLedger::Ledger::Simulator.new(11).jobs(900))
    level = truth.engines.transform_values { |value| value - (truth.engines.values.sum / 4) }
    mean = found["engines"].values.sum / 4
    level.each { |name, value| expect(found["engines"][name] - mean).to be_within(0.03).of(value) }
    expect(found["technicians"]["Cy"] - found["technicians"]["Ada"]).to be_within(0.03).of(0.15)
    expect(found["common_variation"]).to be_within(0.015).of(truth.common)
    { "p50" => 0.5, "p80" => 0.8, "p95" => 0.95 }.each do |name, share|
      expect(found["backtest"]["corrected"][name]["share"]).to be_within(0.03).of(share)
    end
    expect(found["backtest"]["estimated"]["p80"]["share"]).to be < 0.75
  end

  it "does not blame a technician for an engine others do well on with him elsewhere" do
    jobs = NimbleLedger::Ledger::Simulator.new(21).jobs(600, only: { "E2" => "Ada" })
    found = learned(jobs)
    expect(found["technicians"]["Ada"]).to be < found["technicians"]["Cy"]
    expect(found["engines"]["E2"]).to be > 0.12
  end

  it "learns little from two jobs, and nothing from none" do
    shop = NimbleLedger::Ledger::Simulator.new(5)
    two = Array.new(2) { |i| shop.job("J#{i}", Time.utc(2026, 5, 1 + i), "E2", "Cy") }
    few = learned(two, predict: [ask("E2", "Cy")])
    expect([few["engines"]["E2"], few["technicians"]["Cy"]]).to all(be_between(-0.1, 0.1))
    none = learned([], predict: [ask("E2", nil)])
    expect(none["backtest"]).to include(
      "jobs" => 0,
      "corrected" => include("p80" => { "share" => nil, "low" => nil, "high" => nil })
    )
    expect([none["shop"], none["bias"], none["mean_absolute_error_hours"]]).to eq([0.0, nil, nil])
    expect(none["calibration"]["p80"]).to be_within(1e-9).of(0.8416212335729143)
  end

  it "uses nothing from the future: poisoning it changes no prediction before" do
    jobs = NimbleLedger::Ledger::Simulator.new(8).jobs(60)
    history = ->(list) do
      parsed = list.map { |job| described_class::FinishedJob.new(job, NimbleLedger::House::Settings.defaults) }
      described_class::Backtest.new(parsed, NimbleLedger::House::Settings.defaults).tested.first(40)
    end
    poisoned = jobs.first(40) + jobs.drop(40).map { |job| job.merge("actual_minutes" => job["mean_minutes"] * 40) }
    expect(history.call(poisoned).map { |one| [one.job.id, one.corrected] }).to eq(
      history.call(jobs).map { |one| [one.job.id, one.corrected] }
    )
  end

  it "knows nothing of jobs finished at the same instant" do
    shop = NimbleLedger::Ledger::Simulator.new(9)
    at = Time.utc(2026, 3, 3, 12)
    twins =
      Array.new(6) { |i| shop.job("T#{i}", at, "E1", "Bo").merge("actual_minutes" => 500.0, "mean_minutes" => 100) }
    found = learned(twins)
    expect(found["backtest"]["corrected"]["p95"]["share"]).to eq(0.0)
  end

  it "mixes technicians by their jobs where nobody is named" do
    jobs = NimbleLedger::Ledger::Simulator.new(12).jobs(300)
    found = learned(jobs, predict: [ask("E2", nil), *truth.technicians.keys.map { |hand| ask("E2", hand) }])
    mixed, *each = found["predict"].map { |row| row["p50"] }
    expect(mixed).to be_between(each.min, each.max)
    wide = ->(row) { row["p95"] / row["p50"] }
    expect(wide.call(found["predict"][0])).to be > wide.call(found["predict"][2])
  end

  it "weighs what plugs did against what was to be expected" do
    plug = ->(outcome, soak = "none") do
      {
        "construction" => "multi-piece",
        "soak" => soak,
        "predicted" => {
          "broken" => 0.1,
          "thread" => 0.01,
          "stubborn" => 0.1
        },
        "outcome" => outcome
      }
    end
    job = NimbleLedger::Ledger::Simulator.new(1).job("J", Time.utc(2026, 1, 5), "E1", "Bo")
    plugs = [plug.call("broken"), plug.call("free"), plug.call("stubborn", "short"), plug.call("thread")]
    found = learned([job.merge("plugs" => plugs)])["outcomes"]
    # w = 40 × 0.07 = 2.8: (2.8 + 0.9) / (2.8 + 0.3)
    expect(found["broken"]["multi-piece"]["factor"]).to be_within(1e-12).of(3.7 / 3.1)
    shifted = (0.1 / 0.9 * 3.7 / 3.1).then { |odds| odds / (1 + odds) }
    expect(found["broken"]["multi-piece"]["soaks"]["short"]).to be_within(1e-12).of(2.8 / (2.8 + shifted))
    expect(found["thread"]).to be_within(1e-12).of((1 + 0.99) / (1 + 0.02))
    expect(found["stubborn"]).to be_within(1e-12).of((2.4 + 0.9) / (2.4 + 0.1))
  end

  it "refuses what cannot be, and says where" do
    job = NimbleLedger::Ledger::Simulator.new(1).job("J", Time.utc(2026, 1, 5), "E1", "Bo")
    {
      "/jobs/0/trouble_minutes" => job.merge("trouble_minutes" => job["actual_minutes"]),
      "/jobs/0/mean_minutes" => job.merge("mean_minutes" => 0),
      "/jobs/0/technician" => job.merge("technician" => nil),
      "/jobs/0/finished" => job.merge("finished" => "2026-13-05T10:00:00Z")
    }.each do |path, bad|
      expect { learned([bad]) }.to raise_error(NimbleLedger::InvalidInput) { |e|
        expect(e.details.first["path"]).to eq(path)
      }
    end
    expect { learned([job, job]) }.to raise_error(NimbleLedger::InvalidInput) { |e|
      expect(e.details.first["path"]).to eq("/jobs/1/id")
    }
  end
end
