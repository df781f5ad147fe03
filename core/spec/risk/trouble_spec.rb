# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Risk do
  let(:house) { NimbleLedger::House::Settings.defaults }

  HISTORY = { "odometer_km" => 200_000, "plugs_changed_km" => 40_000, "plugs_changed_years" => 8 }.freeze

  def trouble(code, targets, history: HISTORY, **rest)
    NimbleLedger::Risk::Trouble.new(Engines.answer(code, targets, catalog: Engines.catalog, history: history, **rest))
  end

  describe "one plug, worked by hand" do
    it "multiplies odds of a one-piece plug by distance, years, rust and soak" do
      row = trouble("SK18", ["plug-1"], condition: { "corrosion" => "light" }, soak: "short").outcomes.plug_rows.first
      odds = (1.6**0.6) * (1.06**3) * 1.4 * 0.55
      chance = 0.003 / 0.997 * odds
      expect(row.chances.broken).to be_within(1e-12).of(chance / (1 + chance))
      stubborn = 0.06 / 0.94 * odds
      expect(row.chances.stubborn).to be_within(1e-12).of(stubborn / (1 + stubborn))
    end

    it "starts a multi-piece plug at seven in a hundred, and an unused interval changes nothing" do
      fresh = { "odometer_km" => 0, "plugs_changed_km" => 0, "plugs_changed_years" => 0 }
      expect(trouble("YUX8", ["plug-1"], history: fresh).outcomes.plug_rows.first.chances.broken).to be_within(
        1e-12
      ).of(0.07)
    end

    it "takes the worse of the car's rust and the cylinder's own well" do
      rows = trouble("SK18", %w[plug-1 plug-2], condition: { "wells" => { "2" => "rusted" } }).outcomes.plug_rows
      dry, rusted = rows.map { |row| row.chances.broken / (1 - row.chances.broken) }
      expect(rusted / dry).to be_within(1e-9).of(2.2)
    end
  end

  describe "the whole job" do
    it "bills a mishap's part by the house markup, and never above what the price list sets" do
      billed =
        lambda do |list|
          items =
            Engines.catalog.source["items"].map do |item|
              item["part"] == "CLP-19295" ? item.merge("list_cents" => list) : item
            end
          catalog = NimbleLedger::Parts::Catalog.build(Engines.catalog.source.merge("items" => items))
          answer = Engines.answer("SK18", ["plug-1"], catalog: catalog, history: HISTORY)
          NimbleLedger::Risk::Trouble
            .new(answer)
            .space
            .list
            .find { |outcome| outcome.mishaps == 1 && outcome.broken.zero? && outcome.threads.zero? }
            .parts_cents
            .round(6)
        end
      expect([nil, 500, 100].map(&billed)).to eq([680, 500, 340]) # cost 3.40, doubled; capped; never below cost
    end

    # Every plug and every mishap by itself: the definition, at small size.
    def enumerate(trouble)
      events = trouble.outcomes.plug_rows.flat_map { |row| [plug_events(trouble, row)] * row.target.plugs }
      events +=
        trouble.outcomes.mishaps.map do |m|
          [[m.chance, [0, 0, 0, 1], m.minutes.mean], [1 - m.chance, [0, 0, 0, 0], 0.0]]
        end
      events.reduce([[1.0, [0, 0, 0, 0], 0.0]]) do |all, event|
        all.flat_map do |p, counts, minutes|
          event.map { |q, more, extra| [p * q, counts.zip(more).map(&:sum), minutes + extra] }
        end
      end
    end

    def plug_events(trouble, row)
      b, t, s = row.chances.to_a
      out = trouble.outcomes
      [
        [b, [1, 0, 0, 0], out.minutes_of("broken", row.target).mean],
        [(1 - b) * t, [0, 1, 0, 0], out.minutes_of("thread", row.target).mean],
        [(1 - b) * (1 - t) * s, [0, 0, 1, 0], out.minutes_of("stubborn", row.target).mean],
        [(1 - b) * (1 - t) * (1 - s), [0, 0, 0, 0], 0.0]
      ]
    end

    [
      ["JIV6", %w[plug-5]],
      ["JIV6", %w[plug-1 plug-3 plug-5]],
      ["YUX8", %w[plug-1 plug-7 plug-8]]
    ].each do |code, targets|
      it "equals full enumeration for #{code} #{targets.join(", ")}" do
        trouble = trouble(code, targets, rules: 2) # each plug for itself
        all = enumerate(trouble)
        by_counts = all.group_by { |_p, counts, _m| counts }.transform_values { |list| list.sum(&:first) }
        found = trouble.space.list.group_by(&:counts).transform_values { |list| list.sum(&:chance) }
        by_counts.each { |counts, chance| expect(found.fetch(counts, 0.0)).to be_within(1e-8).of(chance) }
        expect(trouble.space.no_trouble).to be_within(1e-8).of(trouble.outcomes.no_trouble)
        expect(trouble.space.expected_minutes).to be_within(1e-5).of(all.sum { |p, _c, minutes| p * minutes })
        expect(trouble.outcomes.expected_extra_minutes).to be_within(1e-9).of(all.sum { |p, _c, minutes| p * minutes })
      end
    end

    it "keeps mean and chances right when outcomes merge (eight different plugs)" do
      trouble = trouble("YUX8", (1..8).map { |n| "plug-#{n}" })
      expect(trouble.space.merged).to be(true)
      expect(trouble.space.list.sum(&:chance)).to be_within(1e-6).of(1)
      expect(trouble.space.expected_minutes).to be_within(0.01).of(trouble.outcomes.expected_extra_minutes)
      counts = trouble.space.list.group_by(&:broken).transform_values { |list| list.sum(&:chance) }
      trouble.outcomes.broken_counts.each_with_index do |chance, k|
        expect(counts.fetch(k, 0.0)).to be_within(1e-6).of(chance)
      end
    end

    it "agrees with a seeded simulation of the same job" do
      trouble = trouble("YUX8", %w[plug-5 plug-7 plug-8])
      rng = Random.new(42)
      outcomes = trouble.space.list
      total = trouble.plan.job.total
      sample = 20_000.times.map { draw(outcomes, total, rng) }.sort
      [0.5, 0.8, 0.95].each do |p|
        expect(trouble.mixture.quantile(p)).to be_within(sample[(p * sample.size).to_i] * 0.02).of(
          sample[(p * sample.size).to_i]
        )
      end
    end

    def draw(outcomes, total, rng)
      at = rng.rand
      outcome = outcomes.find { |o| (at -= o.chance) <= 0 } || outcomes.last
      total.plus(outcome.mean, outcome.variance).quantile(rng.rand.clamp(1e-9, 1 - 1e-9))
    end

    it "never lowers a quantile at or above the median by adding risk" do
      plain = Engines.answer("YUX8", ["plug-8"]).plan.job.total
      risky = trouble("YUX8", ["plug-8"]).mixture
      [0.5, 0.65, 0.8, 0.95, 0.99].each { |p| expect(risky.quantile(p)).to be >= plain.quantile(p) - 1e-3 }
    end
  end

  describe NimbleLedger::Risk::Allowance do
    it "prices a break above the quote, more breaks higher, and covers 99 of 100 jobs" do
      trouble = trouble("YUX8", (1..8).map { |n| "plug-#{n}" })
      rows = trouble.allowance.rows
      expect(rows.map(&:extra_cents)).to eq(rows.map(&:extra_cents).sort)
      expect(rows.first.extra_cents).to be > 0
      expect(trouble.outcomes.broken_counts.first(rows.size + 1).sum).to be >= 0.99
    end

    it "never stands less than the house margin above the quote, and never bills a stubborn plug" do
      easy = trouble("SK18", ["plug-1"])
      expect(easy.allowance.not_above_cents).to eq((easy.price.total_cents * 1.05).round)
      stubborn = easy.space.list.find { |outcome| outcome.counts == [0, 0, 1, 0] }
      expect(easy.allowance.price_of(stubborn)).to eq(easy.price.total_cents)
    end

    it "costs the quote exactly when nothing happens" do
      trouble =
        trouble(
          "JIV6",
          %w[plug-5 coil-5],
          house: {
            "taxes" => [{ "label" => "Tax", "percent" => 7.5, "on" => %w[labor parts] }]
          },
          discount: {
            "cents" => 777
          }
        )
      calm = trouble.space.list.find { |outcome| !outcome.trouble? }
      expect(trouble.allowance.price_of(calm)).to eq(trouble.price.total_cents)
    end

    it "counts the cure once when all are out, for each plug when one at a time" do
      expect(trouble("YUX8", ["plug-1"]).allowance.cure_minutes(2)).to eq(120)
      expect(trouble("YUX8", ["plug-1"], house: { "order_of_work" => "all-out" }).allowance.cure_minutes(2)).to eq(60)
      expect(trouble("SK18", ["plug-1"]).allowance.cure_minutes(1)).to eq(0)
    end
  end

  it "recommends the least expected cost among soaks that meet the promise" do
    base = Engines.answer("YUX8", (1..8).map { |n| "plug-#{n}" }, catalog: Engines.catalog, history: HISTORY)
    planner =
      NimbleLedger::Risk::SoakPlanner.new(
        %w[none short overnight],
        ->(soak) { NimbleLedger::Risk::Trouble.new(base.with_soak(soak)) },
        ready: ->(t) { t.plan.overnight? ? 2000 : t.plan.job.total.mean + t.plan.wait_minutes }
      )
    cheapest = planner.rows.min_by(&:expected_cents).protocol
    expect(planner.recommended).to eq(cheapest)
    expect(planner.recommended(promised: 1000)).not_to eq("overnight")
    expect(planner.recommended(promised: 1)).to eq(planner.rows.min_by(&:ready).protocol)
    expect([nil, 1000, 1].map { |promise| planner.promise(promise) }).to eq(%w[none kept missed])
  end

  it "gives sane answers at the extremes: chance 0 and 1, sixteen plugs, forty years, no distance" do
    [0, 1].each do |chance|
      hash = Engines.profile_of("YUX8").merge("plug" => Engines.profile_of("YUX8")["plug"].merge("per_cylinder" => 2))
      history = { "odometer_km" => 0, "plugs_changed_km" => 0, "plugs_changed_years" => 40 }
      kinds = { "one-piece" => chance, "one-piece-long-reach" => chance, "multi-piece" => chance }
      request =
        Engines.request(
          (1..8).map { |n| "plug-#{n}" },
          engine: hash,
          history: history,
          house: {
            "break_chance" => kinds
          }
        )
      answer =
        NimbleLedger::Estimate::Answer.new(
          NimbleLedger::Estimate::Request.build(
            request,
            documents: NimbleLedger::Documents.new(catalog: Engines.catalog)
          )
        )
      trouble = described_class::Trouble.new(answer)
      expect(answer.outcomes.broken_counts.size).to eq(17)
      figures =
        answer.outcomes.broken_counts +
          [
            trouble.allowance.not_above_cents,
            trouble.mixture.quantile(0.95),
            trouble.allowance.expected_cents,
            trouble.extraction_fails
          ]
      expect(figures).to all(satisfy { |x| x.finite? && x >= 0 })
      expect(answer.outcomes.broken_counts[chance * 16]).to be_within(1e-9).of(1)
    end
  end
end
