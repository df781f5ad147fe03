# frozen_string_literal: true

require_relative "../spec_helper"

# The bench, worked by hand: what a technician would say of each reading.
RSpec.describe NimbleLedger::Bench do
  def plover(**plug)
    profile = Engines.profile_of("JIV6")
    profile["plug"] = { "part" => "PLG-1", "per_cylinder" => 1 }.merge(plug.transform_keys(&:to_s))
    profile.except("variants").merge("steps" => profile["steps"].map { |step| step.except("when") })
  end

  def asked(parts, profile: plover(grade: "nickel", gap_mm: { "low" => 1.0, "high" => 1.1 }), **rest)
    NimbleLedger::Answers.to(
      { "format" => "nimble-ledger.bench-request", "version" => 1, "engine" => profile, **rest }.merge(
        parts
      ).transform_keys(&:to_s)
    )
  end

  def leaves(*readings) = readings.map { |value, unit| { "value" => value, "unit" => unit } }
  def gap(*readings, profile: nil, **rest) =
    asked(
      { "gap" => { "leaves" => leaves(*readings) }.merge(rest.transform_keys(&:to_s)) },
      **(profile ? { profile: profile } : {})
    )[
      "gap"
    ]
  def codes(part) = part.fetch("questions", []).map { |question| question.values_at("path", "code", "meant") }

  def refused(path, &block) =
    expect(&block).to raise_error(NimbleLedger::InvalidInput) { |e| expect(e.details.first["path"]).to eq(path) }

  describe "a gap" do
    it "adds leaves of both units, and says which way it is off" do
      # 0.021 in = 0.5334 mm, and 0.65 mm
      expect(gap([0.021, "in"], [0.65, "mm"])).to include(
        "mm" => be_within(1e-12).of(1.1834),
        "state" => "worn-wide",
        "advice" => "close"
      )
      expect(gap([0.5, "mm"], [0.5, "mm"])).to include("state" => "in-range", "advice" => "leave")
      expect(gap([0.55, "mm"], [0.55, "mm"])).to include("state" => "in-range")
      expect(gap([0.99, "mm"])).to include("state" => "closed", "advice" => "open")
    end

    it "never pries fine wire, wide or closed" do
      %w[platinum iridium].each do |grade|
        fine = plover(grade: grade, gap_mm: { "low" => 1.0, "high" => 1.1 })
        expect([gap([1.3, "mm"], profile: fine), gap([0.8, "mm"], profile: fine)].map { |row| row["advice"] }).to eq(
          %w[leave leave]
        )
      end
    end

    it "renews a worn plug that is too wide, exchanges a new one of fine wire, and sets what may be set" do
      fine = plover(grade: "iridium", gap_mm: { "low" => 1.0, "high" => 1.1 })
      said = ->(mm, **rest) { gap([mm, "mm"], **rest)["advice"] }
      expect([said.call(1.3, plug: "worn"), said.call(1.3, plug: "worn", profile: fine)]).to eq(%w[renew renew])
      expect([said.call(1.3, plug: "new"), said.call(0.8, plug: "new")]).to eq(%w[close open])
      expect([said.call(1.3, plug: "new", profile: fine), said.call(0.8, plug: "new", profile: fine)]).to eq(
        %w[exchange exchange]
      )
      expect([said.call(0.8, plug: "worn"), said.call(0.8, plug: "worn", profile: fine)]).to eq(%w[open leave])
      expect(said.call(1.05, plug: "worn", profile: fine)).to eq("leave")
      tool = fine.merge("house_overrides" => { "fine_wire" => "tool" })
      expect([said.call(1.3, plug: "new", profile: tool), said.call(0.8, profile: tool)]).to eq(%w[close open])
      expect(said.call(1.3, plug: "worn", profile: tool)).to eq("renew")
    end

    it "offers all readings that make sense of a slip, the one nearest the target first" do
      slips = ->(reading, low, high) do
        profile = plover(grade: "nickel", gap_mm: { "low" => low, "high" => high })
        gap(*reading, profile: profile)["questions"].first["slips"].map { |slip| slip.values_at("value", "unit") }
      end
      expect(slips.call([[0.41, "in"]], 1.0, 1.1)).to eq([[0.041, "in"], [0.41, "mm"], [0.0041, "in"]])
      expect(slips.call([[0.65, "in"]], 0.7, 0.8)).to eq([[0.65, "mm"], [0.065, "in"], [0.0065, "in"]])
      expect(slips.call([[0.021, "mm"]], 1.0, 1.1).first).to eq([0.021, "in"])
      expect(slips.call([[10.5, "mm"]], 1.0, 1.1)).to eq([[1.05, "mm"], [0.105, "mm"]])
      expect(slips.call([[0.105, "mm"]], 1.0, 1.1).first).to eq([1.05, "mm"]) # a leaf, and no gap alone
    end

    it "asks about a leaf in the wrong unit, and decides nothing on it" do
      inches = gap([0.65, "in"], profile: plover(grade: "nickel", gap_mm: { "low" => 0.7, "high" => 0.8 }))
      expect(codes(inches)).to eq([%w[/gap/leaves/0 unit-slip mm]])
      expect([inches["mm"], inches["state"], inches.key?("advice")]).to match([be_within(1e-9).of(16.51), nil, false])
      expect(codes(gap([0.021, "mm"], [0.65, "mm"]))).to eq([%w[/gap/leaves/0 unit-slip in]])
      expect(codes(gap([1.5, "mm"], [1.5, "mm"]))).to eq([["/gap/leaves", "sum", nil]])
      expect(codes(gap([0.04, "mm"], [0.16, "mm"]))).to eq([])
    end

    it "lies between the leaf that passes and the one that does not" do
      row = gap([1.0, "mm"], no_go: { "value" => 0.045, "unit" => "in" })
      expect(row["range_mm"]).to match([1.0, be_within(1e-9).of(1.143)])
      expect(row["state"]).to eq("in-range")
      expect(codes(gap([1.0, "mm"], no_go: { "value" => 0.9, "unit" => "mm" }))).to eq([["/gap/no_go", "no-go", nil]])
    end

    it "goes by this car's own target with the standard beside it, and keeps box and reading apart" do
      row = gap([0.7, "mm"], target_mm: { "low" => 0.65, "high" => 0.75 }, box_mm: 1.1)
      expect(row.values_at("state", "standard_mm", "box_mm", "mm")).to eq(
        ["in-range", { "low" => 1.0, "high" => 1.1 }, 1.1, 0.7]
      )
      expect(codes(gap([0.7, "mm"], target_mm: { "low" => 0.026, "high" => 0.75 }))).to eq(
        [%w[/gap/target_mm/low unit-slip in]]
      )
      refused("/gap/target_mm") { gap([0.7, "mm"], target_mm: { "low" => 0.8, "high" => 0.7 }) }
    end

    it "wears by what it grew since new" do
      expect(gap([1.25, "mm"], when_new_mm: 1.05, run_km: 50_000)["wear_mm_per_1000_km"]).to be_within(1e-12).of(0.004)
      expect(gap([1.25, "mm"], when_new_mm: 1.05, run_km: 0)).not_to have_key("wear_mm_per_1000_km")
    end
  end

  describe "a torque" do
    def torque(given, **plug) = asked({ "torque" => given.transform_keys(&:to_s) }, profile: plover(**plug))["torque"]

    it "takes compound off a dry figure alone" do
      expect(torque({ compound: true }, torque_nm: 25, torque_assumes: "dry")["nm"]).to be_within(1e-12).of(17.5)
      expect(torque({ compound: true }, torque_nm: 25)["nm"]).to be_within(1e-12).of(17.5)
      expect(torque({ compound: true }, torque_nm: 20, torque_assumes: "compound")["nm"]).to eq(20)
      dry = torque({ compound: false }, torque_nm: 20, torque_assumes: "compound")
      expect([dry["nm"], codes(dry)]).to eq([20, [["/torque/compound", "assumes-compound", nil]]])
    end

    it "is the middle of a range, in every unit" do
      row = torque({}, torque_range_nm: [20, 30])
      expect(row).to include("nm" => 25.0, "nm_range" => [20, 30])
      expect(row["lb_ft"]).to be_within(1e-4).of(18.4391)
      expect(row["lb_in"]).to be_within(1e-9).of(row["lb_ft"] * 12)
    end

    it "comes from seat, thread and head where the profile has none" do
      expect(torque({}, seat: "gasket", thread_mm: 14)["nm"]).to eq(25)
      expect(torque({}, seat: "taper", thread_mm: 18)["nm"]).to eq(20)
      expect(codes(torque({}, seat: "taper", thread_mm: 12))).to eq([["/torque", "unknown", nil]])
      slipped = torque({}, seat: "gasket", thread_mm: 14, torque_nm: 220)
      expect([slipped["nm"], codes(slipped)]).to eq([220.0, [%w[/torque far-off lb-in]]])
      expect(codes(torque({}, seat: "gasket", thread_mm: 14, torque_nm: 50))).to eq([])
    end

    it "is set lower with an adapter in line, and asks a wrench for a fifth of its scale at least" do
      row = torque({ wrench_nm: 100, wrench_mm: 300, adapter_mm: 100, adapter: "in-line" }, torque_nm: 24)
      expect(row.values_at("setting_nm", "wrench_ok")).to eq([18.0, false])
      edge = torque({ wrench_nm: 100, wrench_mm: 300, adapter_mm: 60, adapter: "in-line" }, torque_nm: 24)
      expect(edge.values_at("setting_nm", "wrench_ok")).to eq([20.0, true])
      square = torque({ wrench_nm: 24, wrench_mm: 300, adapter_mm: 60, adapter: "right-angle" }, torque_nm: 24)
      expect(square.values_at("setting_nm", "wrench_ok")).to eq([24.0, true])
      refused("/torque/adapter_mm") { torque({ wrench_mm: 300, adapter: "in-line" }, torque_nm: 24) }
      refused("/torque/wrench_mm") { torque({ adapter_mm: 60, adapter: "in-line" }, torque_nm: 24) }
      expect(codes(torque({ wrench_mm: 12 }, torque_nm: 24))).to eq([%w[/torque/wrench_mm unit-slip in]])
    end
  end

  describe "an angle" do
    def angle(state, **plug) =
      asked({ "angle" => state ? { "seat_state" => state } : {} }, profile: plover(tighten: "angle", **plug))["angle"]

    it "goes by seat and by new or used, and is not given without" do
      expect(angle("new", seat: "gasket", thread_mm: 14)).to eq({ "turns" => [1 / 2.0, 2 / 3.0] })
      expect(angle("new", seat: "gasket", thread_mm: 10)["turns"]).to eq([0.5, 0.5])
      expect(angle("used", seat: "gasket", thread_mm: 14)["turns"]).to eq([1 / 12.0, 1 / 12.0])
      expect(%w[new used].map { |state| angle(state, seat: "taper")["turns"] }).to eq([[1 / 16.0, 1 / 16.0]] * 2)
      refused("/angle/seat_state") { angle(nil, seat: "taper") }
      expect(codes(angle("new"))).to eq([["/angle", "seat", nil]])
    end

    it "asks why where a wrench fits, and not where none does" do
      profile = plover(seat: "gasket", thread_mm: 14)
      expect(codes(asked({ "angle" => { "seat_state" => "new" } }, profile: profile)["angle"])).to eq(
        [["/angle", "wrench-fits", nil]]
      )
      profile["targets"].find { |target| target["id"] == "plug-5" }["wrench_fits"] = false
      tight = asked({ "angle" => { "seat_state" => "new" }, "target" => "plug-5" }, profile: profile)["angle"]
      expect(codes(tight)).to eq([])
    end
  end

  describe "an interval" do
    KNOWN = {
      "odometer_km" => 181_000,
      "changed_km" => 90_000,
      "changed_on" => "2020-11-20",
      "today" => "2026-11-26",
      "yearly_km" => 15_000
    }.freeze

    def interval(given = {}, **plug)
      profile = plover(**plug.except(:engine)).merge((plug[:engine] || {}).transform_keys(&:to_s))
      asked({ "interval" => KNOWN.merge(given) }, profile: profile)["interval"]
    end

    it "is the earlier of distance at the yearly pace and months" do
      # 9,000 km at 15,000 a year: 219.15 days
      expect(interval(interval_km: 100_000)).to include("due_km" => 190_000, "due_on" => "2027-07-03")
      expect(interval(interval_km: 100_000, interval_months: 72)["due_on"]).to eq("2026-11-20")
      expect(interval(interval_months: 96)).to include("due_km" => 170_000) # no grade: as platinum
    end

    it "comes from the grade where the profile has none, halved when boosted with direct injection" do
      expect(interval(grade: "platinum")["due_km"]).to eq(170_000)
      boosted = { aspiration: "turbo", injection: "direct" }
      expect(interval(grade: "iridium", engine: boosted)["due_km"]).to eq(140_000)
      expect(interval({ "severe" => true }, grade: "iridium", engine: boosted)["due_km"]).to eq(125_000)
      expect(interval(interval_km: 100_000, engine: boosted)["due_km"]).to eq(190_000)
      expect(interval(grade: "iridium", engine: boosted.merge(injection: "port"))["due_km"]).to eq(190_000)
    end

    it "is shorter in severe use, months too and whole" do
      severe = interval({ "severe" => true, "yearly_km" => 0 }, interval_km: 120_000, interval_months: 95)
      # 0.7 of 95 months is 66.5: 66; 0.7 of 120,000 km is 84,000, reached at 174,000: today
      expect(severe).to include("due_km" => 174_000, "due_on" => "2026-05-20")
    end

    it "keeps the ends of months, and what is past" do
      late = interval({ "changed_on" => "2024-08-31" }, interval_months: 6)
      expect(late["due_on"]).to eq("2025-02-28")
      past = interval({ "changed_on" => nil }.compact.merge("odometer_km" => 205_000), interval_km: 100_000)
      # 15,000 km too late is one year: 365.25 days ago, rounded down
      expect(past["due_on"]).to eq("2025-11-25")
    end

    it "refuses what cannot be, and asks about ten intervals" do
      refused("/interval/odometer_km") { interval({ "odometer_km" => 80_000 }, interval_km: 100_000) }
      refused("/interval/changed_on") { interval({ "changed_on" => "2026-11-27" }, interval_km: 100_000) }
      refused("/interval/today") { interval({ "today" => "2026-02-30" }, interval_km: 100_000) }
      expect(codes(interval(interval_km: 9_000))).to eq([["/interval/changed_km", "long-run", nil]])
    end
  end

  describe "a grade" do
    def rows(catalog, targets = %w[plug-5])
      documents = NimbleLedger::Documents.new(engine: Engines.engine("JIV6"), catalog: catalog)
      request = Engines.request(targets, equipment: Engines::EQUIPMENT, house: { "rate_cents" => 10_000 })
      NimbleLedger::Bench::Grade.new(NimbleLedger::Estimate::Request.build(request, documents: documents).job).rows
    end

    def catalog(nickel_cents:)
      plug = ->(part, grade, km, **rest) do
        { "part" => part, "plug" => { "grade" => grade, "interval_km" => km } }.merge(rest.transform_keys(&:to_s))
      end
      offer = ->(part, cents) { { "supplier" => "Quay", "part" => part, "cost_cents" => cents } }
      NimbleLedger::Parts::Catalog.build(
        {
          "items" => [
            plug.call("PLG-74865", "iridium", 120_000, equivalents: ["N-1"], list_cents: 2_000),
            plug.call("N-1", "nickel", 40_000, list_cents: nickel_cents)
          ],
          "offers" => [offer.call("PLG-74865", 1_000), offer.call("N-1", 100)]
        }
      )
    end

    it "costs parts and labor of this access over its life: behind a manifold the cheap plug is the dear one" do
      hours = Engines.quoted("JIV6", %w[plug-5])
      iridium, nickel = rows(catalog(nickel_cents: 200))
      expect(iridium.cents).to eq((hours * 10_000).round + 2_000)
      expect(iridium.per_1000_km).to be_within(1e-9).of(iridium.cents / 120.0)
      expect(nickel.per_1000_km).to be_within(1e-9).of(((hours * 10_000) + 200) / 40.0)
      expect([iridium.grade, nickel.grade]).to eq(%w[iridium nickel])
    end

    it "counts the plugs alone where a coil is done with them, and is silent without a choice" do
      alone = rows(catalog(nickel_cents: 200)).map(&:cents)
      expect(rows(catalog(nickel_cents: 200), %w[plug-5 coil-5]).map(&:cents)).to eq(alone)
      expect(rows(catalog(nickel_cents: 200), %w[coil-5])).to eq([])
      expect(rows(NimbleLedger::Parts::Catalog.build({}))).to eq([])
    end
  end

  it "refuses a target that is no plug of the engine" do
    refused("/target") { asked({ "target" => "plug-99" }) }
    refused("/target") { asked({ "target" => "coil-1" }) }
    refused("/gap/leaves") { asked({ "gap" => { "leaves" => [] } }) }
  end
end
