# frozen_string_literal: true

require_relative "../spec_helper"

# Section 13 on every shipped engine, whatever it is.
RSpec.describe "planning invariants on the shipped engines" do
  HOUSE = NimbleLedger::House::Settings.defaults

  def planner_for(engine, equipment: Engines::EQUIPMENT, condition: nil, pins: nil)
    NimbleLedger::Car.new(
      engine: engine,
      house: HOUSE,
      condition: NimbleLedger::Time::Condition.new(condition, HOUSE),
      equipment: equipment,
      pins: NimbleLedger::Access::Pins.new(engine, pins)
    ).planner
  end

  # A few sets of targets, the same for every run.
  def samples(engine, count: 25)
    rng = Random.new(engine.code.sum)
    Array.new(count) { engine.targets.sample(rng.rand(1..6), random: rng) }
  end

  Engines.codes.each do |code|
    describe code do
      engine = Engines.engine(code)

      it "more targets never lower the cost, and a joint plan never costs more than its parts" do
        planner = planner_for(engine)
        samples(engine).each do |targets|
          joint = planner.least_cost(targets)
          expect(joint).to be >= planner.least_cost(targets.drop(1)) if targets.size > 1
          expect(joint).to be <= targets.sum { |target| planner.least_cost([target]) }
        end
      end

      it "removing equipment never shortens a plan, and a job that becomes impossible says what would open it" do
        rich = planner_for(engine)
        poor = planner_for(engine, equipment: [])
        samples(engine).each do |targets|
          expect(poor.least_cost(targets)).to be >= rich.least_cost(targets)
        rescue NimbleLedger::ImpossiblePlan => e
          expect(e.details.flat_map { |detail| detail["equipment"] } - Engines::EQUIPMENT).to be_empty
          expect(e.details.flat_map { |detail| detail["equipment"] }).not_to be_empty
        end
      end

      it "a worse condition never lowers the cost of the re-planned job, nor hours and price of the same route" do
        none, light, heavy = %w[none light heavy].map { |rust| planner_for(engine, condition: { "corrosion" => rust }) }
        samples(engine, count: 10).each do |targets|
          costs = [none, light, heavy].map { |planner| planner.least_cost(targets) }
          expect(costs).to eq(costs.sort)
          same = none.plan(targets)
          pins = { "ways" => same.ways.to_h { |target, way| [target.id, way.id] }, "choices" => same.choices }
          hours =
            %w[none light heavy].map do |rust|
              planner_for(engine, condition: { "corrosion" => rust, "bodged" => rust == "heavy" }, pins: pins)
                .plan(targets)
                .job
                .quoted_tenths
            end
          expect(hours).to eq(hours.sort)
        end
      end

      it "every step's prerequisites are in the plan and earlier, and every chain lies inside it" do
        planner = planner_for(engine)
        samples(engine, count: 15).each do |targets|
          plan = planner.plan(targets)
          place = plan.steps.each_with_index.to_h { |step, i| [step.id, i] }
          plan.steps.each do |step|
            before = step.after + step.choices.map { |choice| plan.member(choice) }
            expect(before.map { |id| place.fetch(id) }).to all(be < place[step.id])
          end
          expect(plan.chains.values.flatten.uniq).to match_array(plan.steps.map(&:id))
          expect(plan.turns.list.flat_map(&:steps) + plan.turns.shared_steps).to match_array(plan.steps)
        end
      end

      it "its cheapest plans are what brute force finds, clean and with light rust" do
        %w[none light].each do |rust|
          planner = planner_for(engine, condition: { "corrosion" => rust })
          brute =
            BruteForce.new(
              engine.source,
              equipment: Engines::EQUIPMENT,
              rust: [HOUSE["corrosion_remove"][rust], HOUSE["corrosion_refit"][rust]]
            )
          engine
            .targets
            .each_slice(5)
            .map { |slice| slice.first(2) }
            .each do |targets|
              expect(planner.least_cost(targets).to_f).to be_within(1e-9).of(brute.best(targets.map(&:id)).cost)
            end
        end
      end
    end
  end

  it "adding work of the same opening is what the two plans differ by, on every engine" do
    Engines.codes.each do |code|
      engine = Engines.engine(code)
      planner = planner_for(engine)
      chosen = [engine.targets.find(&:plug?)]
      NimbleLedger::Access::WhileOpen
        .new(planner, chosen)
        .rows
        .each do |row|
          expect(row.added).to eq(planner.least_cost(chosen + [row.target]) - planner.least_cost(chosen)),
          "#{code} #{row.target.id}"
          expect(row.saved).to be >= 0
        end
    end
  end
end
