# frozen_string_literal: true

require_relative "../spec_helper"

# A plug breaks above the limit: the ways on, each the whole of what is then done, with what happened in it once.
RSpec.describe NimbleLedger::Card::WaysOn do
  PAST_OF_WAYS = { "odometer_km" => 180_000, "plugs_changed_km" => 60_000, "plugs_changed_years" => 9 }.freeze

  def request(code, targets, **rest)
    given = { equipment: Engines.engine(code).equipment, history: PAST_OF_WAYS, soak: "short", **rest }
    Engines.request(targets, **given).merge(
      "engine" => Engines.profile_of(code),
      "catalog" => JSON.parse(File.read(File.join(Engines::ROOT, "demo/merrow.catalog.json")))
    )
  end

  def fold(*marks)
    events =
      marks.each_with_index.map do |(kind, values), i|
        at = (Time.utc(2026, 11, 26, 8) + (i * 300)).iso8601(3)
        NimbleLedger::Card::Event.parse({ "id" => "m#{i}", "at" => at, "kind" => kind }.merge(values || {}))
      end
    NimbleLedger::Card::Fold.new(events)
  end

  def standing(request, *marks, counted: [], limit: nil)
    job = NimbleLedger::Estimate::Request.build(request).job
    nights = NimbleLedger::Card::Nights.new(job.car.house["opening_hours"])
    NimbleLedger::Card::Standing.new(job, fold(*marks), nights: nights, limit_cents: limit, counted: counted)
  end

  # Everything above the plugs is off; 1 is new and in, 3 came apart.
  let(:plugs) { (1..8).map { |n| "plug-#{n}" } }
  let(:asked) { request("YUX8", plugs) }
  let(:marks) do
    above = NimbleLedger::Estimate::Request.build(asked).job.plan.steps.reject(&:takes_out_plug?)
    off = above.map { |step| ["off", { "piece" => "step:#{step.id}:remove" }] }
    [
      ["start"],
      *off,
      ["out", { "plug" => "plug-1", "outcome" => "free" }],
      ["in", { "plug" => "plug-1", "how" => "torque", "piece" => "target:plug-1:work" }],
      ["fight", { "what" => "broken", "plug" => "plug-3" }],
      ["out", { "plug" => "plug-3", "outcome" => "broken" }]
    ]
  end
  let(:before) { standing(asked, *marks) }
  let(:ways) { described_class.new(asked, before).list.to_h { |way| [way.name, way] } }

  # The way as a request: what the quote makes of it.
  def as_request(way)
    engine = Engines.engine("YUX8").with_left(way.tried)
    asked.merge(
      "engine" => engine.source,
      "targets" => way.targets + way.tried.keys.map { |id| "left-#{id}" },
      "lines" => way.lines.map(&:to_h),
      "override" => {
        "by_hours" => way.by_tenths / 10.0,
        "reason" => "plug 3 broke"
      }
    )
  end

  def price_of(way) = NimbleLedger::Estimate::Request.build(as_request(way)).job.price.total_cents

  it "are three, priced to the cent as the requests they become" do
    expect(ways.keys).to eq(%w[finish leave stop])
    ways.each_value { |way| expect(way.total_cents).to eq(price_of(way)), way.name }
  end

  it "finish for what it comes to so far, with a limit that holds what is left in the head" do
    finish = ways["finish"]
    expect(finish.total_cents).to eq(before.so_far_cents)
    expect(finish.targets).to eq(plugs)
    expect(finish.limit_cents).to be > finish.total_cents * 1.05
  end

  it "take it out and leave the rest: old plugs stay in, what was opened goes back" do
    leave = ways["leave"]
    expect(leave.targets).to eq(%w[plug-1 plug-3])
    expect(leave.tried.keys).to include(*(plugs - %w[plug-1 plug-3]))
    expect(leave.total_cents).to be < ways["finish"].total_cents
    job = NimbleLedger::Estimate::Request.build(as_request(leave)).job
    expect(job.needed.rows.select { |row| row.part == "PLG-64763" }.sum(&:quantity)).to eq(2)
    sheet = NimbleLedger::Card::Sheet.new(job).to_h
    expect(sheet["pieces"].find { |piece| piece["ref"] == "left-plug-5" }["does"].join).to include("Left as it is")
    backs = sheet["pieces"].map { |piece| piece["id"] }.grep(/refit/)
    off = marks.filter_map { |kind, values| values["piece"].sub("remove", "refit") if kind == "off" }
    expect(backs).to include(*off)
    expect(backs.grep(/plug-out/)).to eq(%w[step:plug-out-1:refit step:plug-out-3:refit])
  end

  it "put a new plug in where the old one is out, whatever is decided" do
    out = [*marks, ["out", { "plug" => "plug-7", "outcome" => "free" }]]
    found = described_class.new(asked, standing(asked, *out)).list.to_h { |way| [way.name, way.targets] }
    expect([found["leave"], found["stop"]]).to eq([%w[plug-1 plug-3 plug-7], %w[plug-1 plug-7]])
    expect(described_class.new(asked, standing(asked, *out)).left_cylinders).to eq([2, 4, 5, 6, 8])
  end

  it "stop and close up: nothing for an extraction that was not begun, no new plug where none went in" do
    stop = ways["stop"]
    expect([stop.targets, stop.lines]).to eq([%w[plug-1], []])
    expect(stop.total_cents).to be < ways["leave"].total_cents
    expect(stop.to_go).to be < ways["leave"].to_go
    expect(ways["leave"].to_go).to be < ways["finish"].to_go
    expect(described_class.new(asked, before).open_cylinders).to eq([3])
  end

  it "count nothing twice: after the yes the card comes to what was agreed, and a second break comes on top" do
    ways.each_value do |way|
      after = standing(as_request(way), *marks, counted: way.trouble, limit: way.limit_cents)
      expect(after.so_far_cents).to eq(way.total_cents), way.name
      expect(after.over_limit?).to be(false)
      expect(described_class.new(as_request(way), after).list).to eq([])
    end
    finish = ways["finish"]
    again = [*marks, ["out", { "plug" => "plug-5", "outcome" => "broken" }]]
    second = standing(as_request(finish), *again, counted: finish.trouble)
    expect(second.fought.map { |one| one.of.id }).to eq(["plug-5"])
    more = described_class.new(as_request(finish), second).list.first
    expect(more.total_cents).to eq(second.so_far_cents).and be > finish.total_cents
    expect(more.trouble.size).to eq(2)
  end

  it "keep the advisor's own hours and lines beside what happened" do
    own = { "override" => { "by_hours" => 0.5, "reason" => "known car" } }
    lines = [{ "label" => "Wiper", "cents" => 1_250, "class" => "parts" }]
    mine = asked.merge(own, "lines" => lines)
    found = described_class.new(mine, standing(mine, *marks)).list.first
    expect(found.by_tenths).to be > 5
    expect(found.lines.map(&:label)).to eq(["Wiper", "Extraction kit, its share", "Extraction set, Plug 3"])
    expect(found.total_cents).to eq(standing(mine, *marks).so_far_cents)
  end

  it "say whether something is still in the head: not once it is out, and not for a thread" do
    still = ->(*more) { described_class.new(asked, standing(asked, *more)).to_take_out? }
    expect(still.call(*marks)).to be(true)
    fight = marks.index { |kind, _| kind == "fight" }
    expect(still.call(*marks, ["over", { "of" => "m#{fight}" }])).to be(false)
    expect(still.call(["start"], ["out", { "plug" => "plug-5", "outcome" => "thread" }])).to be(false)
  end

  it "are none where nothing happened" do
    expect(described_class.new(asked, standing(asked, ["start"])).list).to eq([])
  end
end
