# frozen_string_literal: true

require_relative "../spec_helper"

# States carry chance and moments; what two independent ones come to is checked against the sum over their outcomes.
RSpec.describe NimbleLedger::Risk::OutcomeState do
  def state(chance, kind, points, **rest) =
    described_class.of(chance, kind, NimbleLedger::ThreePoints.from(points), **rest)

  let(:broken) { state(0.1, described_class::BROKEN_HARD, [30, 55, 120], cents: 2_400) }
  let(:stubborn) { state(0.3, described_class::STUBBORN, [4, 8, 20], billed: false) }
  let(:mishap) { state(0.05, described_class::MISHAP, [5, 10, 30], cents: 900) }

  it "adds counts, minutes, variances and cents of events that happen together" do
    both = broken.with(stubborn).with(mishap)
    points = [[30, 55, 120], [4, 8, 20], [5, 10, 30]].map { |list| NimbleLedger::ThreePoints.from(list) }
    billed = points.values_at(0, 2)

    expect(both.chance).to be_within(1e-15).of(0.1 * 0.3 * 0.05)
    expect(both.counts).to eq([1, 0, 1, 1])
    expect([both.mean, both.variance]).to match(
      [be_within(1e-9).of(points.sum(&:mean)), be_within(1e-9).of(points.sum(&:variance))]
    )
    expect([both.billed_mean, both.billed_variance]).to match(
      [be_within(1e-9).of(billed.sum(&:mean)), be_within(1e-9).of(billed.sum(&:variance))]
    )
    expect(both.parts_cents).to be_within(1e-9).of(3_300)
    expect([both.trouble?, both.only_broken?, broken.only_broken?, mishap.only_broken?]).to eq(
      [true, false, true, false]
    )
  end

  it "is the same in whatever order events are put together" do
    events = [broken, stubborn, mishap]
    figures =
      events.permutation.map do |one, two, three|
        found = one.with(two).with(three)
        [
          found.packed,
          *[found.chance, found.mean, found.variance, found.billed_mean, found.parts_cents].map { |x| x.round(9) }
        ]
      end
    expect(figures.uniq.size).to eq(1)
  end

  it "makes one state of two that come to the same counts, with the mean and variance of both" do
    easy = state(0.2, described_class::BROKEN_EASY, [10, 20, 30], cents: 100)
    hard = state(0.6, described_class::BROKEN_EASY, [60, 80, 100], cents: 300)
    pooled = described_class::START.with(easy).add(hard)
    mean = ((0.2 * 20) + (0.6 * 80)) / 0.8
    square = ((0.2 * (((20.0 / 6)**2) + 400)) + (0.6 * (((40.0 / 6)**2) + 6_400))) / 0.8

    expect([pooled.chance, pooled.mean, pooled.parts_cents]).to match(
      [be_within(1e-12).of(0.8), be_within(1e-9).of(mean), be_within(1e-9).of(250)]
    )
    expect(pooled.variance).to be_within(1e-6).of(square - (mean**2))
  end
end
