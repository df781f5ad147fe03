# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Record do
  it "adds another scope to what was agreed, and lets a supplement take its place" do
    first = NimbleLedger::Record::Agreement.new(50_000, 60_000)
    more = first.with(30_000, 40_000)
    whole = more.with(90_000, 95_000, supplement: true)
    expect([more, whole].map { |one| [one.agreed_cents, one.limit_cents] }).to eq([[80_000, 100_000], [90_000, 95_000]])
  end

  describe NimbleLedger::Record::Standing do
    def state(**rest) = described_class.new(expires_at: Time.at(100), now: Time.at(50), **rest).state

    it "follows from answers, what came after, and the time; an answer outlasts everything" do
      expect(state).to eq("sent")
      expect(state(now: Time.at(100))).to eq("expired")
      expect(state(superseded: true, now: Time.at(200))).to eq("superseded")
      expect(state(answer: "yes", superseded: true, now: Time.at(200))).to eq("authorized")
      expect(state(answer: "no")).to eq("declined")
    end

    it "lets an authorized scope speak for all, then one that waits" do
      expect(described_class.of_all(%w[superseded authorized sent])).to eq("authorized")
      expect(described_class.of_all(%w[declined sent expired])).to eq("sent")
      expect(described_class.of_all([])).to eq("draft")
    end
  end
end
