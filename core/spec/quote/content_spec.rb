# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Quote::Content do
  let(:engine) { Engines.engine("JIV6") }
  let(:start) { described_class.start }

  def content(hash = start, **vehicle) =
    described_class.new(hash, engine: engine, vehicle: vehicle.transform_keys(&:to_s))

  it "takes what is known of the vehicle, and today's word over it" do
    known = content(odometer_km: 90_000, plugs_changed_km: 30_000, plugs_changed_years: 4, compound_used: true)
    expect(known.history).to eq(
      "odometer_km" => 90_000,
      "plugs_changed_km" => 30_000,
      "plugs_changed_years" => 4,
      "compound_used" => true
    )
    expect(known.assumed).to be_empty
    told =
      content(
        start.merge("history" => { "odometer_km" => 95_000, "compound_used" => false }),
        odometer_km: 90_000,
        compound_used: true
      )
    expect(told.history).to include("odometer_km" => 95_000, "compound_used" => false)
  end

  it "assumes the careful thing about the unknown, and says so" do
    unknown = content(age_years: 9)
    expect(unknown.history).to eq(
      "odometer_km" => 135_000,
      "plugs_changed_km" => 0,
      "plugs_changed_years" => 9,
      "compound_used" => false
    )
    expect(unknown.assumed).to eq(%w[odometer_km plugs_changed_km plugs_changed_years compound_used])
  end

  it "counts a seized plug as rusted in, oil as no hold, and names the wells that ask for a seal" do
    told = content(start.merge("condition" => { "wells" => { "1" => "seized", "3" => "oil", "5" => "wet" } }))
    expect(told.condition["wells"]).to eq("1" => "rusted", "3" => "dry", "5" => "wet")
    expect(told.oily_wells).to eq([3])
  end

  it "takes an odometer nobody read to stand at least where plugs were changed" do
    expect(content(plugs_changed_km: 300_000).history).to include("odometer_km" => 300_000)
    expect(content("cylinders" => { "3" => { "plugs_changed_km" => 320_000 } }).history).to include(
      "odometer_km" => 320_000
    )
    expect(content(odometer_km: 250_000, plugs_changed_km: 300_000).history).to include("odometer_km" => 250_000)
  end

  it "derives brittle connectors from age, and lets the advisor decide otherwise" do
    expect(content(age_years: 12).condition["brittle"]).to be(false)
    expect(content(age_years: 13).condition["brittle"]).to be(true)
    expect(content(start.merge("condition" => { "brittle" => false }), age_years: 20).condition["brittle"]).to be(false)
    expect(content(corrosion: "heavy").condition["corrosion"]).to eq("heavy")
  end

  {
    "a cylinder the engine lacks" => [{ "cylinders" => [9], "works" => ["plug"] }, "/content/scopes/0/cylinders/0"],
    "an extra the engine lacks" => [
      { "cylinders" => [], "works" => [], "extras" => ["ghost"] },
      "/content/scopes/0/extras/0"
    ],
    "work that is no work" => [{ "cylinders" => [], "works" => ["wash"] }, "/content/scopes/0/works/0"],
    "a cylinder twice" => [{ "cylinders" => [1, 1], "works" => [] }, "/content/scopes/0/cylinders/1"]
  }.each do |name, (scope, path)|
    it "refuses #{name} with its path" do
      expect { content(start.merge("scopes" => [scope])) }.to raise_error(NimbleLedger::InvalidInput) { |e|
        expect(e.details.first["path"]).to eq(path)
      }
    end
  end

  it "refuses a drop-off on a day that does not exist" do
    expect { content(start.merge("drop_off" => "2026-02-31T09:00")).drop_off }.to raise_error(
      NimbleLedger::InvalidInput,
      /no such day/
    )
    expect { content(start.merge("drop_off" => "soon")) }.to raise_error(NimbleLedger::InvalidInput)
  end

  it "turns cylinders, work and extras into targets, in file order" do
    selection =
      NimbleLedger::Quote::Selection.new(
        engine,
        { "cylinders" => [5, 1], "works" => %w[coil plug], "extras" => ["throttle-clean"] }
      )
    expect(selection.targets.map(&:id)).to eq(%w[plug-1 plug-5 coil-1 coil-5 throttle-clean])
    tube = NimbleLedger::Quote::Selection.new(engine, { "cylinders" => [3], "works" => ["tube-seal"] })
    expect(tube.targets.map(&:id)).to eq(["seals-rear"])
  end

  it "names a scope in the trade's words" do
    words = NimbleLedger::Quote::Words
    expect(words.work_on(%w[plug coil], [5])).to eq("Plug and coil 5")
    expect(words.work_on(%w[plug], [3, 1])).to eq("Plugs 1 and 3")
    expect(words.work_on(%w[plug], [4, 2, 3, 1])).to eq("Plugs 1 to 4")
    expect(words.work_on(%w[tube-seal], [1, 3, 5])).to eq("Tube seals 1, 3 and 5")
  end

  it "keeps the figures of an impossible job out, and says which equipment would open it" do
    hash = Engines.profile_of("SK18")
    hash["steps"][0]["needs"] = ["cover-puller"]
    built = NimbleLedger::Profile::Engine.build(hash)
    selection = NimbleLedger::Quote::Selection.new(built, { "cylinders" => [1], "works" => ["plug"] })
    sheet = NimbleLedger::Quote::Sheet.new(selection, Engines.request([]).except("targets"), engine: built).to_h
    expect(sheet["problem"]["message"]).to include("cover-puller")
    expect(sheet).not_to have_key("estimate")
    expect(sheet["reach"]["cylinders"].map { |c| c["hours"] }).to all(be_nil)
  end

  describe "hours and discount set by hand" do
    let(:hours) { { "by_hours" => -0.3, "reason" => "cowl is off already", "targets" => %w[coil-5 plug-5] } }

    def scoped(cylinders, **rest) =
      content(
        start.merge(
          "scopes" => [{ "cylinders" => cylinders, "works" => %w[plug coil] }.merge(rest.transform_keys(&:to_s))]
        )
      )

    it "go into the request of the scope they were set for" do
      request = scoped([5], hours: hours, discount: { "cents" => 2_000, "label" => "Goodwill" }).request(0)
      expect(request).to include(
        "override" => {
          "by_hours" => -0.3,
          "reason" => "cowl is off already"
        },
        "discount" => {
          "cents" => 2_000,
          "label" => "Goodwill"
        }
      )
      expect(scoped([5]).request(0).keys).not_to include("override", "discount")
    end

    it "are set aside, not lost, while the scope holds other work" do
      other = scoped([3, 5], hours: hours)
      expect(other.request(0).keys).not_to include("override")
      expect(other.selection(0).set_aside).to eq("by_hours" => -0.3, "reason" => "cowl is off already")
      expect(scoped([5], hours: hours).selection(0).set_aside).to be_nil
      guide = { "hours" => 2.2, "targets" => hours["targets"] }
      expect(
        [scoped([5], reference: guide), scoped([3], reference: guide)].map do |content|
          content.selection(0).reference_hours
        end
      ).to eq([2.2, nil])
    end

    it "go when the engine's new revision has no such work, and that is said" do
      scope = { "cylinders" => [5], "works" => ["plug"], "hours" => hours.merge("targets" => ["gone"]) }
      kept, dropped = described_class.fit(start.merge("scopes" => [scope]), engine)
      expect(kept["scopes"].first.keys).not_to include("hours")
      expect(dropped).to eq(["the hours set by hand"])
    end
  end

  it "takes the age at which connectors turn brittle from the house" do
    strict = NimbleLedger::House::Settings.defaults.with({ "brittle_age_years" => 5 })
    expect(
      described_class.new(start, engine: engine, vehicle: { "age_years" => 7 }, house: strict).condition["brittle"]
    ).to be(true)
    expect(content(age_years: 7).condition["brittle"]).to be(false)
  end

  it "takes each cylinder's past from the car, then from the quote, which may take the car's word again" do
    car = {
      "odometer_km" => 90_000,
      "plugs_changed_km" => 0,
      "plugs_changed_years" => 6,
      "fitted" => {
        "construction" => "multi-piece",
        "interval_km" => 60_000
      },
      "cylinders" => {
        "3" => {
          "plugs_changed_years" => 2
        },
        "5" => {
          "plugs_changed_years" => 1
        },
        "9" => {
          "plugs_changed_years" => 1
        }
      },
      "variants" => {
        "tray" => "no",
        "roof" => "x"
      }
    }
    history = { "cylinders" => { "3" => { "compound_used" => true }, "5" => {} } }
    content =
      NimbleLedger::Quote::Content.new(
        NimbleLedger::Quote::Content.start.merge("history" => history),
        engine: Engines.engine("JIV6"),
        vehicle: car
      )
    expect(content.history["cylinders"]).to eq("3" => { "plugs_changed_years" => 2, "compound_used" => true })
    expect([content.history["fitted"], content.variants]).to eq([car["fitted"], { "tray" => "no" }])
  end
end
