# frozen_string_literal: true

require_relative "../spec_helper"

# Section 13 of the model on generated profiles.
RSpec.describe "planning invariants" do
  def targets(planner, ids) = ids.map { |id| planner.graph.engine.target(id) }

  def each_case(count)
    count.times { |seed| yield random_profile(Random.new(10_000 + seed), steps: 10, targets: 4) }
  end

  it "more targets never lower the cost, and a joint plan never costs more than separate ones" do
    each_case(300) do |hash|
      planner = planner(hash, equipment: %w[lift strap scan])
      costs = %w[t0 t1 t2].map { |id| planner.least_cost(targets(planner, [id])) }
      joint = planner.least_cost(targets(planner, %w[t0 t1 t2]))
      two = planner.least_cost(targets(planner, %w[t0 t1]))
      expect(joint).to be >= two
      expect(two).to be >= costs.first(2).max
      expect(joint).to be <= costs.sum
    end
  end

  it "removing equipment never shortens a plan" do
    each_case(300) do |hash|
      rich = planner(hash, equipment: %w[lift strap scan])
      poor = planner(hash, equipment: [])
      with = rich.least_cost(targets(rich, ["t0"]))
      without =
        begin
          poor.least_cost(targets(poor, ["t0"]))
        rescue NimbleLedger::ImpossiblePlan
          Float::INFINITY
        end
      expect(without).to be >= with
    end
  end

  it "a worse condition never lowers the cost of the re-planned job" do
    each_case(300) do |hash|
      costs =
        %w[none light heavy].map do |rust|
          planner = planner(hash, equipment: %w[lift strap scan], condition: { "corrosion" => rust })
          planner.least_cost(targets(planner, %w[t0 t1]))
        end
      expect(costs).to eq(costs.sort)
    end
  end

  it "while-open rows equal the difference of two plans, and saving is never negative" do
    each_case(150) do |hash|
      planner = planner(hash, equipment: %w[lift strap scan])
      brute = BruteForce.new(hash, equipment: %w[lift strap scan])
      rows = NimbleLedger::Access::WhileOpen.new(planner, targets(planner, ["t0"])).rows
      rows.each do |row|
        alone = brute.best([row.target.id]).cost
        expect(row.added.to_f).to be_within(1e-9).of(brute.best(["t0", row.target.id]).cost - brute.best(["t0"]).cost)
        expect(row.alone.to_f).to be_within(1e-9).of(alone)
        expect(row.saved).to be >= 0
      end
      expect(rows.map(&:share)).to eq(rows.map(&:share).sort.reverse)
    end
  end
end
