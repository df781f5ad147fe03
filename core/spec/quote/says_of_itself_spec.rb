# frozen_string_literal: true

require_relative "../spec_helper"

# What the quote says of itself (model.md section 5).
RSpec.describe NimbleLedger::Quote::StartingSoak do
  OLD_CAR = { "odometer_km" => 200_000, "plugs_changed_km" => 0, "plugs_changed_years" => 14 }.freeze
  HOURS = NimbleLedger::House::Settings.defaults["opening_hours"]

  def sheet(code, cylinders, soak: nil, history: OLD_CAR, **rest)
    engine = Engines.engine(code)
    scope = { "cylinders" => cylinders, "works" => ["plug"], "soak" => soak }.compact
    visit =
      NimbleLedger::Quote::Sheet::Visit.new(
        NimbleLedger::Slots::ReadyTime::Moment.parse("2026-11-24T08:00"),
        "cold",
        nil
      )
    NimbleLedger::Quote::Sheet.new(
      NimbleLedger::Quote::Selection.new(engine, scope),
      Engines.request([], equipment: Engines::EQUIPMENT, history: history, **rest).except("targets"),
      engine: engine,
      catalog: Engines.catalog,
      visit: visit
    )
  end

  it "starts a break-prone engine with the recommended soak, and says that nobody chose it" do
    page = sheet("YUX8", [8]).to_h
    expect(page["soak"]).to eq("in_force" => page["trouble"]["recommended_soak"], "chosen" => false)
    expect(page["soak"]["in_force"]).not_to eq("none")
    expect(sheet("YUX8", [8]).answer.plan.soak).to eq(page["soak"]["in_force"])
  end

  it "leaves none where the advisor said none, where plugs rarely break, and below the house's bound" do
    expect(sheet("YUX8", [8], soak: "none").to_h["soak"]).to eq("in_force" => "none", "chosen" => true)
    expect(sheet("SK18", [1]).to_h["soak"]["in_force"]).to eq("none")
    expect(sheet("YUX8", [8], house: { "soak_above" => 0.9 }).to_h["soak"]["in_force"]).to eq("none")
  end

  it "says both shares: without removal trouble, and all told" do
    page = sheet("YUX8", [2, 4, 6, 8], soak: "none").to_h
    expect(page["quoted_share"]).to be_between(0.65, 0.85)
    all_told = page["trouble"]["all_told_share"]
    expect(all_told).to be < page["quoted_share"] * 0.6
    # what is left when trouble is counted in: at least the jobs without any, at most those and the short troubles
    expect(all_told).to be >= page["quoted_share"] * page["trouble"]["no_trouble"]
  end

  it "gives the likely total where trouble is likely, ranked by price up to one half" do
    rusty = sheet("YUX8", [1, 2, 3, 4, 5, 6, 7, 8], soak: "none", condition: { "corrosion" => "heavy" })
    trouble = rusty.trouble
    page = rusty.to_h["trouble"]
    expect(page["no_trouble"]).to be < 0.5
    prices = trouble.space.likely.map { |outcome| [trouble.allowance.price_of(outcome), outcome.chance] }.sort
    sum = 0.0
    expect(page["likely_cents"]).to eq(prices.find { |_cents, chance| (sum += chance) >= 0.5 }.first)
    expect(page["likely_cents"]).to be > trouble.price.total_cents
    expect(
      sheet("SK18", [1], history: OLD_CAR.merge("plugs_changed_km" => 190_000, "plugs_changed_years" => 1)).to_h[
        "trouble"
      ][
        "likely_cents"
      ]
    ).to be_nil
  end

  it "names the parts of mishaps nobody has a price for" do
    bare =
      NimbleLedger::Parts::Catalog.build(
        { "offers" => [{ "supplier" => "S", "part" => "PLG-1", "cost_cents" => 100 }] }
      )
    engine =
      profile(
        steps: [
          step("m", mishaps: [{ "what" => "clip lost", "chance" => 0.1, "minutes" => [1, 2, 3], "parts" => ["CLP-1"] }])
        ],
        targets: [target("p", work: "plug", through: ["m"])],
        plug: {
          "part" => "PLG-1",
          "construction" => "one-piece"
        }
      )
    answer =
      NimbleLedger::Estimate::Answer.new(
        NimbleLedger::Estimate::Request.build(
          Engines.request(["p"], engine: engine, history: OLD_CAR),
          documents: NimbleLedger::Documents.new(catalog: bare)
        )
      )
    expect(NimbleLedger::Risk::Trouble.for(answer).unpriced).to eq(["CLP-1"])
  end
end
