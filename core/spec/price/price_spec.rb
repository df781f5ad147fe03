# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Price do
  let(:house) { NimbleLedger::House::Settings.defaults }
  let(:markup) { NimbleLedger::Price::Markup }

  it "marks a part up by marginal brackets, worked by hand" do
    brackets = house["markup"]
    expect(markup.selling_price(1_000, brackets)).to eq(2_000)
    expect(markup.selling_price(2_000, brackets)).to eq(4_000)
    expect(markup.selling_price(5_480, brackets)).to eq(4_000 + (3_480 * 1.6))
    expect(markup.selling_price(50_000, brackets)).to eq(4_000 + 12_800 + 42_000 + 12_500)
    expect(markup.selling_price(0, brackets)).to eq(0)
  end

  it "never sells a dearer part cheaper, and never below cost under a list price" do
    prices = (0..60_000).step(7).map { |cost| markup.selling_price(cost, house["markup"]) }
    expect(prices).to eq(prices.sort)
    expect(markup.selling_price(5_000, house["markup"], cap_cents: 6_000)).to eq(6_000)
    expect(markup.selling_price(5_000, house["markup"], cap_cents: 4_000)).to eq(5_000)
  end

  it "rounds half up, and spreads an amount without losing a cent" do
    expect(NimbleLedger::Money.round(Rational(5, 2))).to eq(3)
    expect(NimbleLedger::Money.spread(100, [1, 1, 1])).to eq([34, 33, 33])
    500.times do |seed|
      rng = Random.new(seed)
      weights = Array.new(rng.rand(1..9)) { rng.rand(1..5_000) }
      amount = rng.rand(0..20_000)
      expect(NimbleLedger::Money.spread(amount, weights).sum).to eq(amount)
    end
  end

  def answer(targets, **rest) = Engines.answer("JIV6", targets, catalog: Engines.catalog, **rest)

  describe "of what is under the shop's warranty" do
    let(:history) { { "odometer_km" => 180_000, "plugs_changed_km" => 60_000, "plugs_changed_years" => 9 } }

    def job(targets, owed, **rest)
      hash = Engines.request(targets, equipment: Engines::EQUIPMENT, history: history, warranty: owed, **rest)
      documents = NimbleLedger::Documents.new(engine: Engines.engine("JIV6"), catalog: Engines.catalog)
      NimbleLedger::Estimate::Request.build(hash, documents: documents).job
    end

    it "is what the rest alone would cost, with a line of nothing for each thing owed" do
      both = job(%w[plug-5 coil-5], %w[coil-5])
      alone = job(%w[plug-5], [])
      lines = both.price.list
      expect(lines.select { |line| line.kind == "warranty" }.map { |line| [line.because, line.cents] }).to eq(
        [[%w[coil-5], 0]]
      )
      expect(lines.reject { |line| line.kind == "warranty" }).to eq(alone.price.list)
      expect(both.plan.targets.map(&:id)).to eq(%w[plug-5 coil-5])
      expect(NimbleLedger::Risk::Trouble.for(both).allowance.not_above_cents).to eq(
        NimbleLedger::Risk::Trouble.for(alone).allowance.not_above_cents
      )
    end

    it "is nothing at all where everything is owed: no fee, no supplies, no trouble to pay for" do
      fees = { "fees" => [{ "label" => "Disposal", "cents" => 500 }] }
      all = job(%w[plug-5 coil-5], %w[plug-5 coil-5], house: fees)
      allowance = NimbleLedger::Risk::Trouble.for(all).allowance
      expect([all.price.total_cents, allowance.not_above_cents, allowance.rows]).to eq([0, 0, []])
      expect(all.price.list.map(&:kind).uniq - ["tax"]).to eq(["warranty"])
      expect(all.quoted_tenths).to be_positive
    end

    it "never costs more than without a warranty" do
      targets = Engines.targets("JIV6", %w[plug coil], [1, 2, 3, 4, 5, 6])
      full = job(targets, []).price.total_cents
      30.times do |seed|
        owed = targets.sample(Random.new(seed).rand(1..targets.size), random: Random.new(seed))
        expect(job(targets, owed).price.total_cents).to be <= full
      end
    end
  end

  it "prices the rear coil and plug line by line, worked by hand" do
    price =
      answer(%w[plug-5 coil-5], house: { "taxes" => [{ "label" => "Tax", "percent" => 7.5, "on" => ["parts"] }] }).to_h[
        "price"
      ]
    cents = price["lines"].to_h { |line| [line["part"] || line["kind"], line["cents"]] }
    expect(cents["labor"]).to eq((price["lines"].first["quantity"] * 14_500).round)
    expect(cents).to include("PLG-74865" => 2_620, "COI-80409" => 9_568, "SEA-70833" => 890, "SEA-46375" => 9_240)
    expect(cents["supplies"]).to eq([(cents["labor"] * 0.06).round, 3_500].min)
    expect(cents["tax"]).to eq(((2_620 + 9_568 + 890 + 9_240) * 0.075).round)
    expect(price["total_cents"]).to eq(price["lines"].sum { |line| line["cents"] })
  end

  it "takes tax on what is left after a discount spread over its lines" do
    taxes = [{ "label" => "VAT", "percent" => 20, "on" => %w[labor parts fees] }]
    plain = answer(["plug-2"], house: { "taxes" => taxes }).price
    cut = answer(["plug-2"], house: { "taxes" => taxes }, discount: { "cents" => 1_000 }).price
    net = plain.list.reject { |line| line.kind == "tax" }.sum(&:cents)
    expect(cut.total_cents).to eq(((net - 1_000) * 1.2).round)
  end

  it "shows contained tax without adding it when prices include tax" do
    taxes = [{ "label" => "VAT", "percent" => 20, "on" => %w[labor parts fees] }]
    price = answer(["plug-2"], house: { "taxes" => taxes, "tax_inclusive" => true }).price
    expect(price.list.map(&:kind)).not_to include("tax")
    expect(price.included_tax_cents).to be_within(1).of(price.total_cents / 6.0)
  end

  it "calls a total incomplete when a part has no price, never zero" do
    bare = NimbleLedger::Parts::Catalog.build({ "items" => [] })
    price = Engines.answer("JIV6", %w[plug-2], catalog: bare).to_h["price"]
    expect(price).to include("incomplete" => true)
    expect(price["missing"].map { |row| row["part"] }).to eq(["PLG-74865"])
    expect(price["total_cents"]).to be > 0
  end

  it "buys the seal kit only where it is cheaper, and says what stays in the box" do
    kit =
      Engines.answer(
        "KUJ6",
        %w[plug-2],
        catalog: Engines.catalog,
        pins: {
          "choices" => {
            "manifold" => "throttle-aside"
          }
        }
      ).to_h[
        "price"
      ]
    expect(kit["lines"].map { |line| line["part"] }).to include("KIT-60130")
    expect(kit["left_over"]).to eq([{ "part" => "SEA-15400", "quantity" => 6 }])
    expect(kit["lines"].map { |line| line["part"] }).not_to include("SEA-21162", "SEA-86744")
  end

  describe NimbleLedger::Price::Diagnosis do
    def used(minutes, hours: 1.0, **house)
      settings = NimbleLedger::House::Settings.defaults.with(house.transform_keys(&:to_s))
      described_class.new(hours, house: settings).used(minutes)
    end

    it "counts what finding out has taken, credits it to the cap and no further, and says when the cap is reached" do
      part = used(36, diagnosis_rate_cents: 12_000, diagnosis_credited: true)
      expect(part.to_a).to eq([0.6, 7_200, false])
      over = used(75, diagnosis_rate_cents: 12_000, diagnosis_credited: true)
      expect(over.to_a).to eq([1.25, 12_000, true])
      expect(used(60, diagnosis_credited: false).to_a.drop(1)).to eq([0, true])
    end
  end
end
