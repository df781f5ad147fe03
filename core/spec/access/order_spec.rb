# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Access::Plan do
  def plan(hash, ids, house: nil, soak: "none", **rest)
    planner = planner(hash, house: house, **rest)
    planner.plan(ids.map { |id| planner.graph.engine.target(id) }, soak: soak)
  end

  let(:zoned) do
    profile(
      steps: [
        step("tray", zone: "rear"),
        step("box"),
        step("shield", zone: "under"),
        step("pipe", after: ["box"]),
        step("strut", zone: "rear", after: ["pipe"])
      ],
      targets: [target("t", through: %w[tray box shield pipe strut])]
    )
  end

  it "starts at the top, stays in a zone while it has anything free, then goes by file order" do
    expect(plan(zoned, ["t"]).steps.map(&:id)).to eq(%w[box pipe tray strut shield])
  end

  let(:two_cylinders) do
    profile(
      steps: [
        step("cover"),
        step("coil-1", 2, after: ["cover"], cylinder: 1),
        step("coil-2", 1, after: ["cover"], cylinder: 2)
      ],
      targets: [
        target("plug-1", work: "plug", cylinder: 1, through: ["coil-1"]),
        target("plug-2", work: "plug", cylinder: 2, through: ["coil-2"])
      ]
    )
  end

  it "takes turns by fewest local minutes, and keeps local steps within the turn" do
    turns = plan(two_cylinders, %w[plug-1 plug-2]).turns
    expect(turns.list.map { |turn| [turn.cylinder, turn.steps.map(&:id), turn.targets.map(&:id)] }).to eq(
      [[2, ["coil-2"], ["plug-2"]], [1, ["coil-1"], ["plug-1"]]]
    )
    expect(turns.shared_steps.map(&:id)).to eq(["cover"])
  end

  it "shares a cylinder's step when another cylinder's target needs it too" do
    two_cylinders["targets"].find { |t| t["id"] == "plug-2" }["ways"].first["through"] = %w[coil-2 coil-1]
    expect(plan(two_cylinders, %w[plug-1 plug-2]).turns.shared_steps.map(&:id)).to eq(%w[cover coil-1])
  end

  it "works all-out for a compression test; after a soak one bore is open at a time" do
    expect(plan(two_cylinders, ["plug-1"]).order_of_work).to eq("one-at-a-time")
    two_cylinders["targets"] << target("squeeze", work: "compression", cylinder: 1, through: ["coil-1"])
    expect(plan(two_cylinders, %w[plug-1 squeeze]).order_of_work).to eq("all-out")
    soaked = plan(two_cylinders, ["plug-1"], soak: "short")
    expect([soaked.order_of_work, soaked.soaked_together?]).to eq(["one-at-a-time", true])
    expect(plan(two_cylinders, ["plug-1"], house: { "order_of_work" => "all-out" }).order_of_work).to eq("all-out")
  end

  it "works all-out for whatever the profile says is done with the plugs out" do
    crank = target("crank", work: "other", through: ["cover"]).merge("label" => "Crank clear", "plugs_out" => true)
    two_cylinders["targets"] << crank
    expect(plan(two_cylinders, %w[plug-1 plug-2]).order_of_work).to eq("one-at-a-time")
    expect(plan(two_cylinders, %w[plug-1 plug-2 crank]).order_of_work).to eq("all-out")
  end

  it "keeps every prerequisite in the plan and earlier, on generated profiles" do
    400.times do |seed|
      rng = Random.new(seed)
      hash = random_profile(rng, steps: 10, targets: 4)
      plan = plan(hash, %w[t0 t1], equipment: %w[lift strap scan])
      at = plan.steps.each_with_index.to_h { |step, i| [step.id, i] }
      plan.steps.each do |step|
        chosen = plan.choices.fetch(step.id, [])
        expect((step.after + chosen).map { |id| at.fetch(id) }).to all(be < at[step.id])
      end
      expect(plan.chains.values.flatten.uniq).to match_array(plan.steps.map(&:id))
    end
  end

  it "names for every step the targets that need it" do
    plan = plan(two_cylinders, %w[plug-1 plug-2])
    expect(plan.needed_by(plan.engine.step("cover")).map(&:id)).to eq(%w[plug-1 plug-2])
    expect(plan.needed_by(plan.engine.step("coil-2")).map(&:id)).to eq(["plug-2"])
  end
end

RSpec.describe NimbleLedger::Access::Order do
  it "takes nothing off before what lies over it, and leaves a zone only when it has nothing free" do
    200.times do |seed|
      planner =
        planner(random_profile(Random.new(40_000 + seed), steps: 12, targets: 5), equipment: %w[lift strap scan])
      plan = planner.plan(planner.graph.engine.targets.first(5))
      off = []
      free = ->(step) { (step.after + step.choices.map { |choice| plan.member(choice) } - off).empty? }
      plan.steps.each do |step|
        expect(free.call(step)).to be(true)
        zone = off.empty? ? "top" : planner.graph.engine.step(off.last).zone
        others = (plan.steps - [step]).reject { |other| off.include?(other.id) }.select(&free)
        first = (step.zone == zone ? others.select { |other| other.zone == zone } : others).map(&:position).min
        expect(others.map(&:zone)).not_to include(zone) unless step.zone == zone
        expect(first.nil? || first > step.position).to be(true)
        off << step.id
      end
    end
  end
end
