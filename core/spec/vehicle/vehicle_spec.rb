# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Vehicle do
  describe "the maker's number" do
    let(:number) { NimbleLedger::Vehicle::MakerNumber }

    it "checks the ninth figure where the first says that there is a check digit" do
      # seventeen ones: 8+7+6+5+4+3+2+10+0+9+8+7+6+5+4+3+2 = 89, and 89 = 8 x 11 + 1
      expect(number.fault("11111111111111111")).to be_nil
      expect(number.fault("11111111211111111")).to eq("check_digit")
      expect(number.fault("71111111211111111")).to be_nil
    end

    it "knows X for ten, and tells one changed figure wherever it stands" do
      rng = Random.new(7)
      50.times do
        text = Array.new(17) { number::VALUES.keys.sample(random: rng) }.join
        text[0] = "4"
        text[8] = "0"
        text[8] = number.check_digit(text)
        expect(number.fault(text)).to be_nil
        at = ((1..16).to_a - [8]).sample(random: rng)
        other = number::VALUES.keys.reject { |c| number::VALUES[c] == number::VALUES[text[at]] }.sample(random: rng)
        changed = text.dup.tap { |copy| copy[at] = other }
        expect(number.fault(changed)).to eq("check_digit")
      end
    end

    it "is plain capitals, seventeen of them, none that looks like a figure" do
      expect(number.plain(" 4ab-c 1")).to eq("4ABC1")
      expect(number.fault("4ABC1")).to eq("length")
      expect(number.fault("71111111O11111111")).to eq("letters")
    end
  end

  it "owes a part it fitted itself on every cylinder the work serves, until the months or the distance are over" do
    engine = Engines.engine("JIV6")
    fitted = [
      { "work" => "coil", "cylinder" => 5, "on" => Date.new(2026, 3, 12), "km" => 90_000 },
      { "work" => "plug", "cylinder" => 3, "on" => Date.new(2025, 3, 12), "km" => nil }
    ]
    owed = ->(on, km) do
      NimbleLedger::Vehicle::Warranty.owed(
        engine.targets,
        fitted,
        house: NimbleLedger::House::Settings.defaults,
        on: on,
        km: km
      ).map(&:id)
    end
    expect(owed.call(Date.new(2026, 3, 12), 90_000)).to eq(%w[plug-3 coil-5])
    expect(owed.call(Date.new(2026, 3, 13), 110_000)).to eq(%w[coil-5])
    expect(owed.call(Date.new(2026, 3, 13), 110_001)).to eq([])
    expect(owed.call(Date.new(2027, 3, 13), nil)).to eq([])
  end

  it "believes an odometer that rises, and one that falls for a reason" do
    odometer = NimbleLedger::Vehicle::Odometer
    expect(odometer.believable?(100, nil)).to be(true)
    expect(odometer.believable?(100, 100)).to be(true)
    expect(odometer.believable?(99, 100)).to be(false)
    expect(odometer.believable?(99, 100, reason: " ")).to be(false)
    expect(odometer.believable?(99, 100, reason: "another instrument")).to be(true)
  end

  it "ends a warranty by months or distance, whichever is first" do
    house = NimbleLedger::House::Settings.defaults
    warranty = NimbleLedger::Vehicle::Warranty.new(house, fitted_on: Date.new(2026, 3, 31), fitted_km: 150_000)
    expect([warranty.until, warranty.until_km]).to eq([Date.new(2027, 3, 31), 170_000])
    expect(warranty.holds?(on: Date.new(2027, 3, 31), km: 170_000)).to be(true)
    expect(warranty.holds?(on: Date.new(2027, 4, 1), km: 150_001)).to be(false)
    expect(warranty.holds?(on: Date.new(2026, 4, 1), km: 170_001)).to be(false)
    unknown = NimbleLedger::Vehicle::Warranty.new(house, fitted_on: Date.new(2026, 3, 31), fitted_km: nil)
    expect(unknown.holds?(on: Date.new(2027, 1, 1), km: 900_000)).to be(true)
  end

  describe NimbleLedger::Vehicle::Interval do
    # @param plug [Hash] of the profile
    def interval(plug, fitted_km: nil, severe: false, house: {}, **engine)
      figures = NimbleLedger::House::Settings.defaults.with(house.transform_keys(&:to_s))
      made = Struct.new(:injection, :aspiration, :plugs) { def plug(key) = plugs[key] }
      described_class.new(
        made.new(engine[:injection], engine[:aspiration], plug.transform_keys(&:to_s)),
        figures,
        fitted_km: fitted_km,
        severe: severe
      )
    end

    it "is due by distance and by months, what is fitted before what the profile says" do
      due = interval({ interval_km: 120_000, interval_months: 96 })
      expect([due.due_km(181_000), due.due_on(Date.new(2026, 11, 26))]).to eq([301_000, Date.new(2034, 11, 26)])
      over = [due.over_km(10_000, 130_500), due.over_km(10_000, 129_000), due.over_km(nil, 1)]
      expect(over).to eq([500, -1_000, nil])
      expect(interval({ interval_km: 120_000 }, fitted_km: 40_000).km).to eq(40_000)
      expect(interval({ interval_km: 120_000, interval_months: 95 }, severe: true).months).to eq(66)
    end

    it "goes by the grade where nothing is stated, half of it boosted with direct injection; unstated is platinum" do
      boosted = { injection: "direct", aspiration: "twin-charged" }
      expect(interval({ grade: "iridium" }, **boosted).km).to eq(50_000)
      expect([interval({}).km, interval({}, severe: true).km]).to eq([80_000, 56_000])
      expect(interval({ interval_km: 90_000 }, **boosted).km).to eq(90_000)
    end

    it "halves what the maker states where the house says so" do
      boosted = { injection: "direct", aspiration: "turbo" }
      halved = { boosted_interval: "halved" }
      expect(interval({ interval_km: 90_000 }, house: halved, **boosted).km).to eq(45_000)
      expect(interval({ grade: "nickel" }, house: halved, **boosted).km).to eq(20_000)
      expect(interval({ interval_km: 90_000 }, house: halved).km).to eq(90_000)
      expect(interval({ interval_km: 90_000 }, house: { boosted_interval: "stated" }, **boosted).km).to eq(90_000)
    end
  end
end
