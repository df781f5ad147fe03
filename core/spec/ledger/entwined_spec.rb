# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Ledger::ConfoundedEffects do
  def pairs(*rows) = described_class.of(rows).map(&:to_a)

  it "names an engine and the one who works on it and on nothing else" do
    expect(pairs(%w[E1 Ada], %w[E1 Ada], %w[E2 Bo], %w[E3 Bo])).to eq([%w[E1 Ada]])
  end

  it "names none where others work on the engine too, or the one on others" do
    expect(pairs(%w[E1 Ada], %w[E1 Bo], %w[E2 Bo])).to eq([])
    expect(pairs(%w[E1 Ada], %w[E2 Ada], %w[E2 Bo])).to eq([])
    expect(pairs).to eq([])
  end

  it "is where the ledger cannot tell: both get the same share of what is slow" do
    hand = ->(engine) { engine == "E2" ? "Ada" : "Cy" }
    simulator = NimbleLedger::Ledger::Simulator.new(21)
    jobs = simulator.jobs(200).map { |job| job.merge("technician" => hand.call(job["engine"])) }
    expect(pairs(*jobs.map { |job| job.values_at("engine", "technician") })).to eq([%w[E2 Ada]])
    history = { "format" => "nimble-ledger.history", "version" => 1, "jobs" => jobs }
    learned = NimbleLedger::Answers.to(history)
    expect(learned["engines"]["E2"]).to be_within(1e-9).of(learned["technicians"]["Ada"])
  end
end
