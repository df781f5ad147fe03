# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Time::Correction do
  matcher(:be_sorted) { match { |list| list == list.sort } }

  let(:total) { NimbleLedger::Time::LognormalTotal.new(100.0, 400.0) }

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

  it "says whether a quantile lies in the upper half, where trouble beside the job never lowers it" do
    bent = correction(bent: { 0.65 => -0.1, 0.8 => 0.9 }).of(total, common_variation: 0.12)
    expect([0.65, 0.8, 0.5, 0.4].map { |p| bent.upper?(p) }).to eq([false, true, true, false])
    expect(bent.quantile(0.65)).to be < bent.quantile(0.5)
    bent.plus(20.0, 400.0).then { |more| expect(more.quantile(0.8)).to be > bent.quantile(0.8) }
  end

  it "leaves nothing of an estimate that is exact to less than nothing: its own width is not below 0" do
    exact = NimbleLedger::Time::LognormalTotal.new(60.0, 0.0)
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

  describe "over every shipped engine" do
    let(:house) { NimbleLedger::House::Settings.defaults }
    let(:cars) do
      Engines.codes.map do |code|
        NimbleLedger::Car.new(engine: Engines.engine(code), house: house, equipment: Engines::EQUIPMENT)
      end
    end

    # All plugs of an engine.
    def job(car) = car.job(car.engine.targets.select(&:plug?))

    def learned(**given) = described_class.new(effect: 0.0, common: 0.0, doubt: 0.0, **given)

    it "changes nothing where nothing was learned but what was believed" do
      believed = Math.log(1 + (house["common_variation"]**2))
      cars.each do |car|
        plain = job(car)
        same = job(car.with(correction: learned(common: believed)))
        expect(same.plan.job.total.mean).to be_within(1e-9).of(plain.plan.job.total.mean)
        expect(same.plan.job.total.variance).to be_within(1e-6).of(plain.plan.job.total.variance)
        expect(same.quoted_tenths).to eq(plain.quoted_tenths)
      end
    end

    it "moves every job by the same share, and leaves plan, tasks and sequence as they are" do
      cars.each do |car|
        plain = job(car)
        moved = job(car.with(correction: learned(effect: 0.2, common: Math.log(1.0144))))
        expect(Math.log(moved.plan.job.total.quantile(0.5) / plain.plan.job.total.quantile(0.5))).to be_within(1e-9).of(
          0.2
        )
        expect(moved.plan.steps.map(&:id)).to eq(plain.plan.steps.map(&:id))
        expect(moved.plan.job.tasks.map(&:mean)).to eq(plain.plan.job.tasks.map(&:mean))
        expect(moved.plan.sequence.pieces.map(&:id)).to eq(plain.plan.sequence.pieces.map(&:id))
        expect(moved.plan.job.estimated.mean).to eq(plain.plan.job.total.mean)
      end
    end

    it "never quotes less for more doubt, nor for a larger effect" do
      cars.each do |car|
        quoted = ->(**given) { job(car.with(correction: learned(common: 0.02, **given))).quoted_tenths }
        expect([0.0, 0.01, 0.05].map { |doubt| quoted.call(doubt: doubt) }).to be_sorted
        expect([-0.2, 0.0, 0.2].map { |effect| quoted.call(effect: effect) }).to be_sorted
      end
    end

    it "is taken out of a car that is estimated, odds and all" do
      odds =
        NimbleLedger::Risk::LearnedOdds.new(
          "broken" => {
            "multi-piece" => {
              "factor" => 2.0,
              "soaks" => {
                "short" => 0.5
              }
            }
          },
          "thread" => 1.5,
          "stubborn" => 1.0
        )
      car = cars.first.with(correction: learned(effect: 0.2), odds: odds)
      expect([car.uncorrected.correction, car.uncorrected.odds]).to eq([nil, nil])
      expect(cars.first.uncorrected).to equal(cars.first)
      expect(odds.broken("multi-piece", "short")).to eq(1.0)
      expect(odds.broken("multi-piece", "none")).to eq(2.0)
      expect(odds.broken("one-piece", "short")).to eq(1)
    end
  end
end
