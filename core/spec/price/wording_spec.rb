# frozen_string_literal: true

require_relative "../spec_helper"

# The price as model.md sections 6 and 7 word it, each case worked by hand.
RSpec.describe NimbleLedger::Price::Lines do
  # One target that needs these parts and takes this long; house tasks off, hours at the median without spread.
  def price(parts: { "A" => 1 }, minutes: 60, catalog: { "A" => 1_000 }, items: [], house: {}, work: "other", **rest)
    offers = catalog.map { |part, cents| { "supplier" => "S", "part" => part, "cost_cents" => cents } }
    own = { parts: parts.map { |part, quantity| { "part" => part, "quantity" => quantity } }, label: "work" }
    engine =
      profile(
        steps: [],
        targets: [target("t", work: work, minutes: [minutes] * 3, **(parts.empty? ? { label: "work" } : own))]
      )
    quiet = {
      "house_tasks" => NimbleLedger::House::Settings.defaults["house_tasks"].transform_values { 0 },
      "common_variation" => 0,
      "rate_cents" => 10_000,
      "supplies_percent" => 0
    }
    request =
      Engines.request(
        ["t"],
        engine: engine,
        catalog: {
          "items" => items,
          "offers" => offers
        },
        house: quiet.merge(house),
        **rest
      )
    NimbleLedger::Estimate::Answer.new(NimbleLedger::Estimate::Request.build(request)).price
  end

  def cents(price, kind) = price.list.select { |line| line.kind == kind }.map(&:cents)

  it "takes two contained rates from one net: net is gross over one plus both" do
    taxes = [
      { "label" => "State", "percent" => 5, "on" => %w[labor parts fees] },
      { "label" => "Town", "percent" => 2, "on" => %w[labor] }
    ]
    both = price(house: { "tax_inclusive" => true, "taxes" => taxes })
    # labor 100.00 holds 7 %: net 93.4579; the part sells at 20.00 and holds 5 %: net 19.0476
    # state: 5 % of 112.5056 = 5.63; town: 2 % of 93.4579 = 1.87
    expect([both.total_cents, both.included_tax_cents]).to eq([12_000, 563 + 187])
    expect(cents(both, "tax")).to be_empty
  end

  it "takes supplies from the labor line as it was rounded" do
    # 0.7 h at 99.93 is 69.951, billed 69.95; 10 % of that is 6.995, so 7.00 (of 69.951 it would be 6.9951)
    odd = price(minutes: 42, house: { "rate_cents" => 9_993, "supplies_percent" => 10, "supplies_cap_cents" => 5_000 })
    expect([cents(odd, "labor"), cents(odd, "supplies")]).to eq([[6_995], [700]])
  end

  it "spreads a discount over every line, ties to the earlier one, and takes no more than there is" do
    taxes = [{ "label" => "Tax", "percent" => 10, "on" => %w[parts] }]
    half = price(minutes: 12, house: { "taxes" => taxes, "minimum_hours" => 0 }, discount: { "cents" => 1 })
    # labor 20.00 and part 20.00: the one cent goes to labor, so the part is taxed whole
    expect([cents(half, "discount"), cents(half, "tax")]).to eq([[-1], [200]])
    expect(price(house: { "taxes" => taxes }, discount: { "cents" => 999_999 }).total_cents).to eq(0)
  end

  describe "finding out" do
    def sold(house) = NimbleLedger::Price::Diagnosis.new(0.8, house: NimbleLedger::House::Settings.defaults.with(house))

    it "costs nothing beside the repair where the house credits it, and is owed with its tax without" do
      tax = { "taxes" => [{ "label" => "Tax", "percent" => 10, "on" => %w[labor] }] }
      plain = price(house: tax)
      with = price(house: tax, diagnosis: { "hours" => 0.8 })
      expect(with.total_cents).to eq(plain.total_cents)
      # 0.8 hours at 145.00
      expect(cents(with, "diagnosis")).to eq([11_600, -11_600])
      expect(sold(tax).owed_cents).to eq(12_760)
      expect(with.total_with(10, 0)).to eq(plain.total_with(10, 0))
    end

    it "is a taxed line of the quote where the house does not" do
      own = { "diagnosis_credited" => false, "taxes" => [{ "label" => "Tax", "percent" => 10, "on" => %w[labor] }] }
      plain = price(house: own)
      with = price(house: own, diagnosis: { "hours" => 0.8 })
      expect(with.total_cents - plain.total_cents).to eq(12_760)
      expect(with.total_with(10, 0) - plain.total_with(10, 0)).to eq(12_760)
      expect(with.list.sum(&:cents)).to eq(with.total_cents)
    end
  end

  it "an outcome takes the discount again on its own lines" do
    cut = price(discount: { "cents" => 12_500 })
    expect([cut.total_cents, cut.total_with(10, 3_000)]).to eq([0, 2_500])
  end

  it "raises the least hours to the next increment" do
    few = price(minutes: 6, house: { "minimum_hours" => 0.5, "increment_hours" => 0.3 })
    expect(few.list.first.quantity).to eq(0.6)
    expect(price(minutes: 6, house: { "minimum_hours" => 0.55 }).list.first.quantity).to eq(0.6)
  end

  describe "a kit" do
    kit = {
      "part" => "KIT",
      "contains" => [
        { "part" => "A", "quantity" => 2 },
        { "part" => "B", "quantity" => 1 },
        { "part" => "C", "quantity" => 3 }
      ]
    }

    it "sold as its used parts shares its price by their standing costs (rules 2)" do
      used =
        price(
          rules: 2,
          parts: {
            "A" => 2,
            "B" => 1
          },
          catalog: {
            "A" => 1_000,
            "B" => 2_000,
            "KIT" => 1_500
          },
          items: [kit],
          house: {
            "kit_rule" => "used-parts"
          }
        )
      # the kit sells at 30.00; two of A stand at 20.00 and one B at 20.00: half each
      expect(used.list.select(&:part).map { |line| [line.part, line.quantity, line.cents] }).to eq(
        [["A", 2, 1_500], ["B", 1, 1_500]]
      )
      expect(used.leftovers).to eq([{ "part" => "C", "quantity" => 3 }])
    end

    it "shares by pieces where a standing cost is unknown (rules 2)" do
      used =
        price(
          rules: 2,
          parts: {
            "A" => 2,
            "B" => 1
          },
          catalog: {
            "A" => 1_000,
            "KIT" => 1_500
          },
          items: [kit],
          house: {
            "kit_rule" => "used-parts"
          }
        )
      expect(used.list.select(&:part).map(&:cents)).to eq([2_000, 1_000])
    end

    it "sells each used part like a single (rules 3)" do
      catalog = { "A" => 1_000, "B" => 2_000, "KIT" => 1_500 }
      used = price(parts: { "A" => 2, "B" => 1 }, catalog: catalog, items: [kit], house: { "kit_rule" => "used-parts" })
      # costs of 10.00 and 20.00 sell at the double each, whatever the kit cost
      expect(used.list.select(&:part).map { |line| [line.part, line.quantity, line.cents] }).to eq(
        [["A", 2, 4_000], ["B", 1, 4_000]]
      )
      expect(used.leftovers).to eq([]) # nothing was weighed: what is bought is the purchase's business
    end

    it "sells whole otherwise, and is left where singles cost less" do
      expect(
        price(
          parts: {
            "A" => 2,
            "B" => 1
          },
          catalog: {
            "A" => 1_000,
            "B" => 2_000,
            "KIT" => 1_500
          },
          items: [kit]
        ).list.filter_map(&:part)
      ).to eq(["KIT"])
      expect(
        price(parts: { "A" => 1 }, catalog: { "A" => 1_000, "KIT" => 1_500 }, items: [kit]).list.filter_map(&:part)
      ).to eq(["A"])
    end
  end

  %w[wire boot cap-and-rotor tube-seal cover-gasket].each do |work|
    it "#{work} work without a part of its own makes the total incomplete, never free" do
      expect(price(parts: {}, work: work).missing).to eq([{ "part" => nil, "because" => ["t"] }])
    end
  end
end
