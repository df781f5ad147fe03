# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Quote::SideBySide do
  HISTORY_BESIDE = { "odometer_km" => 180_000, "plugs_changed_km" => 60_000, "plugs_changed_years" => 9 }.freeze

  # Sheets of several scopes of one car, as a quote makes them.
  def sheets(code, *scopes, catalog: Engines.catalog)
    engine = Engines.engine(code)
    visit =
      NimbleLedger::Quote::Sheet::Visit.new(
        NimbleLedger::Slots::ReadyTime::Moment.parse("2026-11-25T09:00"),
        "cold",
        nil
      )
    scopes.map do |scope|
      content =
        NimbleLedger::Quote::Content.new(
          { "scopes" => [scope], "active" => 0, "history" => HISTORY_BESIDE },
          engine: engine,
          vehicle: {
          }
        )
      NimbleLedger::Quote::Sheet.new(
        content.selection(0),
        content.request(0, equipment: Engines::EQUIPMENT),
        engine: engine,
        catalog: catalog,
        visit: visit
      )
    end
  end

  def scope(cylinders, works = %w[coil], **rest) =
    { "cylinders" => cylinders, "works" => works }.merge(rest.transform_keys(&:to_s))

  def rows(code, *scopes, active: 0) = described_class.new(sheets(code, *scopes), active: active).rows

  it "shows both prices before: one coil now and its neighbors later pays for the same opening twice" do
    one, rear = rows("JIV6", scope([5]), scope([1, 3, 5]))
    expect(one["total_cents"]).to be < rear["total_cents"]
    expect(one["both_cents"]).to be > rear["total_cents"]
    expect(one["both_cents"]).to eq(one["total_cents"] + one["left_cents"])
    # the neighbors alone take the whole descent again
    expect(one["left_hours"]).to be > rear["quoted_hours"] - 0.5
    expect(rear.keys).not_to include("left_cents")
  end

  it "adds up: labor, parts and what goes with them are the total, in every scope of every engine" do
    Engines.codes.each do |code|
      engine = Engines.engine(code)
      numbers = engine.cylinders.map(&:number)
      works = NimbleLedger::Quote::Selection.works_of(engine).first(2)
      rows(
        code,
        scope(numbers.first(1), works),
        scope(numbers, works, discount: { "cents" => 1_500, "label" => "Goodwill" })
      ).each do |row|
        expect(row.values_at("labor_cents", "parts_cents", "with_it_cents").sum).to eq(row["total_cents"]), code
      end
    end
  end

  it "holds the others against the one worked on" do
    one, all, front = rows("JIV6", scope([5]), scope([1, 2, 3, 4, 5, 6]), scope([2]), active: 2)
    expect(front.keys).not_to include("against_cents")
    [one, all].each { |row| expect(row["against_cents"]).to eq(row["total_cents"] - front["total_cents"]) }
    expect(all["against_hours"]).to be_within(1e-9).of(all["quoted_hours"] - front["quoted_hours"])
  end

  it "counts hours set by hand in their scope, and not in what the scope leaves for another day" do
    hours = { "by_hours" => -0.5, "reason" => "known car", "targets" => ["coil-5"] }
    plain = rows("JIV6", scope([5]), scope([3, 5])).first
    own = rows("JIV6", scope([5], hours: hours), scope([3, 5])).first
    expect(own["quoted_hours"]).to be_within(1e-9).of(plain["quoted_hours"] - 0.5)
    expect(own["left_cents"]).to eq(plain["left_cents"])
  end

  it "takes a discount off its own scope only: the rest costs what it costs" do
    discount = { "cents" => 2_000, "label" => "Goodwill" }
    plain, own = [{}, { discount: discount }].map { |rest| sheets("JIV6", scope([5], **rest), scope([3, 5])) }
    before, after = [plain, own].map { |list| described_class.new(list, active: 0).rows.first }
    expect(before["total_cents"] - after["total_cents"]).to be_between(2_000, 2_200)
    expect(after["left_cents"]).to eq(before["left_cents"])
    expect(own.first.to_h["while_open"].map { |row| row["alone_cents"] }).to eq(
      plain.first.to_h["while_open"].map { |row| row["alone_cents"] }
    )
  end

  it "keeps a scope that holds nothing in its place, with no figures" do
    empty, one = rows("JIV6", scope([]), scope([5]))
    expect(empty).to eq("index" => 0, "title" => "")
    # cold at nine, and 80 of 100 such jobs take 2.74 h at most: 164.3 minutes later
    expect(one["p80_hours"]).to be_within(0.005).of(2.738)
    expect(one["ready"]).to eq("2026-11-25T11:45")
    expect(one.keys).not_to include("against_cents")
  end

  it "leaves money out where there is no price list" do
    row = described_class.new(sheets("JIV6", scope([5]), scope([3]), catalog: nil), active: 0).rows.first
    expect(row.keys & %w[total_cents left_cents not_above_cents]).to be_empty
    expect(row["quoted_hours"]).to be_positive
  end
end
