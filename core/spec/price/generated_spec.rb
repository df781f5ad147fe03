# frozen_string_literal: true

require_relative "../spec_helper"

# Section 13 for money, on generated catalogs: purchases cover needs at least cost, lines sum, a dearer part never sells
# cheaper.
RSpec.describe "price invariants" do
  PRICED = %w[A B C D E].freeze

  def catalog(rng)
    items = PRICED.map { |part| { "part" => part, "description" => "part #{part}" } }
    kits =
      (1..rng.rand(0..3)).map do |i|
        {
          "part" => "KIT-#{i}",
          "contains" =>
            PRICED.sample(rng.rand(1..3), random: rng).map { |part| { "part" => part, "quantity" => rng.rand(1..3) } }
        }
      end
    offers = PRICED.map { |part| { "supplier" => "S", "part" => part, "cost_cents" => rng.rand(50..4000) } }
    offers += kits.map { |kit| { "supplier" => "S", "part" => kit["part"], "cost_cents" => rng.rand(50..6000) } }
    { "items" => items + kits, "offers" => offers }
  end

  # An engine whose one target needs these parts.
  def lines(needs, catalog, house = {}, **rest)
    parts = needs.map { |part, quantity| { "part" => part, "quantity" => quantity } }
    engine = profile(steps: [], targets: [target("t", work: "boot", parts: parts)])
    request = Engines.request(["t"], engine: engine, catalog: catalog, house: house, **rest)
    NimbleLedger::Estimate::Answer.new(NimbleLedger::Estimate::Request.build(request)).price
  end

  def needs(rng) = PRICED.sample(rng.rand(1..4), random: rng).to_h { |part| [part, rng.rand(1..6)] }

  def cost_of(catalog) = catalog["offers"].to_h { |offer| [offer["part"], offer["cost_cents"]] }

  def contents(catalog, part) =
    catalog["items"].find { |item| item["part"] == part }["contains"] || [{ "part" => part, "quantity" => 1 }]

  # What was bought, part by part, kits opened.
  def bought(price, catalog)
    price
      .list
      .select { |line| line.kind == "part" }
      .each_with_object(Hash.new(0)) do |line, sums|
        contents(catalog, line.part).each { |content| sums[content["part"]] += content["quantity"] * line.quantity }
      end
  end

  # The least cost over every count of every kit, singles for the rest, tried one by one.
  def least_cost(needs, catalog)
    cost = cost_of(catalog)
    kits = catalog["items"].select { |item| item["contains"] }
    counts = kits.map { (0..6).to_a }
    tries = counts.empty? ? [[]] : counts.first.product(*counts.drop(1))
    tries.map { |tried| cost_of_trying(kits.zip(tried), needs.dup, cost) }.min
  end

  def cost_of_trying(kits, left, cost)
    kits.each do |kit, n|
      kit["contains"].each { |content| left[content["part"]] -= content["quantity"] * n if left[content["part"]] }
    end
    kits.sum { |kit, n| cost[kit["part"]] * n } + left.sum { |part, quantity| [quantity, 0].max * cost[part] }
  end

  it "purchases cover the need, cost the least there is, and what is left over is said" do
    150.times do |seed|
      rng = Random.new(seed)
      list = catalog(rng)
      wanted = needs(rng)
      price = lines(wanted, list)
      have = bought(price, list)
      wanted.each { |part, quantity| expect(have[part]).to be >= quantity, "seed #{seed}" }
      spent = price.list.select { |line| line.kind == "part" }.sum { |line| cost_of(list)[line.part] * line.quantity }
      expect(spent).to eq(least_cost(wanted, list)), "seed #{seed}"
      over = price.leftovers.each_with_object(Hash.new(0)) { |row, sums| sums[row["part"]] += row["quantity"] }
      expect(
        have.to_h { |part, count| [part, count - wanted.fetch(part, 0)] }.reject { |_part, count| count.zero? }
      ).to eq(over),
      "seed #{seed}"
    end
  end

  it "lines sum to the total whatever taxes and fees there are; a discount is never more than the job" do
    120.times do |seed|
      rng = Random.new(1000 + seed)
      classes = %w[labor parts fees]
      taxes =
        Array.new(rng.rand(0..2)) do |i|
          {
            "label" => "tax #{i}",
            "percent" => rng.rand(0.0..25.0).round(3),
            "on" => classes.sample(rng.rand(1..3), random: rng)
          }
        end
      house = {
        "taxes" => taxes,
        "fees" => [{ "label" => "Disposal", "cents" => rng.rand(0..900) }],
        "rate_cents" => rng.rand(4000..30_000),
        "supplies_percent" => rng.rand(0.0..12.0).round(2)
      }
      discount = { "cents" => [0, rng.rand(1..60_000)].sample(random: rng) }
      price = lines(needs(rng), catalog(rng), house, discount: discount)
      expect(price.total_cents).to eq(price.list.sum(&:cents))
      expect(price.total_cents).to be >= 0
      taken = price.list.select { |line| line.kind == "tax" }.sum(&:cents)
      net = price.list.reject { |line| line.kind == "tax" }.sum(&:cents)
      expect(taken).to be <= (net * taxes.sum { |tax| tax["percent"] } / 100.0).ceil + taxes.size
    end
  end

  it "more hours and dearer parts never lower the total with trouble" do
    60.times do |seed|
      rng = Random.new(5000 + seed)
      price =
        lines(
          needs(rng),
          catalog(rng),
          { "taxes" => [{ "label" => "VAT", "percent" => 20, "on" => %w[labor parts fees] }] }
        )
      tenths = rng.rand(5..40)
      totals = [price.total_with(tenths, 0), price.total_with(tenths + 1, 0), price.total_with(tenths + 1, 500)]
      expect(totals).to eq(totals.sort)
      expect(price.total_with((price.list.first.quantity * 10).round, 0)).to eq(price.total_cents)
    end
  end

  it "a dearer part never sells cheaper, for any brackets a shop may set" do
    60.times do |seed|
      rng = Random.new(9000 + seed)
      limits = Array.new(rng.rand(1..4)) { rng.rand(500..60_000) }.uniq.sort + [nil]
      brackets = limits.map { |limit| { "up_to_cents" => limit, "factor" => rng.rand(1.0..3.0).round(2) } }
      house = NimbleLedger::House::Settings.defaults.with({ "markup" => brackets })
      prices = (0..70_000).step(137).map { |cost| NimbleLedger::Price::Markup.selling_price(cost, house["markup"]) }
      expect(prices).to eq(prices.sort), "seed #{seed}"
      expect(prices.first).to eq(0)
    end
  end

  it "a part nobody sells makes the total incomplete, and the rest is still priced" do
    price = lines({ "A" => 1, "GHOST" => 2 }, catalog(Random.new(1)))
    expect([price.incomplete?, price.missing.map { |row| row["part"] }]).to eq([true, ["GHOST"]])
    expect(price.list.map(&:part)).not_to include("GHOST")
  end
end
