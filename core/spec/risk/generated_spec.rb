# frozen_string_literal: true

require_relative "../spec_helper"

# Section 5 and 13 for risk, on every shipped engine that states its plugs' construction.
RSpec.describe "risk invariants on the shipped engines" do
  def history(km: 120_000, years: 8, **rest) =
    { "odometer_km" => 250_000, "plugs_changed_km" => 250_000 - km, "plugs_changed_years" => years }.merge(
      rest.transform_keys(&:to_s)
    )

  def plugs(code) = Engines.engine(code).targets.select(&:plug?).map(&:id)

  def trouble(code, ids = plugs(code), **rest)
    NimbleLedger::Risk::Trouble.new(Engines.answer(code, ids, catalog: Engines.catalog, history: history, **rest))
  end

  Engines.codes.each do |code|
    it "#{code}: chances lie between 0 and 1 and sum to 1, with and without a soak" do
      Engines
        .engine(code)
        .soaks
        .each do |soak|
          found = trouble(code, soak: soak)
          counts = found.outcomes.broken_counts
          expect(counts.size).to eq(Engines.engine(code).targets.sum(&:plugs) + 1)
          expect(counts.sum).to be_within(1e-12).of(1)
          expect(counts).to all(be_between(0, 1))
          expect(found.space.list.sum(&:chance)).to be_within(1e-6).of(1)
          expect(found.space.no_trouble).to be_within(1e-6).of(found.outcomes.no_trouble)
          expect(found.space.expected_minutes).to be_within(0.01).of(found.outcomes.expected_extra_minutes)
        end
    end

    it "#{code}: more distance, more years and more rust never make a plug easier; compound does" do
      at = ->(**rest) { trouble(code, plugs(code).first(1), **rest).outcomes.plug_rows.first.chances.to_a }
      ladder = [
        at.call(history: history(km: 10_000, years: 1)),
        at.call(history: history(km: 90_000, years: 1)),
        at.call(history: history(km: 90_000, years: 12)),
        at.call(history: history(km: 90_000, years: 12), condition: { "corrosion" => "light" }),
        at.call(history: history(km: 90_000, years: 12), condition: { "corrosion" => "heavy" })
      ]
      ladder.transpose.each { |chances| expect(chances).to eq(chances.sort) }
      used = at.call(history: history(compound_used: true))
      expect(used.zip(at.call(history: history))).to all(satisfy { |with, without| with < without })
    end

    it "#{code}: the allowance climbs, and the limit is never below the quote and its margin" do
      found = trouble(code)
      rows = found.allowance.rows
      expect(rows.map(&:broken)).to eq((1..rows.size).to_a)
      expect(rows.map(&:extra_cents)).to eq(rows.map(&:extra_cents).sort)
      expect(rows.map(&:extra_cents)).to all(be_positive)
      expect(found.allowance.not_above_cents).to be >= (found.price.total_cents * 1.05).floor
      expect(found.allowance.expected_cents).to be >= found.price.total_cents
    end

    it "#{code}: the soak that is recommended costs least of all, each worked out" do
      [[20_000, 2], [110_000, 9], [240_000, 16]].each do |km, years|
        job = Engines.answer(code, plugs(code).first(2), catalog: Engines.catalog, history: history(km:, years:)).job
        protocols = ["none"] | job.car.engine.soaks
        of = ->(soak) { NimbleLedger::Risk::Trouble.new(job.with_soak(soak)) }
        costs = protocols.to_h { |soak| [soak, of.call(soak).allowance.expected_cents] }
        planner = NimbleLedger::Risk::SoakPlanner.new(protocols, of)

        expect(costs[planner.recommended]).to be_within(0.01).of(costs.values.min)
      end
    end

    it "#{code}: with trouble counted in, no share of jobs is done sooner" do
      found = trouble(code)
      [0.5, 0.65, 0.8, 0.95].each do |p|
        expect(found.mixture.quantile(p)).to be >= found.plan.job.total.quantile(p) - 1e-3
      end
    end
  end

  it "takes mishaps alike as one group without changing any figure" do
    alike = trouble("GV28", Engines.targets("GV28", "coil", (1..6).to_a))
    locks = alike.outcomes.mishaps.select { |mishap| mishap.what == "connector lock breaks" }
    expect(locks.size).to eq(3)
    none = locks.reduce(1.0) { |product, mishap| product * (1 - mishap.chance) }
    calm = alike.space.list.select { |outcome| outcome.mishaps.zero? }.sum(&:chance)
    others = (alike.outcomes.mishaps - locks).reduce(1.0) { |product, mishap| product * (1 - mishap.chance) }
    expect(calm).to be_within(1e-6).of(none * others)
    mean = alike.outcomes.mishaps.sum { |mishap| mishap.chance * mishap.minutes.mean }
    expect(alike.space.expected_minutes).to be_within(0.01).of(mean)
  end

  it "pools outcomes for drawing without moving their chance, mean or variance" do
    list = trouble("YUX8").space.likely
    pooled = NimbleLedger::Risk::OutcomeSpace.pooled(list, 20)
    moments =
      lambda do |outcomes|
        chance = outcomes.sum(&:chance)
        mean = outcomes.sum { |o| o.chance * o.mean } / chance
        [chance, mean, outcomes.sum { |o| o.chance * (o.variance + (o.mean**2)) } / chance]
      end
    expect(pooled.size).to be <= 21
    moments.call(pooled).zip(moments.call(list)).each { |a, b| expect(a).to be_within(b * 1e-9).of(b) }
  end

  it "counts the outcomes in which plugs break and nothing else" do
    space = trouble("YUX8").space
    expect(space.only_broken(2)).to all(satisfy { |outcome| outcome.counts == [2, 0, 0, 0] })
    expect(space.only_broken(99)).to eq([])
  end
end
