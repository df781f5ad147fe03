# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Access::Search do
  # Picks each target's own cheapest way, one after the other: what a quick rule of thumb would do.
  def greedy_cost(planner, targets)
    inside = {}
    targets.sum(0r) do |target|
      alone = planner.plan([target])
      fresh = alone.steps.reject { |step| inside[step.id] }
      fresh.each { |step| inside[step.id] = true }
      fresh.sum(0r) { |step| planner.graph.step_cost(step.position) } + planner.graph.way_cost(alone.ways[target])
    end
  end

  it "solves cases at the size limits, where the rule of thumb is wrong" do
    gaps =
      3.times.map do |seed|
        planner = planner(HardProfiles.build(seed))
        engine = planner.graph.engine
        expect([engine.steps.size, engine.targets.size, engine.targets.count { |t| t.ways.size > 1 }]).to eq(
          [80, 64, 24]
        )
        greedy_cost(planner, engine.targets) - planner.least_cost(engine.targets)
      end
    expect(gaps).to all(be > 0)
  end

  it "is certain of its answer: no closed set found by thousands of random tries is cheaper" do
    planner = planner(HardProfiles.build(1))
    targets = planner.graph.engine.targets.first(8)
    best = planner.least_cost(targets)
    rng = Random.new(1)
    tried = 2000.times.map { random_cost(planner, targets, rng) }
    expect(tried.min).to be >= best
  end

  def random_cost(planner, targets, rng)
    graph = planner.graph
    ways = targets.to_h { |target| [target, target.ways.sample(random: rng)] }
    open = ways.values.flat_map { |way| way.through + members(way, rng) }
    inside = {}
    until open.empty?
      id = open.pop
      next if inside[id]

      inside[id] = true
      step = graph.engine.step(id)
      open.concat(step.after + members(step, rng))
    end
    inside.keys.sum(0r) { |id| graph.step_cost(graph.engine.step(id).position) } +
      ways.values.sum(0r) { |way| graph.way_cost(way) }
  end

  def members(holder, rng) = holder.choices.map { |choice| choice.members.sample(random: rng) }
end
