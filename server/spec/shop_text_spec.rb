# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe NimbleServer::Documents::ShopText do
  def text(locale, currency = "EUR", exponent = 2, **rest) =
    described_class.new(locale: locale, currency: currency, exponent: exponent, **rest)

  it "writes money as the shop does" do
    expect(text("en-US", "USD").full(123_456)).to eq("$1,234.56")
    expect(text("de-DE").full(123_456)).to eq("1.234,56\u00a0€")
    expect(text("de-DE").plain(123_456)).to eq("1.234,56")
    expect(text("en-GB", "GBP").full(-500)).to eq("−£5.00")
    expect(text("ja-JP", "JPY", 0).plain(1_234)).to eq("1,234")
    expect(text("en-US", "USD").plain(5)).to eq("0.05")
  end

  it "writes every amount so that it reads back the same" do
    [0, 5, 99, 100, 123_456, 99_999_999].each do |cents|
      expect(text("de-DE").plain(cents).delete(".").sub(",", "").to_i).to eq(cents)
    end
  end

  it "writes numbers, distances and dates as the shop does" do
    expect([text("de-DE").number(2.5, 1), text("en-US").number(2.5, 1), text("de-DE").number(12)]).to eq(%w[2,5 2.5 12])
    expect(text("de-DE").distance(181_400)).to eq("181.400 km")
    expect(text("en-US", distance_unit: "mi").distance(160_934.4)).to eq("100,000 mi")
    late = Time.utc(2026, 11, 26, 23, 30)
    expect(text("de-DE", time_zone: "Europe/Berlin").date(late)).to eq("27. November 2026")
    expect(text("en-US", time_zone: "America/New_York").date(late)).to eq("November 26, 2026")
  end

  it "says why a past cannot be true in the shop's own distances" do
    doubt = NimbleLedger::Risk::History.doubt(160_934.4, 80_467.2, cylinder: 3)
    expect(text("en-US", distance_unit: "mi").doubt(doubt)).to eq(
      "Plug 3 cannot have been changed at 100,000 mi: the odometer is at 50,000 mi."
    )
    expect(text("de-DE").doubt(doubt)).to include("160.934 km")
  end

  it "knows where decimals begin, and takes the nearest locale there is" do
    expect(%w[en-US de-DE fr-FR de-CH xx-YY].map { |name| described_class.decimal_mark(name) }).to eq(%w[. , , . .])
  end
end
