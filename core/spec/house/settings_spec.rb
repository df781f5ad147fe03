# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::House::Settings do
  let(:defaults) { described_class.defaults }

  it "ships defaults that fit their own shapes" do
    expect(described_class::SHAPE.faults(defaults.to_h)).to be_empty
    expect(defaults["rate_cents"]).to eq(14_500)
    expect { defaults["no_such_setting"] }.to raise_error(KeyError)
  end

  it "overrides a few and keeps the rest" do
    changed = defaults.with({ "rate_cents" => 9_900 })
    expect([changed["rate_cents"], changed["quantile"]]).to eq([9_900, 0.65])
    expect(defaults["rate_cents"]).to eq(14_500)
  end

  {
    "/house/rate_cents" => {
      "rate_cents" => "145"
    },
    "/house/quantile" => {
      "quantile" => 1.2
    },
    "/house/currency" => {
      "currency" => "dollars"
    },
    "/house/markup" => {
      "markup" => [{ "up_to_cents" => 500, "factor" => 2 }]
    },
    "/house/taxes/0/percent" => {
      "taxes" => [{ "label" => "x", "percent" => 101, "on" => [] }]
    },
    "/house/colour" => {
      "colour" => 1
    },
    "/house/opening_hours/mon/0" => {
      "opening_hours" => {
        "mon" => %w[8 17:00]
      }
    }
  }.each do |path, overrides|
    it "refuses #{overrides.keys.first} at #{path}" do
      expect { defaults.with(overrides) }.to raise_error(NimbleLedger::InvalidInput) { |e|
        expect(e.details.map { |d| d["path"] }).to include(path)
      }
    end
  end

  it "refuses brackets that do not climb, so that a dearer part never sells cheaper" do
    jumbled = [
      { "up_to_cents" => 900, "factor" => 2 },
      { "up_to_cents" => 500, "factor" => 1.5 },
      { "up_to_cents" => nil, "factor" => 1.2 }
    ]
    expect { defaults.with({ "markup" => jumbled }) }.to raise_error(NimbleLedger::InvalidInput, /brackets/)
  end

  it "lets the profile override the house, and one job override the profile" do
    hash =
      Engines.profile_of("SK18").merge("house_overrides" => { "order_of_work" => "all-out", "rate_cents" => 10_000 })
    request =
      NimbleLedger::Estimate::Request.build(
        Engines.request(["plug-1"], engine: hash, house: { "rate_cents" => 12_000 })
      )
    expect([request.car.house["order_of_work"], request.car.house["rate_cents"]]).to eq(["all-out", 12_000])
  end
end
