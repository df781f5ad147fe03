# frozen_string_literal: true

require_relative "../spec_helper"

# Work and parts by hand (model.md section 16): in discount, tax and total, never in hours, risk or supplies.
RSpec.describe NimbleLedger::Price::HandLine do
  let(:plain) { Engines.answer("JIV6", %w[coil-5], catalog: Engines.catalog, house: house).to_h }
  let(:house) { { "taxes" => [{ "label" => "Tax", "percent" => 10, "on" => %w[parts] }], "supplies_percent" => 6 } }

  def with(*entered, **rest)
    lines = entered.map { |row| described_class.of(row).to_h }
    Engines.answer("JIV6", %w[coil-5], catalog: Engines.catalog, house: house, lines: lines, **rest).to_h
  end

  def entered(tax_class, quantity, each)
    { "label" => "Wheel bearing", "class" => tax_class, "quantity" => quantity, "each_cents" => each }
  end

  it "is so many hours or pieces at so much each, rounded half up to the cent" do
    expect(described_class.of(entered("labor", 1.5, 14_501)).cents).to eq(21_752)
    expect(described_class.of(entered("parts", 3, 1_250)).to_h).to eq(
      "label" => "Wheel bearing",
      "cents" => 3_750,
      "class" => "parts",
      "quantity" => 3
    )
    expect(described_class.of(entered("fees", 1, 900)).to_h).not_to have_key("quantity")
  end

  it "stands after the parts with its number and what one costs, and is taxed by its class" do
    lines = with(entered("parts", 2, 1_250))["price"]["lines"]
    kinds = lines.map { |line| line["kind"] }
    expect(kinds.index("by-hand")).to be > kinds.rindex("part")
    expect(lines.find { |line| line["kind"] == "by-hand" }.values_at("quantity", "unit_cents", "cents")).to eq(
      [2, 1_250, 2_500]
    )
    totals = ->(answer) { answer["price"]["total_cents"] }
    expect(totals.call(with(entered("parts", 2, 1_250))) - totals.call(plain)).to be_within(1).of(2_750)
    expect(totals.call(with(entered("labor", 2, 1_250))) - totals.call(plain)).to eq(2_500)
  end

  it "changes no hours, no odds and no supplies, and a discount takes from it like from the rest" do
    more = with(entered("labor", 2, 14_500))
    same = %w[plan hours risk parts]
    expect(more.slice(*same)).to eq(plain.slice(*same))
    supplies = ->(answer) { answer["price"]["lines"].find { |line| line["kind"] == "supplies" } }
    expect(supplies.call(more)).to eq(supplies.call(plain))
    all_off = with(entered("labor", 2, 14_500), discount: { "label" => "Ours", "cents" => 10_000_000 })
    expect(all_off["price"]["total_cents"]).to eq(0)
  end

  it "is refused with its place where it is no line" do
    [
      [{ "label" => "x", "cents" => -1, "class" => "labor" }, "/lines/0/cents"],
      [{ "label" => "x", "cents" => 1, "class" => "tips" }, "/lines/0/class"],
      [{ "label" => "x", "cents" => 1, "class" => "labor", "quantity" => 0 }, "/lines/0/quantity"]
    ].each do |row, path|
      expect { Engines.answer("JIV6", %w[coil-5], catalog: Engines.catalog, lines: [row]) }.to raise_error(
        NimbleLedger::InvalidInput
      ) { |error| expect(error.details.map { |detail| detail["path"] }).to eq([path]) }
    end
  end
end
