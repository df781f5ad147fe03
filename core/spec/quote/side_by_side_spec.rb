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

  describe NimbleLedger::Quote::MonthsAhead do
    def ahead(*scopes, **rest) = described_class.new(sheets("JIV6", *scopes), **rest).to_h

    it "says of each scope what a scopes request says of it" do
      chosen = [scope([3]), scope([1, 3, 5]), scope([1, 2, 3, 4, 5, 6], %w[coil plug])]
      found = ahead(*chosen, assumed: { "yearly_km" => 20_000, "months" => 36, "failed" => ["coil-3"] })
      targets = sheets("JIV6", *chosen).map(&:request_targets)
      sheet = sheets("JIV6", chosen.first).first
      request = {
        "format" => "nimble-ledger.scopes-request",
        "version" => 1,
        "estimate" => {
          "engine" => Engines.profile_of("JIV6"),
          "catalog" => JSON.parse(File.read(File.join(Engines::ROOT, "demo/merrow.catalog.json"))),
          "equipment" => Engines::EQUIPMENT,
          "condition" => {
            "corrosion" => sheet.answer.car.condition.corrosion
          },
          "history" => HISTORY_BESIDE.merge("compound_used" => false)
        },
        "yearly_km" => 20_000,
        "months" => 36,
        "failed" => [{ "target" => "coil-3" }],
        "scopes" => targets.each_with_index.map { |ids, i| { "id" => "s#{i}", "targets" => ids } }
      }
      said = NimbleLedger::Answers.to(request)
      found["rows"].zip(said["scopes"]) do |row, other|
        expect(row["no_comeback"]).to be_within(1e-9).of(other["no_comeback"])
        expect(row["net_cents"]).to eq(other["net_cents"])
      end
      expect("s#{found["recommended"]}").to eq(said["recommended"])
      expect(found["break_even_returns"]).to eq(said["break_even_returns"])
    end

    it "counts what every scope renews as failed, knows what was fitted when, and is silent without a price" do
      one = ahead(scope([3]), scope([1, 3, 5]), assumed: { "failed" => %w[coil-3 coil-1] })
      expect(one["failed"]).to eq(["coil-3"])
      fresh = ahead(scope([3]), scope([1, 3, 5]), fitted_km: { "coil-1" => 175_000, "coil-9" => 1 })
      expect(fresh["rows"].first["returns"]).to be < ahead(scope([3]), scope([1, 3, 5]))["rows"].first["returns"]
      expect(described_class.new(sheets("JIV6", scope([3]), catalog: nil)).to_h).to be_nil
    end
  end

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
