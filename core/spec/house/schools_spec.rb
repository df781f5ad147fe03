# frozen_string_literal: true

require_relative "../spec_helper"

# Where good practitioners disagree: each school is a house figure with a default that changes nothing, an engine or a
# job may say otherwise, and what is in force is done and said.
RSpec.describe NimbleLedger::House::Schools do
  PAST_OF_SCHOOLS = { "odometer_km" => 150_000, "plugs_changed_km" => 60_000, "plugs_changed_years" => 6 }.freeze

  let(:defaults) { NimbleLedger::House::Settings.defaults }

  def job(code, targets, house = {}, **rest)
    given = { equipment: Engines::EQUIPMENT, house: house, history: PAST_OF_SCHOOLS, **rest }
    hash = Engines.request(targets, **given)
    documents = NimbleLedger::Documents.new(engine: Engines.engine(code), catalog: Engines.catalog)
    NimbleLedger::Estimate::Request.build(hash, documents: documents).job
  end

  def engines = Engines.codes.map { |code| Engines.engine(code) }
  def card(...) = NimbleLedger::Card::Sheet.new(job(...)).to_h
  def piece(sheet, id) = sheet["pieces"].find { |row| row["id"] == id }
  def said(sheet) =
    sheet["pieces"].flat_map { |row| [*row["does"], *(row["acts"] || []).flat_map { |act| act["does"] }] }

  it "has a figure of the house for each, shipped with one of its choices" do
    described_class::ALL.each do |school|
      declared = NimbleLedger::House::Settings::DECLARED.fetch(school.setting)
      school.choices.each { |choice| expect(declared.shape.faults(choice.value)).to eq([]), school.setting }
    end
    others =
      described_class::ALL.reject { |school| described_class.values(school.setting).include?(defaults[school.setting]) }
    expect(others.map(&:setting)).to eq(["boosted_interval"])
    expect(described_class.in_force(defaults).map(&:why)).to all(end_with("."))
  end

  it "says whose word holds, and what holds otherwise" do
    shop = defaults.with({ "wells" => "air", "compound" => "film" })
    rows =
      described_class.page(shop, Engines.engine("SK18"), { "compound" => "none" }).to_h { |row| [row["setting"], row] }
    expect(rows.values_at("compound", "wells", "order_of_work").map { |row| row["from"] }).to eq(%w[job shop shipped])
    expect(rows["compound"].values_at("says", "otherwise")).to eq(
      ["none", "thin film of nickel compound, first threads bare"]
    )
  end

  it "stands on the card with one line why, the engine's word resolved, and nothing of plugs where there are none" do
    sheet = card("SK18", %w[plug-1], { "wells" => "vacuum" })
    rows = sheet["in_force"].to_h { |row| [row["setting"], row["says"]] }
    expect(rows).to include("wells" => "vacuum", "compound" => "none", "battery" => "off when a step asks for it")
    expect(card("WK20", %w[coil-1])["in_force"].map { |row| row["setting"] }).to eq(%w[battery inspect_seals])
  end

  describe "battery" do
    it "comes off on every job and on again, its minutes once, by the same plan" do
      plain = job("SK18", %w[plug-1])
      always = job("SK18", %w[plug-1], { "battery" => "always" })
      expect(plain.plan.sequence.ids.grep(/battery/)).to eq([])
      expect(always.plan.sequence.ids.grep(/battery/)).to eq(%w[house:battery-off house:battery-on])
      expect(always.plan.steps.map(&:id)).to eq(plain.plan.steps.map(&:id))
      more = defaults.task("battery").exact_mean
      expect(always.plan.cost - plain.plan.cost).to eq(more)
      expect(always.plan.job.minutes("house") - plain.plan.job.minutes("house")).to be_within(1e-9).of(more)
    end

    it "changes nothing where a step asks for it, spares nothing by another way, and costs no work beside it" do
      owns = Engines.engine("KUJ6").equipment
      plain = job("KUJ6", %w[coil-2], {}, equipment: owns)
      always = job("KUJ6", %w[coil-2], { "battery" => "always" }, equipment: owns)
      expect(plain.near_ties.flat_map(&:spares)).to include("battery")
      expect(always.near_ties.flat_map(&:spares)).not_to include("battery")
      rows = ->(one) { one.while_open.to_h { |row| [row.target.id, row.added.to_f] } }
      beside = rows.call(job("SK18", %w[plug-1]))
      expect(beside).not_to be_empty
      expect(rows.call(job("SK18", %w[plug-1], { "battery" => "always" }))).to eq(beside)
    end
  end

  describe "cracked warm, fitted cold" do
    let(:warm) { { "temperature" => "crack-warm" } }

    it "cracks every plug once everything above is off, lets the head cool, and takes nothing out before" do
      sheet = card("JIV6", %w[plug-1 plug-3], warm)
      ids = sheet["pieces"].map { |row| row["id"] }
      crack, cool = ids.index("house:crack-warm"), ids.index("wait:cool")
      first_out = sheet["pieces"].index { |row| (row["acts"] || []).any? { |act| act["act"] == "out" } }
      off = sheet["pieces"].rindex { |row| row["kind"] == "remove" && row["cylinder"] }
      expect([off, crack, cool, first_out]).to eq([off, crack, cool, first_out].sort)
      expect(piece(sheet, "house:crack-warm")["ticks"].map { |tick| tick["label"] }).to eq(
        ["cracked an eighth of a turn: 1 and 3"]
      )
      expect(piece(sheet, "house:cold_check")["label"]).to eq("Warm check")
      expect(sheet["schools"]["temperature"]).to eq("crack-warm")
    end

    it "adds the wait of a warm engine of its mass, before any fluid goes on it" do
      cooling = NimbleLedger::Time::Cooling.minutes(Engines.engine("JIV6"), "warm", defaults)
      expect(job("JIV6", %w[plug-1], warm).plan.wait_minutes).to eq(cooling)
      soaked = job("JIV6", %w[plug-1], warm, soak: "short").plan
      expect(soaked.wait_minutes).to eq(cooling + defaults["soaks"]["short"]["wait"])
      expect(soaked.sequence.acts["soak"]).to eq(%w[clean fluid])
      in_order = %w[house:crack-warm wait:cool soak wait:soak]
      expect(soaked.sequence.ids & in_order).to eq(in_order)
      expect(job("JIV6", %w[coil-1], warm).plan.wait_minutes).to eq(0)
      expect(job("JIV6", %w[plug-1], warm, rules: 2).plan.wait_minutes).to eq(0)
    end

    it "moves no minutes of work and no price" do
      plain = job("JIV6", %w[plug-1 plug-3])
      cracked = job("JIV6", %w[plug-1 plug-3], warm)
      expect(cracked.price.total_cents).to eq(plain.price.total_cents)
      expect(cracked.plan.job.total.mean).to eq(plain.plan.job.total.mean)
    end
  end

  describe "boots" do
    let(:always) { { "boots" => "always" } }

    it "come new with every plug, with their parts and minutes, and the answer says so" do
      engine = engines.find { |one| one.targets.any? { |target| target.work == "boot" } }
      boot = engine.targets.find { |target| target.work == "boot" }
      plug = engine.targets.find { |target| target.plug? && target.cylinders == boot.cylinders }
      made = job(engine.code, [plug.id], always)
      expect(made.targets.map(&:id)).to eq([plug.id, boot.id])
      expect(made.price.total_cents).to eq(job(engine.code, [plug.id, boot.id]).price.total_cents)
      added = NimbleLedger::Estimate::Answer.new(made).to_h["plan"]["added"]
      expect(added).to eq([{ "target" => boot.id, "because" => "boots" }])
      expect(
        job(
          engine.code,
          [plug.id],
          always,
          without: [{ target: boot.id, why: "new last month" }.transform_keys(&:to_s)]
        ).targets.map(&:id)
      ).to eq([plug.id])
    end

    it "are not added where a wire or coil of the job brings one" do
      engine = engines.find { |one| one.targets.any? { |target| target.work == "boot" } }
      boot = engine.targets.find { |target| target.work == "boot" }
      same = ->(work) { engine.targets.find { |target| target.work == work && target.cylinders == boot.cylinders } }
      bringer = same.call("coil") || same.call("wire")
      ids = [same.call("plug").id, bringer.id]
      expect(job(engine.code, ids, always).targets.map(&:id)).to eq(ids)
    end
  end

  it "cleans the wells as the house does: no eyes to cover where nothing is blown" do
    blown = said(card("JIV6", %w[plug-1], { "wells" => "air" })).grep(/[Bb]low/)
    expect(blown).to all(include("Eyes covered"))
    vacuumed = said(card("JIV6", %w[plug-1], { "wells" => "vacuum" }))
    expect(vacuumed.grep(/Blow out|Blown out|then vacuum/)).to eq([])
    expect(vacuumed.grep(/Vacuum/).size).to eq(2)
  end

  it "says of power tools what the house allows, and of blows only after a soak" do
    spun = said(card("JIV6", %w[plug-1], { "power_tools" => "spin-out" }))
    expect(spun.grep(/lowest step/).size).to eq(1)
    dry = said(card("JIV6", %w[plug-1], { "power_tools" => "after-soak" }))
    wet = said(card("JIV6", %w[plug-1], { "power_tools" => "after-soak" }, soak: "short"))
    expect([dry, wet].map { |words| words.grep(/low impact/).size }).to eq([0, 1])
  end

  it "says of power tools what the soak does, never that nothing but the hand touches a plug" do
    code = Engines.codes.find { |one| Engines.engine(one).soaks.include?("overnight-impact") }
    plug = Engines.engine(code).targets.find(&:plug?).id
    sheet = card(code, [plug], {}, soak: "overnight-impact")
    says = sheet["in_force"].find { |row| row["setting"] == "power_tools" }["says"]
    expect(says).to start_with("steady low impact after a soak")
    expect(said(sheet).grep(/Steady low impact/).size).to be >= 1
  end

  describe "near ties" do
    # The page of a scope in a shop that owns everything.
    def page(school, pins = {})
      engine = Engines.engine("KUJ6")
      selection = NimbleLedger::Quote::Selection.new(engine, { "cylinders" => [2], "works" => %w[coil] })
      resolved = Engines.request([], equipment: engine.equipment, house: { "near_ties" => school }, pins: pins)
      NimbleLedger::Quote::Sheet.new(selection, resolved.except("targets"), engine: engine, catalog: Engines.catalog)
    end

    it "are named as shipped; by the house's rule the nearest is taken, and frozen as its pins" do
      named, taken = page("named"), page("taken")
      tie = named.answer.near_ties.first
      expect([named.pins, named.to_h["tie_taken"]]).to eq([{}, nil])
      expect(taken.answer.plan.choices).to eq(tie.choices)
      expect(taken.answer.plan.cost - named.answer.plan.cost).to be_within(1e-9).of(tie.extra)
      expect(taken.to_h["tie_taken"]).to eq("extra_minutes" => tie.extra, "spares" => tie.spares)
      again = page("named", taken.pins)
      expect(again.answer.price.total_cents).to eq(taken.answer.price.total_cents)
    end

    it "leave what an advisor pinned" do
      shortest = page("named").answer.plan
      pins = { "ways" => shortest.ways.to_h { |target, way| [target.id, way.id] }, "choices" => shortest.choices }
      expect(page("taken", pins).to_h["tie_taken"]).to be_nil
    end
  end

  describe "a chirp" do
    def rest(school, code)
      live = { "out" => { "plug-1" => { "outcome" => "free", "sign" => "chirps" } } }
      job(code, %w[plug-1 plug-2], school ? { "chirp" => school } : {}, live: live).outcomes.no_trouble
    end

    it "is good as shipped, bad by the house, and by construction what the plug and the head say" do
      one_piece =
        engines.find do |engine|
          engine.plug("construction").to_s.start_with?("one-piece") && engine.head == "aluminum" &&
            engine.target("plug-2")
        end
      multi = engines.find { |engine| engine.plug("construction") == "multi-piece" && engine.target("plug-2") }
      expect(rest(nil, one_piece.code)).to eq(rest("good", one_piece.code))
      expect(rest("bad", one_piece.code)).to be < rest("good", one_piece.code)
      expect(rest("by-construction", one_piece.code)).to eq(rest("bad", one_piece.code))
      expect(rest("by-construction", multi.code)).to eq(rest("good", multi.code))
    end
  end
end
