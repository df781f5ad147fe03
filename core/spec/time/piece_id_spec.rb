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

  it "knows the task a piece is a part of" do
    halves = %w[house:battery-off house:battery-on house:clear house:read target:plug-5:out target:plug-5:in]
    expect(halves.map { |id| described_class.task(id) }).to eq(
      %w[house:battery house:battery house:scan_clear house:scan_clear target:plug-5:work target:plug-5:work]
    )
    whole = %w[step:cover:remove target:out:work house:leak_check soak]
    expect(whole.map { |id| described_class.task(id) }).to eq(whole)
  end

  it "reads nothing from nothing" do
    expect(described_class.read(nil).to_a).to eq([nil, nil, nil])
    expect(described_class.read("soak").to_a).to eq(["soak", nil, nil])
  end
end
