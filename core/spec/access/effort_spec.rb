# frozen_string_literal: true

require_relative "../spec_helper"

# The search has a budget counted in nodes (model.md section 2, "Effort").
RSpec.describe NimbleLedger::Access::NodeBudget do
  def answer(hash, ids, effort: described_class.new) =
    NimbleLedger::Estimate::Answer.new(
      NimbleLedger::Estimate::Request.build(Engines.request(ids, engine: hash)),
      effort: effort
    )

  let(:tangled) { TangledProfiles.build(7) }
  let(:knot) { (0...24).map { |i| "t#{i}" } }

  it "stops where the budget ends: the best plan found stands, says what it is not, and names what was left out" do
    found = nil
    expect(processor_seconds { found = answer(tangled, knot).to_h }).to be < 20
    expect(found["plan"]["proven"]).to be(false)
    expect(found["plan"]["gap_minutes"]).to be_between(0.001, found["plan"]["minutes"]["total"])
    expect(found["while_open"]).to eq([])
    expect(found["warnings"].map { |warning| warning["path"] }).to eq(%w[/plan /while_open])
    expect(found["warnings"].last["message"]).to include("t24").and include("t63")
  end

  it "gives the same answer again, whatever was asked of the same planner before" do
    hash = HardProfiles.build(2)
    ids = hash["targets"].first(24).map { |t| t["id"] }
    few = 60 # enough for the plan and a part of the rest
    fresh = answer(hash, ids, effort: described_class.new(few)).to_h
    request = NimbleLedger::Estimate::Request.build(Engines.request(ids, engine: hash))
    NimbleLedger::Estimate::Answer.new(request).to_h
    again = NimbleLedger::Estimate::Answer.new(request, effort: described_class.new(few)).to_h
    expect(again).to eq(fresh)
    expect(fresh["plan"]["proven"]).to be(true)
    expect(fresh["warnings"].last["message"]).to include("too tangled to decide")
  end

  it "counts once what is asked for again while one answer is worked out" do
    planner = NimbleLedger::Car.new(engine: NimbleLedger::Profile::Engine.build(HardProfiles.build(2))).planner
    effort = described_class.new
    targets = planner.graph.engine.targets.first(24)
    once = [1, 2].map { planner.plan(targets, effort: effort).then { effort.visited } }
    expect(once).to match([be_positive, once.first])
  end

  it "leaves the proof alone where the budget suffices, and the bound it states is true" do
    hash = HardProfiles.build(4)
    ids = hash["targets"].map { |t| t["id"] }
    whole = answer(hash, ids)
    expect([whole.plan.proven?, whole.to_h["plan"].key?("gap_minutes"), whole.effort.visited]).to match(
      [true, false, be < 2_000]
    )
    [1, 5, 20].each do |few|
      cut = answer(hash, ids, effort: described_class.new(few)).plan
      expect(cut.cost).to be >= whole.plan.cost
      expect(cut.cost.to_f - (cut.gap || 0)).to be <= whole.plan.cost.to_f + 1e-9
    end
  end

  it "calls its tick at every node, so that a long search can be given up" do
    given_up = Class.new(StandardError)
    calls = 0
    tick = -> { (calls += 1) > 40 && raise(given_up) }
    expect { answer(tangled, knot, effort: described_class.new(tick: tick)) }.to raise_error(given_up)
  end

  it "is far from spent by any engine of the demo, with everything its page shows" do
    Engines.codes.each do |code|
      numbers = Engines.engine(code).cylinders.map(&:number)
      page = Engines.sheet(code, numbers, %w[plug coil], catalog: Engines.catalog)
      page.to_h
      expect(page.answer.effort.visited).to be < 400, "#{code}: #{page.answer.effort.visited}"
    end
  end
end
