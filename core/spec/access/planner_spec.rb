# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Access::Planner do
  def compare(hash, ids, equipment:, pins:, corrosion:, rules: 2)
    rust = { "none" => [1.0, 1.0], "light" => [1.15, 1.05], "heavy" => [1.4, 1.15] }[corrosion]
    battery = rules == 2 ? 31 / 6.0 : 0.0
    expected = BruteForce.new(hash, equipment: equipment, pins: pins, rust: rust, battery: battery).best(ids)
    planner = planner(hash, equipment: equipment, pins: pins, condition: { "corrosion" => corrosion }, rules: rules)
    targets = ids.map { |id| planner.graph.engine.target(id) }
    return expect { planner.plan(targets) }.to raise_error(NimbleLedger::ImpossiblePlan) unless expected

    expect_same(planner.plan(targets), expected)
  end

  def expect_same(plan, expected)
    expect(plan.cost.to_f).to be_within(1e-9).of(expected.cost)
    expect(plan.steps.map(&:id)).to match_array(expected.steps)
    by_file = plan.ways.sort_by { |target, _way| target.position }
    expect(by_file.map { |target, way| target.ways.index(way) }).to eq(expected.ways)
    expect(member_places(plan)).to eq(expected.members)
  end

  def member_places(plan)
    steps = plan.engine.steps.select { |s| plan.steps.include?(s) }.map { |s| [s.id, s.choices] }
    targets = plan.ways.sort_by { |target, _way| target.position }.map { |t, way| [t.id, way.choices] }
    (steps + targets).flat_map do |id, choices|
      members = plan.choices[id] || []
      choices.each_with_index.map { |choice, i| choice.members.index(members[i]) }
    end
  end

  it "equals brute force on thousands of small random profiles, ties, equipment and pins included" do
    planned = 0
    1500.times do |seed|
      rng = Random.new(seed)
      hash = random_profile(rng, steps: rng.rand(4..10), targets: rng.rand(1..4))
      ids = hash["targets"].map { |t| t["id"] }.sample(rng.rand(1..4), random: rng)
      equipment = [[], ["lift"], %w[lift strap], %w[lift scan]].sample(random: rng)
      compare(
        hash,
        ids,
        equipment: equipment,
        pins: random_pins(rng, hash),
        corrosion: %w[none light heavy].sample(random: rng),
        rules: rng.rand(1..2)
      )
      planned += 1
    end
    expect(planned).to eq(1500)
  end

  # Several targets with several ways each through few shared steps: here the search has to decide about the steps.
  it "equals brute force where many targets contend for the same steps" do
    decided = []
    200.times do |seed|
      rng = Random.new(50_000 + seed)
      hash = contended_profile(rng)
      planner = planner(hash)
      ids = hash["targets"].map { |t| t["id"] }.grep(/t\d/)
      compare(hash, ids, equipment: [], pins: nil, corrosion: "none")
      effort = NimbleLedger::Access::NodeBudget.new
      planner.plan(ids.map { |id| planner.graph.engine.target(id) }, effort: effort)
      decided << effort.visited
    end
    expect(decided.max).to be > 8
  end

  it "finds the same plans however few sides of decisions may wait" do
    costs =
      [4_000, 1].map do |waiting|
        stub_const("NimbleLedger::Access::Search::MOST_WAITING", waiting)
        6.times.map do |seed|
          planner(HardProfiles.build(seed)).then do |planner|
            planner.least_cost(planner.graph.engine.targets.first(24))
          end
        end
      end
    expect(costs[0]).to eq(costs[1])
  end

  def contended_profile(rng)
    steps = (0...7).map { |i| step("s#{i}", rng.rand(2..5), after: i > 4 ? ["s#{rng.rand(0..4)}"] : []) }
    steps << step("any", 1, after: [any(*%w[s0 s1 s2].shuffle(random: rng))])
    targets =
      (0...6).map do |i|
        ways =
          (0...rng.rand(2..3)).map do |w|
            {
              "id" => "w#{w}",
              "through" => %w[s0 s1 s2 s3 s4 s5 s6 any].sample(rng.rand(1..2), random: rng),
              "factor" => [1, 1.5, 2].sample(random: rng)
            }
          end
        target("t#{i}", cylinder: i + 1, ways: ways)
      end
    profile(steps: steps, targets: targets)
  end

  def random_pins(rng, hash)
    return nil if rng.rand < 0.6

    target = hash["targets"].sample(random: rng)
    holder = hash["steps"].find { |s| s["after"].any?(Hash) }
    choices = holder ? { holder["id"] => holder["after"].find { |e| e.is_a?(Hash) }["any"].sample(random: rng) } : {}
    { "ways" => { target["id"] => target["ways"].sample(random: rng)["id"] }, "choices" => choices }
  end

  it "takes the dearer way for each target when sharing it is cheaper for all" do
    own = (1..4).map { |i| step("own-#{i}", 5) }
    targets =
      (1..4).map do |i|
        target(
          "t#{i}",
          cylinder: i,
          ways: [{ "id" => "alone", "through" => ["own-#{i}"] }, { "id" => "under", "through" => ["manifold"] }]
        )
      end
    planner = planner(profile(steps: own + [step("manifold", 12)], targets: targets))
    one = planner.plan([planner.graph.engine.target("t1")])
    all = planner.plan((1..4).map { |i| planner.graph.engine.target("t#{i}") })
    expect(one.steps.map(&:id)).to eq(["own-1"])
    expect(all.steps.map(&:id)).to eq(["manifold"])
    expect(all.cost).to eq(16)
  end

  it "names the target and the equipment that would open it" do
    hash =
      profile(
        steps: [step("tilt", 5, needs: ["strap-and-block"])],
        targets: [
          target(
            "t",
            ways: [{ "id" => "tilted", "through" => ["tilt"] }, { "id" => "beneath", "needs" => ["two-post-lift"] }]
          )
        ]
      )
    planner = planner(hash)
    expect { planner.plan([planner.graph.engine.target("t")]) }.to raise_error(NimbleLedger::ImpossiblePlan) { |error|
      expect(error.message).to include("tilted needs strap-and-block").and include("beneath needs two-post-lift")
      expect(error.details.map { |d| d["equipment"] }).to eq([["strap-and-block"], ["two-post-lift"]])
    }
  end

  it "refuses pins that name nothing, and ignores pins the plan does not reach" do
    hash =
      profile(
        steps: [step("a"), step("b"), step("m", 1, after: [any("a", "b")])],
        targets: [target("t"), target("u", through: ["m"])]
      )
    expect { planner(hash, pins: { "ways" => { "ghost" => "way" } }) }.to raise_error(NimbleLedger::InvalidInput) { |e|
      expect(e.details.first["path"]).to eq("/pins/ways/ghost")
    }
    expect { planner(hash, pins: { "choices" => { "m" => "ghost" } }) }.to raise_error(
      NimbleLedger::InvalidInput,
      /pin/
    )
    pinned = planner(hash, pins: { "choices" => { "m" => "b" } })
    expect(pinned.plan([pinned.graph.engine.target("t")]).steps).to be_empty
    expect(pinned.plan([pinned.graph.engine.target("u")]).steps.map(&:id)).to eq(%w[b m])
  end

  it "counts both people of a two-person step, in its closing work too, which is done once" do
    hash =
      profile(
        steps: [step("tilt", 10, people: 2, closing: [{ "what" => "relearn", "minutes" => [3, 3, 3] }])],
        targets: [target("t", through: ["tilt"])]
      )
    planner = planner(hash)
    expect(planner.least_cost([planner.graph.engine.target("t")])).to eq((2 * (10 + 3)) + 1)
  end
end
