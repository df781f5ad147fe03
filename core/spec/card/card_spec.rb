# frozen_string_literal: true

require_relative "../spec_helper"

# The card of a job: what it shows of each piece, what marks do to odds and money, what stays open, what is proposed.
RSpec.describe NimbleLedger::Card do
  let(:history) { { "odometer_km" => 180_000, "plugs_changed_km" => 60_000, "plugs_changed_years" => 9 } }

  def job(code, targets, **rest)
    hash = Engines.request(targets, equipment: Engines::EQUIPMENT, history: history, **rest)
    documents = NimbleLedger::Documents.new(engine: Engines.engine(code), catalog: Engines.catalog)
    NimbleLedger::Estimate::Request.build(hash, documents: documents).job
  end

  def fold(*marks)
    events =
      marks.each_with_index.map do |(kind, values), i|
        at = (Time.utc(2026, 11, 26, 8) + (i * 300)).iso8601(3)
        NimbleLedger::Card::Event.parse({ "id" => "m#{i}", "at" => at, "kind" => kind }.merge(values || {}))
      end
    described_class::Fold.new(events)
  end

  def standing(job, *marks, limit: nil)
    nights = described_class::Nights.new(job.car.house["opening_hours"])
    described_class::Standing.new(job, fold(*marks), nights: nights, limit_cents: limit)
  end

  def out(plug, outcome, sign = nil) = ["out", { "plug" => plug, "outcome" => outcome, "sign" => sign }.compact]

  Engines.codes.each do |code|
    it "#{code}: every piece once, as the sequence has it; bolts, clips and hoses ticked when a step goes back" do
      engine = Engines.engine(code)
      all = engine.targets.select(&:plug?).map(&:id)
      found = job(code, all)
      sheet = described_class::Sheet.new(found).to_h
      expect(sheet["pieces"].map { |row| row["id"] }.uniq.size).to eq(found.plan.sequence.pieces.size)
      expect(sheet["pieces"].sum { |row| row["minutes"] }).to be_within(1e-6).of(found.plan.sequence.clock_minutes)
      expect(sheet["plugs"].size).to eq(found.targets.sum(&:plugs))
      found.plan.steps.each do |step|
        row = sheet["pieces"].find { |one| one["id"] == "step:#{step.id}:refit" } or next
        expect(row["ticks"].size).to be >= step.fasteners.size + step.clips.size
      end
    end
  end

  it "says what a plug is tightened to with compound, and by angle where no wrench fits" do
    row = ->(house) do
      sheet = described_class::Sheet.new(job("JIV6", %w[plug-5], house: house)).to_h
      sheet["pieces"].find { |one| one["id"] == "target:plug-5:work" }
    end
    expect(row.call({})["plug"]).to include(
      "torque_nm" => 25.0,
      "by" => "torque",
      "gap_mm" => {
        "low" => 1.0,
        "high" => 1.1
      }
    )
    expect(row.call({ "compound" => "film" })["plug"]["torque_nm"]).to be_within(1e-9).of(17.5)
    expect(row.call({})["parts"].map { |part| part["part"] }).to eq(["PLG-74865"])
  end

  it "says what a plug is handled by: its shell, its fine wire, what gap is believed, every cylinder there is" do
    sheet = described_class::Sheet.new(job("WK20", %w[plug-1 coil-3])).to_h
    plug = sheet["pieces"].find { |piece| piece["plug"] }["plug"]
    grade, construction = Engines.engine("WK20").plugs.values_at("grade", "construction")
    expect(plug.values_at("leaves_shell", "fine_wire")).to eq(
      [construction == "multi-piece", %w[platinum iridium].include?(grade)]
    )
    expect(sheet["cylinders"]).to eq(Engines.engine("WK20").cylinders.map(&:number))
    believed = sheet["gap_believed_mm"]
    questions =
      [believed["low"], believed["high"], believed["high"] + 0.01].map do |mm|
        leaves = [{ "value" => mm / 2, "unit" => "mm" }] * 2
        NimbleLedger::Bench::Gap.new({ "leaves" => leaves }, standard: nil).questions.size
      end
    expect(questions).to eq([0, 0, 1])
  end

  it "makes a card of a car nothing is known of" do
    hash = Engines.request(%w[plug-5], equipment: Engines::EQUIPMENT)
    documents = NimbleLedger::Documents.new(engine: Engines.engine("JIV6"), catalog: Engines.catalog)
    unknown = NimbleLedger::Estimate::Request.build(hash, documents: documents).job
    sheet = described_class::Sheet.new(unknown).to_h
    expect(sheet["pieces"].find { |piece| piece["plug"] }["plug"]["leaves_shell"]).to be(
      Engines.engine("JIV6").plug("construction") == "multi-piece"
    )
    expect(standing(unknown, ["start"]).to_h["odds"]).to eq([])
  end

  it "moves the odds of the plugs still in exactly as a live estimate does" do
    plugs = Engines.targets("WK20", %w[plug], (1..8).to_a)
    skip_to = plugs.first(2)
    marks = [out(skip_to[0], "broken"), out(skip_to[1], "free", "more-force")]
    agreed = job("WK20", plugs)
    live = {
      "out" => {
        skip_to[0] => {
          "outcome" => "broken"
        },
        skip_to[1] => {
          "outcome" => "free",
          "sign" => "more-force"
        }
      }
    }
    answer = NimbleLedger::Estimate::Answer.new(job("WK20", plugs, live: live)).to_h["risk"]["plugs"]
    odds = standing(agreed, ["start"], *marks).to_h["odds"]
    expect(odds.map { |row| [row["target"], row["breaks"]] }).to eq(answer.map { |row| [row["target"], row["broken"]] })
    expect(odds).to all(include("moved" => true))
    expect(standing(agreed, ["start"]).to_h["odds"].map { |row| row["fights"] - row["fights_before"] }).to all(eq(0))
  end

  it "says what each trouble would make of the price, and stops where the limit would be passed" do
    agreed = job("WK20", Engines.targets("WK20", %w[plug], (1..8).to_a))
    calm = agreed.price.total_cents
    first = standing(agreed, limit: calm).to_h["money"]
    expect([first["so_far_cents"], first["over"]]).to eq([calm, false])
    expect(first["next"]).to all(include("over" => true))
    expect(first["next"].map { |row| row["total_cents"] }).to all(be > calm)
    broke = standing(agreed, out(agreed.targets.first.id, "broken"), limit: calm).to_h["money"]
    expect(broke["so_far_cents"]).to eq(
      first["next"].find { |row| row["target"] == agreed.targets.first.id && row["what"] == "broken" }["total_cents"]
    )
    expect([broke["over"], broke["next"].map { |row| row["target"] }.uniq.size]).to eq([true, agreed.targets.size - 1])
    stubborn = standing(agreed, out(agreed.targets.first.id, "stubborn"), limit: calm).to_h["money"]
    expect(stubborn["so_far_cents"]).to eq(calm)
  end

  it "prices a snapped bolt as its step does" do
    agreed = job("JIV6", %w[plug-5])
    snapped = standing(agreed, ["fight", { "what" => "bolt", "piece" => "step:manifold:remove" }]).to_h["money"]
    expect(snapped["so_far_cents"]).to be > agreed.price.total_cents
    unknown = standing(agreed, ["fight", { "what" => "bolt", "piece" => "step:cover:remove" }]).to_h["money"]
    expect(unknown["so_far_cents"]).to eq(agreed.price.total_cents)
  end

  it "points at the plug that reads unlike the others, when there are enough to say so" do
    agreed = job("JIV6", %w[plug-1 plug-3 plug-5])
    read = ->(plug, *conditions) { ["read", { "plug" => plug, "conditions" => conditions }] }
    expect(standing(agreed, read["plug-1", "normal"], read["plug-3", "wet-fuel"]).to_h["odd_plug"]).to be_nil
    three = standing(agreed, read["plug-1", "normal"], read["plug-3", "wet-fuel"], read["plug-5", "normal"])
    expect(three.to_h["odd_plug"]).to eq("key" => "plug-3", "conditions" => ["wet-fuel"], "others" => ["normal"])
    alike = standing(agreed, read["plug-1", "worn"], read["plug-3", "worn"], read["plug-5", "worn"])
    expect(alike.to_h["odd_plug"]).to be_nil
  end

  it "is not finished while a bolt is not ticked, a fight not over, unless it is said why" do
    agreed = job("JIV6", %w[plug-2])
    pieces = described_class::Sheet.new(agreed).to_h["pieces"]
    done = pieces.map { |row| ["check", { "piece" => row["id"] }] }
    ticks =
      pieces.flat_map do |row|
        (row["ticks"] || []).map { |tick| ["tick", { "piece" => row["id"], "item" => tick["item"] }] }
      end
    open = ->(*marks) { described_class::OpenItems.new(standing(agreed, *marks)).list }
    expect(open.call(*done, *ticks)).to eq([])
    expect(open.call(*done, *ticks.drop(1)).map { |row| row["item"] }).to eq([ticks.first.last["item"]])
    expect(open.call(*done.drop(1), *ticks).map { |row| row["piece"] }).to eq([pieces.first["id"]])
    left = ["left", { "piece" => ticks.first.last["piece"], "why" => "the owner's wish" }]
    expect(open.call(*done, *ticks.drop(1), left)).to eq([])
    expect(open.call(*done, *ticks, ["fight", { "what" => "bolt" }]).size).to eq(1)
  end

  it "may not be finished with ports not looked into or a cap not seen on, whatever is said why" do
    found = job("JIV6", %w[plug-5])
    pieces = standing(found).pieces.map(&:id)
    left = pieces.map { |id| ["left", { "piece" => id, "why" => "the owner's wish" }] }
    opened = ["off", { "piece" => "step:manifold:remove" }]
    open = ->(*marks) { standing(found, *marks).to_h["open"].map { |row| row["item"] } }
    expect(open.call(*left)).to eq([])
    expect(open.call(opened, *left)).to eq(%w[ports-covered covers-out ports-seen])
    musts = { "remove" => %w[ports-covered], "refit" => %w[covers-out ports-seen] }
    ticks =
      musts.flat_map do |act, items|
        items.map { |item| ["tick", { "piece" => "step:manifold:#{act}", "item" => item }] }
      end
    expect(open.call(opened, *ticks, *left)).to eq([])
  end

  it "proposes the wire where a wire-fed plug's boot is torn, never the coil that only feeds it" do
    works = ->(code, cylinder) do
      found = described_class::Proposal.new("boot-torn", cylinder, job(code, ["plug-#{cylinder}"]))
      found.targets.map(&:id)
    end
    expect([works.call("GV28", 6), works.call("GV28", 1), works.call("UWO6", 3)]).to eq(
      [%w[wire-6], %w[boot-1], %w[wire-3]]
    )
    Engines.codes.each do |code|
      engine = Engines.engine(code)
      engine
        .targets
        .select { |one| one.work == "wire" && one.cylinder }
        .each do |wire|
          plug = engine.targets.find { |one| one.plug? && one.cylinders.include?(wire.cylinder) } or next
          found = described_class::Proposal.new("tracking", wire.cylinder, job(code, [plug.id])).targets
          expect(found.map(&:work)).not_to include("coil"), "#{code} #{wire.id}"
        end
    end
  end

  it "says where an engine's profile has nothing that mends what was found" do
    lacking = ->(code, plug, cylinder) do
      described_class::Proposal.new("oil-in-well", cylinder, job(code, [plug])).to_h["lacking"]
    end
    codes = %w[FM27 QEZ4 SK18]
    expect(codes.map { |code| lacking.call(code, "plug-1", 1) }).to eq([true, false, false])
    expect(described_class::Proposal.new("ash-on-plug", 1, job("SK18", ["plug-1"])).to_h["lacking"]).to be(false)
    expect(described_class::Proposal.new("clip-missing", 1, job("SK18", ["plug-1"])).to_h["lacking"]).to be(false)
  end

  it "proposes what mends a finding, as one plan with what is open" do
    agreed = job("JIV6", %w[plug-5])
    proposal = ->(finding, cylinder = nil) { described_class::Proposal.new(finding, cylinder, agreed) }
    expect(proposal.call("oil-in-well", 5).targets.map(&:id)).to eq(["seals-rear"])
    expect(proposal.call("oil-in-well", 5).to_h).to include("clean" => true, "added_cents" => be_positive)
    torn = proposal.call("tracking", 5)
    expect([torn.targets.map(&:id), torn.joint.price.total_cents]).to eq(
      [["boot-5"], job("JIV6", %w[plug-5 boot-5]).price.total_cents]
    )
    expect(proposal.call("wrong-plug").targets.map(&:id)).to eq(%w[plug-1 plug-3 plug-2 plug-4 plug-6])
    expect(proposal.call("ash-on-plug", 2).follow_up_weeks).to eq(6)
    expect(proposal.call("bolt-missing", 2).to_h).to include("targets" => [], "added_cents" => nil)
  end
end
