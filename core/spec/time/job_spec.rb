# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Time do
  let(:house) { NimbleLedger::House::Settings.defaults }

  it "takes mean and spread of three points by the book" do
    points = NimbleLedger::ThreePoints.new(12, 18, 30)
    expect(points.mean).to be_within(1e-12).of(19)
    expect(points.sd).to eq(3)
    expect { NimbleLedger::ThreePoints.new(3, 2, 4) }.to raise_error(ArgumentError)
  end

  it "inverts the normal distribution to full precision" do
    {
      0.5 => 0.0,
      0.65 => 0.38532046640756773,
      0.8 => 0.8416212335729143,
      0.95 => 1.6448536269514722,
      0.001 => -3.090232306167813
    }.each do |p, z|
      expect(NimbleLedger::Time::Normal.quantile(p)).to be_within(1e-12).of(z)
      expect(NimbleLedger::Time::Normal.cdf(z)).to be_within(1e-12).of(p)
    end
  end

  it "adds up a job by hand: two tasks, a common factor, a lognormal total" do
    task = Struct.new(:mean, :variance)
    total = NimbleLedger::Time::LognormalTotal.of([task.new(60.0, 16.0), task.new(40.0, 9.0)], 0.12)
    expect(total.mean).to eq(100)
    expect(total.variance).to be_within(1e-9).of((25 * 1.0144) + 144)
    expect(total.cdf(total.quantile(0.65))).to be_within(1e-12).of(0.65)
    spread = Math.sqrt(Math.log(1 + (total.variance / 10_000)))
    expect(total.quantile(0.5)).to be_within(1e-9).of(100 * Math.exp(-spread * spread / 2))
  end

  it "rounds quoted hours up to the increment, never below the minimum" do
    exact = NimbleLedger::Time::LognormalTotal.new(126.0, 0.0)
    expect(NimbleLedger::Time::QuotedHours.new(house).tenths(exact)).to eq(21)
    expect(NimbleLedger::Time::QuotedHours.new(house).tenths(NimbleLedger::Time::LognormalTotal.new(126.1, 0.0))).to eq(
      22
    )
    expect(NimbleLedger::Time::QuotedHours.new(house).tenths(NimbleLedger::Time::LognormalTotal.new(4.0, 0.0))).to eq(5)
    quarter = house.with({ "increment_hours" => 0.5 })
    expect(NimbleLedger::Time::QuotedHours.new(quarter).tenths(exact)).to eq(25)
  end

  it "takes the house at its word where it sets a multiplier for no rust at all" do
    words = { "none" => 1.25, "light" => 1.5, "heavy" => 2 }
    settings = NimbleLedger::House::Settings.defaults.with({ "corrosion_remove" => words })
    engine =
      NimbleLedger::Profile::Engine.build(
        profile(steps: [step("m", 10, rust_prone: true)], targets: [target("t", through: ["m"])])
      )
    costs =
      %w[none light].map do |corrosion|
        condition = NimbleLedger::Time::Condition.new({ "corrosion" => corrosion }, settings)
        car = NimbleLedger::Car.new(engine: engine, house: settings, condition: condition)
        [car.planner.least_cost([engine.target("t")]), condition.remove_reasons(engine.step("m")).map(&:level)]
      end
    expect(costs).to eq([[12.5 + 1, ["none"]], [15 + 1, ["light"]]])
    plain = NimbleLedger::Time::Condition.new(nil, NimbleLedger::House::Settings.defaults)
    expect(plain.remove_reasons(engine.step("m"))).to eq([])
  end

  it "multiplies rust, brittle connectors and bodges where they apply" do
    condition =
      NimbleLedger::Time::Condition.new({ "corrosion" => "heavy", "brittle" => true, "bodged" => true }, house)
    hash =
      profile(steps: [step("m", rust_prone: true, brittle: true), step("n")], targets: [target("t", through: %w[m n])])
    rusty, plain = NimbleLedger::Profile::Engine.build(hash).steps
    expect(condition.remove_factor(rusty)).to be_within(1e-12).of(1.4 * 1.2 * 1.1)
    expect(condition.refit_factor(rusty)).to be_within(1e-12).of(1.15 * 1.1)
    expect(condition.remove_factor(plain)).to be_within(1e-12).of(1.1)
    expect(condition.target_factor).to eq(1.1)
  end

  it "adds the battery when a step asks, and the scan when the car came with codes" do
    hash = profile(steps: [step("module", battery: true)], targets: [target("t", through: ["module"])])
    planner = planner(hash)
    plan = planner.plan([planner.graph.engine.target("t")], codes: true)
    house_tasks = plan.job.tasks.select { |task| task.kind == "house" }.map(&:ref)
    expect(house_tasks).to include("battery", "scan_clear")
    expect(plan.job.minutes("house")).to be_within(1e-9).of((6 + 1 + 6 + 12 + 5 + 5) * 6.2 / 6)
  end
end
