# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Profile::ProfileCache do
  subject(:kept) { described_class.new }

  it "works out once what depends on the same, and again what depends on something else" do
    made = 0
    answers = [[1, "a"], [1, "a"], [2, "a"], [1, "a"]].map { |key| kept.of(:costs, key) { made += 1 } }

    expect(answers).to eq([1, 1, 2, 1])
    expect(kept.of(:closures, [1, "a"]) { :other }).to eq(:other)
  end

  it "forgets what was not asked for longest, and makes it again" do
    kept.of(:costs, :first) { 1 }
    (1...described_class::MOST).each { |i| kept.of(:costs, i) { i } }
    kept.of(:costs, :first) { raise "it is kept" }
    kept.of(:costs, :one_more) { 0 }

    expect(kept.of(:costs, :first) { :again }).to eq(1)
    expect(kept.of(:costs, 1) { :again }).to eq(:again)
  end
end

RSpec.describe NimbleLedger::Access::Graph do
  it "shares what comes off with what among cars in any condition, and never what it costs" do
    engine = Engines.engine("YUX8")
    house = NimbleLedger::House::Settings.defaults
    rusty = NimbleLedger::Time::Condition.new({ "corrosion" => "heavy" }, house)
    new_one, old_one, same_again =
      [nil, rusty, rusty].map { |condition| described_class.new(NimbleLedger::Car.new(engine:, condition:)) }

    expect(old_one.closures).to equal(new_one.closures)
    expect(old_one.costs).to equal(same_again.costs)
    rusting = engine.steps.find { |step| step.rust_prone? && step.remove.likely.positive? }.position
    expect(old_one.step_cost(rusting)).to be > new_one.step_cost(rusting)
  end

  it "tells cars apart by what the shop has of what the engine asks for, and by nothing else it has" do
    engine = Engines.engine("IXO6")
    closures = ->(equipment) { described_class.new(NimbleLedger::Car.new(engine:, equipment:)).closures }

    expect(closures.call(%w[coffee-machine])).to equal(closures.call([]))
    expect(closures.call(engine.equipment)).not_to equal(closures.call([]))
  end
end
