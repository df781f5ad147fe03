# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Time::Correction do
  let(:total) { NimbleLedger::Time::Total.new(100.0, 400.0) }

  def correction(effect: 0.1, common: 0.02, doubt: 0.003, **rest) =
    described_class.new(effect: effect, common: common, doubt: doubt, **rest)

  it "moves the log's center by the effect and gives it the learned width, worked out by hand" do
    # s² = ln(1 + 400/10000) = 0.0392207; c₀ 0.12: ln(1.0144) = 0.0142973; own 0.0249234
    # s′² = 0.0249234 + 0.02 + 0.003 = 0.0479234; m′ = 100·e^(0.1 + (0.0479234 − 0.0392207)/2) = 110.9987
    found = correction.of(total, common_variation: 0.12)
    expect(found.mean).to be_within(1e-3).of(110.9987)
    expect(Math.log(1 + (found.variance / (found.mean**2)))).to be_within(1e-6).of(0.0479234)
    expect(Math.log(found.quantile(0.5))).to be_within(1e-9).of(Math.log(100) - (Math.log(1.04) / 2) + 0.1)
  end

  it "bends the quantiles that are calibrated, also with trouble added, and no others" do
    found = correction(bent: { 0.8 => 1.2 }).of(total, common_variation: 0.12)
    spread = Math.log(1 + (found.variance / (found.mean**2)))
    expect(Math.log(found.quantile(0.8))).to be_within(1e-9).of(
      Math.log(found.mean) - (spread / 2) + (1.2 * Math.sqrt(spread))
    )
    expect(found.cdf(found.quantile(0.65))).to be_within(1e-9).of(0.65)
    more = found.plus(30.0, 50.0)
    expect(more.cdf(more.quantile(0.8))).to be_within(1e-9).of(NimbleLedger::Time::Normal.cdf(1.2))
  end

  it "leaves nothing of an estimate that is exact to less than nothing: its own width is not below 0" do
    exact = NimbleLedger::Time::Total.new(60.0, 0.0)
    found = correction(effect: 0.0, common: 0.01, doubt: 0.0).of(exact, common_variation: 0.2)
    expect(Math.log(1 + (found.variance / (found.mean**2)))).to be_within(1e-9).of(0.01)
  end

  it "is read back from what it says of itself" do
    made = correction(jobs: 14, bent: { 0.65 => 0.4, 0.8 => 0.9 })
    again = described_class.from(JSON.parse(JSON.generate(made.to_h)))
    expect(again.to_h).to eq(made.to_h)
    expect { described_class::SHAPE.check!(made.to_h, what: "learned", code: "invalid_request") }.not_to raise_error
    expect(again.over.begin).to be_within(1e-9).of(Math.exp(0.1 - (1.959963984540054 * Math.sqrt(0.003))) - 1)
  end
end
