# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Ledger::Simulator do
  def truth(**rest)
    described_class::Truth.new(
      engines: {
        "A" => 0.3,
        "B" => 0.0
      },
      technicians: {
        "Una" => 0.0,
        "Vic" => -0.1
      },
      level: 0.0,
      drift: 0.0,
      common: 0.1,
      own: 0.05,
      breaks: 1.0,
      **rest
    )
  end

  # An estimate of two hours with two plugs, one break in ten expected.
  def work
    plug = {
      "construction" => "multi-piece",
      "soak" => "short",
      "predicted" => {
        "broken" => 0.1,
        "thread" => 0.02,
        "stubborn" => 0.2
      }
    }
    tasks = [{ "task" => "step:cover:remove", "estimate" => 10.0 }]
    estimate = { "mean_minutes" => 120.0, "sd_minutes" => 15.0, "quoted_hours" => 2.2, "tasks" => tasks }
    %w[A B].to_h { |code| [code, [estimate.merge("plugs" => [plug, plug])]] }
  end

  def jobs(count = 2_000, seed: 5, **rest) = described_class.new(seed, truth: truth(**rest), work: work).jobs(count)
  def mean(values) = values.sum / values.size.to_f

  it "makes the same jobs from the same seed, and others from another" do
    expect(jobs(20)).to eq(jobs(20))
    expect(jobs(20)).not_to eq(jobs(20, seed: 6))
  end

  it "makes a history the ledger takes, in the order its jobs were finished" do
    made = JSON.parse(JSON.generate(jobs(50)))
    history = { "format" => "nimble-ledger.history", "version" => 1, "jobs" => made }
    expect(NimbleLedger::Ledger::History::SHAPE.faults(history)).to eq([])
    expect(made.map { |job| job["finished"] }).to eq(made.map { |job| job["finished"] }.sort)
  end

  it "takes what is true of engine and technician beyond the estimate" do
    logs =
      jobs
        .group_by { |job| job.values_at("engine", "technician") }
        .transform_values do |list|
          mean(list.map { |job| Math.log((job["actual_minutes"] - job["trouble_minutes"]) / job["mean_minutes"]) })
        end
    half = truth.variance / 2
    expect(logs[%w[A Una]]).to be_within(0.02).of(0.3 - half)
    expect(logs[%w[B Vic]]).to be_within(0.02).of(-0.1 - half)
    expect(logs[%w[A Una]] - logs[%w[B Una]]).to be_within(0.02).of(0.3)
  end

  it "drifts from year to year" do
    by_year =
      jobs(3_000, drift: 0.2)
        .select { |job| job["engine"] == "B" }
        .group_by { |job| job["finished"][0, 4] }
        .transform_values do |list|
          mean(list.map { |job| Math.log((job["actual_minutes"] - job["trouble_minutes"]) / 120) })
        end
    expect(by_year["2025"] - by_year["2024"]).to be_within(0.03).of(0.2)
  end

  it "breaks plugs as often as is true, not as is believed; what they take is trouble" do
    plugs = jobs(4_000, breaks: 2.0).flat_map { |job| job["plugs"] }
    expect(plugs.count { |plug| plug["outcome"] == "broken" } / plugs.size.to_f).to be_within(0.015).of(0.2)
    smooth = jobs.select { |job| job["plugs"].all? { |plug| plug["outcome"] == "free" } }
    expect(smooth.map { |job| job["trouble_minutes"] }.uniq).to eq([0.0])
    rough = jobs.select { |job| job["plugs"].any? { |plug| plug["outcome"] == "broken" } }
    expect(mean(rough.map { |job| job["trouble_minutes"] })).to be > 35
  end

  it "keeps an engine in one pair of hands where it is told to" do
    made = described_class.new(9, truth: truth, work: work).jobs(300, only: { "A" => "Vic" })
    hands =
      made.group_by { |job| job["engine"] }.transform_values { |list| list.map { |job| job["technician"] }.uniq.sort }
    expect(hands).to eq("A" => ["Vic"], "B" => %w[Una Vic])
  end
end
