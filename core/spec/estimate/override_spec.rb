# frozen_string_literal: true

require_relative "../spec_helper"

# Hours set by hand (model.md section 4): both figures are kept, and everything priced follows the one in force.
RSpec.describe NimbleLedger::Estimate::Override do
  HISTORY_FOR_OVERRIDES = { "odometer_km" => 190_000, "plugs_changed_km" => 20_000, "plugs_changed_years" => 11 }.freeze

  def answer(by = nil, targets: %w[plug-5 coil-5], code: "JIV6", **rest)
    override = by && { "by_hours" => by, "reason" => "known car" }
    Engines.answer(
      code,
      targets,
      catalog: Engines.catalog,
      history: HISTORY_FOR_OVERRIDES,
      **{ override: override }.compact,
      **rest
    )
  end

  it "bills the advisor's hours, keeps the computed ones beside them, and leaves the range alone" do
    plain = answer.to_h
    moved = answer(-0.6).to_h
    expect(moved["hours"]).to include(
      "quoted" => (plain["hours"]["quoted"] - 0.6).round(1),
      "computed" => plain["hours"]["quoted"],
      "reason" => "known car"
    )
    expect(moved["hours"].slice("p10", "p50", "p80", "mean_minutes")).to eq(
      plain["hours"].slice("p10", "p50", "p80", "mean_minutes")
    )
    expect(plain["hours"].keys).not_to include("computed")
    # 0.6 h at 145.00 is 87.00 of labor; supplies are 6 % of labor, so 5.22 less; the tax is on parts
    expect(plain["price"]["total_cents"] - moved["price"]["total_cents"]).to eq(8_700 + 522)
  end

  it "moves the allowance with the quote: what a break adds stays what it adds" do
    rows = [answer, answer(0.7)].map { |one| NimbleLedger::Risk::Trouble.for(one).allowance.rows }
    expect(rows[1].map(&:extra_tenths)).to eq(rows[0].map(&:extra_tenths))
    expect(rows[0].first.extra_tenths).to be_positive
  end

  it "follows the car: more rust still means more hours" do
    by_rust = %w[none heavy].map { |rust| answer(-0.4, condition: { "corrosion" => rust }).quoted_tenths }
    plain = %w[none heavy].map { |rust| answer(condition: { "corrosion" => rust }).quoted_tenths }
    expect(by_rust).to eq(plain.map { |tenths| tenths - 4 })
    expect(plain[1]).to be > plain[0]
  end

  it "holds for the work it was set for, under another soak or route, and for nothing else" do
    job = answer(-0.5, code: "YUX8", targets: %w[plug-8]).job
    expect(job.with_soak("short").override_tenths).to eq(-5)
    expect(job.on(job.car).override_tenths).to eq(-5)
    expect(job.with_targets([job.car.engine.target("plug-1")]).override_tenths).to eq(0)
  end

  it "never bills less than nothing, and says what share of such jobs the hours hold" do
    expect(answer(-99).quoted_tenths).to eq(0)
    expect(answer(-99).quoted_share).to eq(0)
    expect(answer.quoted_share).to be_between(0.65, 0.80)
    expect(answer(2).quoted_share).to be > 0.99
  end

  {
    "a difference finer than the ledger's tenths" => [{ "by_hours" => 0.25, "reason" => "x" }, "/override/by_hours"],
    "a difference without a reason" => [{ "by_hours" => 0.2 }, "/override/reason"],
    "an empty reason" => [{ "by_hours" => 0.2, "reason" => "  " }, "/override/reason"],
    "more hours than a fortnight holds" => [{ "by_hours" => 1_000, "reason" => "x" }, "/override/by_hours"]
  }.each do |name, (override, path)|
    it "refuses #{name}" do
      request = Engines.request(["plug-5"], override: override)
      expect do
        NimbleLedger::Estimate::Request.build(
          request,
          documents: NimbleLedger::Documents.new(engine: Engines.engine("JIV6"))
        )
      end.to raise_error(NimbleLedger::InvalidInput) { |e| expect(e.details.first["path"]).to eq(path) }
    end
  end
end
