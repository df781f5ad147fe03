# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Time::PieceId do
  it "is what the pieces of every shipped engine are called, and read back from it" do
    Engines.codes.each do |code|
      engine = Engines.engine(code)
      rules = NimbleLedger::Rules[2]
      car = NimbleLedger::Car.new(engine: engine, equipment: Engines::EQUIPMENT, rules: rules)
      plan = car.job(engine.targets.select(&:plug?)).plan
      ids = plan.sequence.pieces.map(&:id).grep(/\A(step|target):/)
      wanted =
        plan.steps.flat_map { |step| %w[remove refit].map { |act| described_class.step(step.id, act).to_s } } +
          plan.targets.map { |target| described_class.work(target.id).to_s }
      expect(ids).to include(*wanted)
      expect(ids.map { |id| described_class.read(id).to_s }).to eq(ids)
    end
  end

  it "reads nothing from nothing" do
    expect(described_class.read(nil).to_a).to eq([nil, nil, nil])
    expect(described_class.read("soak").to_a).to eq(["soak", nil, nil])
  end
end
