# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Parts::PriceUpdate do
  let(:catalog) do
    {
      "name" => "List",
      "items" => [
        { "part" => "PLG-1", "description" => "Plug", "kind" => "plug", "unit" => "each" },
        { "part" => "KIT-1", "contains" => [{ "part" => "SEA-1", "quantity" => 2 }] }
      ],
      "offers" => [{ "supplier" => "Quay", "part" => "PLG-1", "cost_cents" => 880, "on_hand" => 4, "lead_days" => 1 }],
      "shelf" => [{ "part" => "PLG-1", "quantity" => 2, "cost_cents" => 850 }]
    }
  end

  def update(*rows, exponent: 2, decimal: ".") =
    described_class.new(
      catalog,
      rows.each_with_index.map { |row, i| { "line" => i + 2 }.merge(row) },
      exponent: exponent,
      decimal: decimal
    )

  # What each cell is taken for, in the smallest unit; nil for what is refused.
  def taken(cells, **rest)
    cells.to_h do |cell|
      made = update(offer("NEW", "Quay", cell), **rest)
      [cell, made.catalog["offers"].find { |row| row["part"] == "NEW" }&.fetch("cost_cents")]
    end
  end

  it "reads amounts as the shop writes them, and nothing as another amount" do
    english = { "1,250.00" => 125_000, "1250,5" => 125_050, "1 250.5" => 125_050, "1.250" => nil, "12,50" => 1250 }
    expect(taken(english.keys)).to eq(english)
    german = { "1.234,56" => 123_456, "1234,56" => 123_456, "12.50" => 1250, "1.250" => 125_000, "1,250.00" => nil }
    expect(taken(german.keys, decimal: ",")).to eq(german)
    expect(taken(["1’250.50", "1\u00a0250.50"])).to eq("1’250.50" => 125_050, "1\u00a0250.50" => 125_050)
    thousandths = { "1.250" => 1_250_000, "1,250" => 1250, "12.5" => nil }
    expect(taken(thousandths.keys, exponent: 3, decimal: ",")).to eq(thousandths)
  end

  def offer(part, supplier, cost, **rest) =
    { "part" => part, "supplier" => supplier, "cost" => cost }.merge(rest.transform_keys(&:to_s))

  it "says of each row what it changes, old and new, and leaves what no row names" do
    found =
      update(
        offer("PLG-1", "Quay", "9.20", on_hand: "4"),
        offer("PLG-1", "Harbor", "8,95", lead_days: "2"),
        offer("COI-9", "Quay", "41.00", description: "Coil")
      )
    expect(found.rows.map { |row| row.values_at("line", "part", "status", "changes") }).to eq(
      [
        [2, "PLG-1", "changed", ["cost at Quay 8.80 → 9.20"]],
        [3, "PLG-1", "changed", ["cost at Harbor none → 8.95", "lead days at Harbor none → 2"]],
        [4, "COI-9", "added", []]
      ]
    )
    expect(found.catalog["shelf"]).to eq(catalog["shelf"])
    expect(found.catalog["items"].map { |item| item["part"] }).to eq(%w[PLG-1 KIT-1 COI-9])
    built = NimbleLedger::Parts::Catalog.build(found.catalog)
    expect([built.cost("PLG-1"), built.cost("COI-9"), built.item("KIT-1")["contains"].size]).to eq([895, 4100, 1])
  end

  it "changes nothing for an empty cell, and says so of a row that is the same" do
    found =
      update(
        offer("PLG-1", "Quay", "8.80", description: "", on_hand: ""),
        { "part" => "PLG-1", "supplier" => "Quay", "cost" => "", "on_hand" => "7" }
      )
    expect(found.rows.map { |row| row["status"] }).to eq(%w[same rejected])
    expect(found.changes?).to be(false)
    expect(found.catalog).to eq(catalog)
    expect(update({ "part" => "PLG-1", "supplier" => "Quay", "on_hand" => "7" }).catalog["offers"][0]).to include(
      "cost_cents" => 880,
      "on_hand" => 7
    )
  end

  REJECTED = {
    { "supplier" => "Quay", "cost" => "1.00" } => /names no part/,
    { "part" => "A", "cost" => "1.00" } => /no supplier/,
    { "part" => "A", "supplier" => "Quay" } => /no cost/,
    { "part" => "A", "supplier" => "Quay", "cost" => "ten" } => /no amount like 12.50/,
    { "part" => "A", "supplier" => "Quay", "cost" => "-1.00" } => /no amount/,
    { "part" => "A", "supplier" => "Quay", "cost" => "1.005" } => /no amount/,
    { "part" => "A", "supplier" => "Quay", "cost" => "1,23,4.00" } => /no amount/,
    { "part" => "A", "supplier" => "Quay", "cost" => "none" } => /no cost/,
    { "part" => "A", "description" => "a\u0000b" } => /control character/,
    { "part" => "A", "supplier" => "Quay", "cost" => "2000000.00" } => /no amount/,
    { "part" => "A", "supplier" => "Quay", "cost" => "1.00", "on_hand" => "2.5" } => /whole number/,
    { "part" => "A", "supplier" => "Quay", "cost" => "1.00", "lead_days" => "9999" } => /lead_days/,
    { "part" => "A", "on_hand" => "2" } => /on_hand but no supplier/,
    { "part" => "x" * 61 } => /longer than 60/,
    { "part" => "A", "list" => "x" } => /list x/
  }.freeze

  REJECTED.each do |row, reason|
    it "rejects #{row.to_s[0, 70]} with what to do, and keeps nothing of it" do
      found = update(row)
      expect(found.rows[0]).to include("status" => "rejected", "reason" => reason)
      expect(found.catalog).to eq(catalog)
    end
  end

  it "rejects the second row of one part and supplier, naming the first" do
    found = update(offer("PLG-1", "Quay", "9.00"), offer("PLG-1", "Quay", "9.50"))
    expect(found.rows[1]["reason"]).to include("line 2 again")
    expect(found.catalog["offers"][0]["cost_cents"]).to eq(900)
  end

  it "takes an offer or a list price away where the cell says none, and the part stays" do
    listed = update({ "part" => "PLG-1", "list" => "15.00" })
    gone = described_class.new(listed.catalog, [offer("PLG-1", "Quay", "none", list: "none").merge("line" => 2)])
    expect(gone.rows[0]["changes"]).to eq(["list 15.00 → none", "cost at Quay 8.80 → none"])
    expect(gone.catalog).to eq(catalog.merge("offers" => []))
    expect(described_class.new(gone.catalog, [offer("PLG-1", "Quay", "9.00")]).catalog["offers"]).to eq(
      [{ "supplier" => "Quay", "part" => "PLG-1", "cost_cents" => 900 }]
    )
  end

  it "reads thousands as they are written" do
    expect(
      %w[1,234.50 1234,50 12,345].map { |cost| update(offer("PLG-1", "Quay", cost)).catalog["offers"][0]["cost_cents"] }
    ).to eq([123_450, 123_450, 1_234_500])
  end

  it "counts money by the currency's decimals" do
    expect(update(offer("PLG-1", "Quay", "1200"), exponent: 0).catalog["offers"][0]["cost_cents"]).to eq(1200)
    expect(update(offer("PLG-1", "Quay", "1200.5"), exponent: 0).rows[0]["status"]).to eq("rejected")
    expect(update(offer("PLG-1", "Quay", "1.5"), exponent: 3).catalog["offers"][0]["cost_cents"]).to eq(1500)
  end

  it "takes any list it has made once for the same, twice" do
    rng = Random.new(7)
    rows =
      Array.new(80) do |i|
        offer(
          "P-#{rng.rand(40)}",
          "S#{rng.rand(3)}",
          format("%.2f", rng.rand(90.0)),
          on_hand: rng.rand(9).to_s,
          description: "Part #{i}"
        )
      end
    first = update(*rows)
    kept = first.rows.reject { |row| row["status"] == "rejected" }.map { |row| rows[row["line"] - 2] }
    again =
      described_class.new(first.catalog, kept.reverse.uniq { |row| row["part"] }.map { |row| row.merge("line" => 1) })
    expect(again.rows.map { |row| row["status"] }.uniq).to eq(["same"])
    expect(again.catalog).to eq(first.catalog)
  end

  it "refuses more rows than anybody types, at once" do
    rows = Array.new(20_001) { { "part" => "A" } }
    expect { described_class.new(catalog, rows) }.to raise_error(NimbleLedger::InvalidInput, /at most 20000/)
  end
end
