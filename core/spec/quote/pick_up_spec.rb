# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Slots::ReadyTime do
  let(:shop) { described_class.from(NimbleLedger::House::Settings.defaults["opening_hours"]) }

  def at(text) = described_class::Moment.parse(text)

  it "lays the work end to end within opening hours" do
    expect(shop.ready(at("2026-11-24T09:00"), 90).to_s).to eq("2026-11-24T10:30")
    expect(shop.ready(at("2026-11-24T06:00"), 60).to_s).to eq("2026-11-24T09:00")
    expect(shop.ready(at("2026-11-24T17:00"), 60).to_s).to eq("2026-11-25T08:30")
    expect(shop.ready(at("2026-11-28T12:00"), 60).to_s).to eq("2026-11-30T08:30")
  end

  it "goes on at the next opening after an overnight soak" do
    expect(shop.ready(at("2026-11-24T09:00"), 120, before_night: 60).to_s).to eq("2026-11-25T09:00")
    expect(shop.ready(at("2026-11-27T16:30"), 120, before_night: 60).to_s).to eq("2026-11-30T09:00")
  end

  it "cools by mass and arrival, and refuses days that do not exist" do
    house = NimbleLedger::House::Settings.defaults
    expect(described_class.cooling(Engines.engine("YUX8"), "hot", house)).to eq(187.5)
    expect(described_class.cooling(Engines.engine("SK18"), "cold", house)).to eq(0)
    expect { at("2026-02-31T09:00") }.to raise_error(NimbleLedger::InvalidInput)
    expect { described_class.new({ "mon" => nil }) }.to raise_error(ArgumentError)
  end
end
