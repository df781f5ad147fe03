# frozen_string_literal: true

require_relative "../spec_helper"

# Section 2, "Alternatives": one way or member pinned differently, the rest at its best, against brute force.
RSpec.describe NimbleLedger::Access::Alternatives do
  EVERYTHING = %w[lift strap scan].freeze

  # A plan and its alternatives on a generated profile, or nil where there is no plan.
  def routes(hash, ids, equipment: EVERYTHING, pins: nil)
    planner = planner(hash, equipment: equipment, pins: pins)
    plan = planner.plan(ids.map { |id| planner.graph.engine.target(id) })
    [plan, described_class.new(planner, plan)]
  rescue NimbleLedger::ImpossiblePlan
    nil
  end

  def pinned(pins, row)
    members = row.members.to_h { |member| [member.holder.id, [member.id]] }
    { "ways" => (pins || {}).fetch("ways", {}).merge(row.ways), "choices" => members }
  end

  # Holders with one choice only: the brute force keys pins by holder.
  def plain?(row) =
    row.members.all? { |member| member.holder.is_a?(NimbleLedger::Profile::Step) && member.holder.choices.size == 1 }

  it "prices every other way and member as brute force does" do
    compared = 0
    400.times do |seed|
      hash = random_profile(Random.new(20_000 + seed), steps: 9, targets: 3)
      plan, found = routes(hash, %w[t0 t1])
      next unless plan

      found
        .rows
        .select { |row| plain?(row) }
        .each do |row|
          best = BruteForce.new(hash, equipment: EVERYTHING, pins: pinned(nil, row)).best(%w[t0 t1])
          expect(row.plan.cost.to_f).to be_within(1e-9).of(best.cost), "seed #{seed}"
          expect(row.added).to eq(row.plan.cost - plan.cost)
          compared += 1
        end
    end
    expect(compared).to be > 300
  end

  it "never finds a route that is less work than the plan, while nothing is pinned" do
    300.times do |seed|
      plan, found = routes(random_profile(Random.new(30_000 + seed)), %w[t0 t1 t2])
      next unless plan

      expect(found.rows.select(&:feasible?).map(&:added)).to all(be >= 0), "seed #{seed}"
    end
  end

  it "lists each other way of each target, and each other member of each choice reached, once" do
    250.times do |seed|
      plan, found = routes(random_profile(Random.new(40_000 + seed)), %w[t0 t1])
      next unless plan

      ways = plan.targets.sum { |target| target.ways.size - 1 }
      members = found.choices.sum { |member| member.choice.members.size - 1 }
      keys =
        found.rows.map do |row|
          [row.ways, row.members.map { |member| [member.holder.id, member.choice.position, member.id] }]
        end
      expect(keys.uniq.size).to eq(keys.size)
      expect(keys.size).to be <= ways + members
    end
  end

  it "names what is missing for a route the shop cannot do, planned as if it could" do
    steps = [step("lift-up", 3, needs: ["lift"]), step("from-above", 9)]
    hash =
      profile(
        steps: steps,
        targets: [
          target(
            "t",
            ways: [{ "id" => "beneath", "through" => ["lift-up"] }, { "id" => "above", "through" => ["from-above"] }]
          )
        ]
      )
    plan, found = routes(hash, ["t"], equipment: [])
    expect(plan.ways.values.map(&:id)).to eq(["above"])
    row = found.rows.first
    expect([row.missing, row.feasible?, row.added]).to eq([["lift"], false, -6])
    expect(routes(hash, ["t"], equipment: ["lift"]).last.rows.map(&:missing)).to eq([[]])
  end

  it "leaves out a route that no equipment opens" do
    steps = [step("a", 1), step("b", 2), step("c", 1, after: [any("a", "b")])]
    hash = profile(steps: steps, targets: [target("t", through: ["c"])])
    _plan, found = routes(hash, ["t"], pins: { "choices" => { "c" => "b" } })
    expect(found.rows.map { |row| row.members.map(&:id) }).to eq([["a"]])
  end

  it "replaces the pin in force rather than adding to it" do
    hash =
      profile(
        steps: [step("x", 1), step("y", 5)],
        targets: [target("t", ways: [{ "id" => "short", "through" => ["x"] }, { "id" => "long", "through" => ["y"] }])]
      )
    plan, found = routes(hash, ["t"], pins: { "ways" => { "t" => "long" } })
    expect(plan.ways.values.map(&:id)).to eq(["long"])
    expect(found.rows.map { |row| [row.ways, row.added] }).to eq([[{ "t" => "short" }, -4]])
  end

  # What looks cheapest for each alone is wrong for both together.
  describe "greedy traps" do
    it "takes the dear shared step when two jobs share it" do
      steps = [step("shared", 6), step("own-1", 4), step("own-2", 4)]
      two =
        [1, 2].map do |n|
          target(
            "t#{n}",
            cylinder: n,
            ways: [{ "id" => "own", "through" => ["own-#{n}"] }, { "id" => "shared", "through" => ["shared"] }]
          )
        end
      planner = planner(profile(steps: steps, targets: two))
      first, second = %w[t1 t2].map { |id| planner.graph.engine.target(id) }
      expect(planner.plan([first]).ways.values.map(&:id)).to eq(["own"])
      expect(planner.plan([first, second]).ways.values.map(&:id)).to eq(%w[shared shared])
      expect(planner.least_cost([first, second])).to be < planner.least_cost([first]) + planner.least_cost([second])
    end

    it "takes the tray off for 5 as soon as 6 is in the job (inline six under the cowl)" do
      ways = ->(*ids) { Engines.answer("OC30", ids).plan.ways.transform_keys(&:id).transform_values(&:id) }
      expect(ways.call("plug-5")).to eq("plug-5" => "under-the-tray")
      expect(ways.call("plug-5", "plug-6")).to eq("plug-5" => "cowl-off", "plug-6" => "cowl-off")
    end

    it "works from beneath for one rear cylinder and tilts the engine for the bank (sideways V6)" do
      way = ->(numbers) do
        Engines.answer("IXO6", Engines.targets("IXO6", %w[plug wire], numbers)).plan.ways.values.map(&:id).uniq
      end
      expect(way.call([5])).to eq(["from-beneath"])
      expect(way.call([1, 3, 5])).to eq(["engine-tilted"])
    end

    it "hangs the throttle aside when something else needs it off anyway (lengthwise V6)" do
      tools = [*Engines::EQUIPMENT, "scan-tool"]
      members = ->(*ids) { Engines.answer("KUJ6", ids, equipment: tools).plan.choices["manifold"] }
      expect([members.call("plug-2"), members.call("plug-2", "throttle-clean")]).to eq(
        [["throttle-unplug"], ["throttle-aside"]]
      )
    end
  end
end
