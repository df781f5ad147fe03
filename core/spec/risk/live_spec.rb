# frozen_string_literal: true

require_relative "../spec_helper"

# What is fitted, what was done to which cylinder, and a job under way (model.md section 5), worked by hand.
RSpec.describe NimbleLedger::Risk::LiveOdds do
  PAST = { "odometer_km" => 100_000, "plugs_changed_km" => 0, "plugs_changed_years" => 5 }.freeze

  # Four plugs, one-piece, interval 100,000 km: every factor is 1 and the chances are the house's.
  let(:hash) do
    plugs =
      [1, 2, 3].map { |n| target("plug-#{n}", work: "plug", cylinder: n) } +
        [target("plug-4", work: "plug", cylinder: 4, plugs: 1)]
    profile(steps: [], targets: plugs, plug: { "part" => "P", "construction" => "one-piece", "interval_km" => 100_000 })
  end

  def risk(history: PAST, engine: hash, targets: %w[plug-1 plug-2 plug-3 plug-4], **rest)
    NimbleLedger::Estimate::Request.build(Engines.request(targets, engine: engine, history: history, **rest)).answer[
      "risk"
    ]
  end

  def odds(chance, factor) = (chance / (1 - chance) * factor).then { |moved| moved / (1 + moved) }

  def row(risk, id) = risk["plugs"].find { |plug| plug["target"] == id }

  it "takes base chance and interval of what is fitted, for all plugs or one cylinder" do
    all = risk(history: PAST.merge("fitted" => { "construction" => "multi-piece", "interval_km" => 50_000 }))
    expect(row(all, "plug-1")["broken"]).to be_within(1e-12).of(odds(0.07, 1.6))
    one =
      risk(
        history:
          PAST.merge(
            "cylinders" => {
              "3" => {
                "fitted" => {
                  "construction" => "multi-piece",
                  "interval_km" => 100_000
                }
              }
            }
          )
      )
    expect([row(one, "plug-1")["broken"], row(one, "plug-3")["broken"]]).to match(
      [be_within(1e-12).of(0.003), be_within(1e-12).of(0.07)]
    )
  end

  it "lets a cylinder's own entry win, key by key" do
    own = risk(history: PAST.merge("compound_used" => true, "cylinders" => { "2" => { "plugs_changed_years" => 15 } }))
    expect(row(own, "plug-1")["thread"]).to be_within(1e-12).of(odds(0.002, 0.6))
    expect(row(own, "plug-2")["thread"]).to be_within(1e-12).of(odds(0.002, 0.6 * (1.06**10)))
  end

  it "gives a target of several cylinders all three chances of the one most likely to break" do
    rail =
      profile(
        steps: [],
        targets: [target("plugs", work: "plug", cylinder: nil, cylinders: [1, 2])],
        plug: {
          "part" => "P",
          "construction" => "one-piece",
          "interval_km" => 100_000
        }
      )
    found =
      risk(
        engine: rail,
        targets: ["plugs"],
        history: PAST.merge("cylinders" => { "2" => { "plugs_changed_years" => 15 } })
      )
    expect(found["plugs"][0]["stubborn"]).to be_within(1e-12).of(odds(0.06, 1.06**10))
  end

  it "moves the rest by what came out, the signs seen, and heat" do
    found =
      risk(
        rules: 2,
        live: {
          "out" => {
            "plug-1" => {
              "outcome" => "broken",
              "sign" => "more-force"
            },
            "plug-2" => {
              "outcome" => "free",
              "sign" => "freer"
            }
          },
          "hot" => true
        }
      )
    shared = (1.25 + 1) / (1.25 + 0.006)
    signs = Math.sqrt(2.0 * 0.5)
    expect(found["plugs"].map { |plug| plug["target"] }).to eq(%w[plug-3 plug-4])
    expect(row(found, "plug-3")["broken"]).to be_within(1e-12).of(odds(0.003, shared * signs * 1.5))
    expect(row(found, "plug-3")["stubborn"]).to be_within(1e-12).of(odds(0.06, signs * 1.5))
    expect(found["no_trouble"]).to eq(0)
    broken = row(found, "plug-3")["broken"]
    expect(found["broken_counts"]).to match(
      [
        eq(0.0),
        be_within(1e-12).of((1 - broken)**2),
        be_within(1e-12).of(2 * broken * (1 - broken)),
        be_within(1e-12).of(broken**2),
        eq(0.0)
      ]
    )
    expect(found["out"].keys).to eq(%w[plug-1 plug-2])
  end

  it "counts what happened at its mean, and is as before the job while nothing is out" do
    plain = risk
    expect(risk(live: {})).to include(plain.slice("plugs", "no_trouble", "broken_counts", "expected_extra_minutes"))
    gone =
      %w[plug-1 plug-2 plug-3 plug-4]
        .zip(%w[broken thread stubborn free])
        .to_h { |id, outcome| [id, { "outcome" => outcome }] }
    done = risk(live: { "out" => gone })
    expect(done["plugs"]).to eq([])
    expect(done["broken_counts"]).to match([0, 1, 0, 0, 0].map { |chance| be_within(1e-12).of(chance) })
    expect(done["expected_extra_minutes"]).to be_within(1e-9).of(
      ((30 + 220 + 120) + (25 + 160 + 80) + (4 + 32 + 20)) / 6.0
    )
  end

  it "adds what happened to every outcome of the mixture as constants" do
    request =
      NimbleLedger::Estimate::Request.build(
        Engines.request(
          %w[plug-1 plug-2],
          engine: hash,
          history: PAST,
          live: {
            "out" => {
              "plug-1" => {
                "outcome" => "thread"
              }
            }
          },
          catalog: {
            "items" => []
          }
        )
      )
    space = NimbleLedger::Risk::Trouble.new(request.job).space
    expect(space.list.map(&:threads).min).to eq(1)
    expect(space.list.map(&:mean).min).to be_within(1e-9).of((25 + 160 + 80) / 6.0)
    expect(space.list.sum(&:chance)).to be_within(1e-9).of(1)
    expect(space.list.map(&:parts_cents).min).to be_within(1e-6).of(2_200)
  end

  it "takes a list where a target has several plugs, null for one still in" do
    two =
      profile(
        steps: [],
        targets: [target("p", work: "plug", plugs: 2)],
        plug: {
          "part" => "P",
          "per_cylinder" => 2,
          "construction" => "one-piece"
        }
      )
    half = risk(engine: two, targets: ["p"], live: { "out" => { "p" => [{ "outcome" => "broken" }, nil] } })
    expect([half["plugs"].size, half["broken_counts"].size, half["broken_counts"][0]]).to eq([1, 3, 0.0])
    {
      { "p" => [nil] } => "/live/out/p",
      { "p" => { "outcome" => "free" } } => "/live/out/p",
      { "q" => { "outcome" => "free" } } => "/live/out/q"
    }.each do |out, path|
      expect { risk(engine: two, targets: ["p"], live: { "out" => out }) }.to raise_error(
        NimbleLedger::InvalidInput
      ) { |e| expect(e.details.first["path"]).to eq(path) }
    end
  end

  it "refuses a live job without a past, and a past that cannot be" do
    expect do
      NimbleLedger::Estimate::Request.build(Engines.request(%w[plug-1], engine: hash, live: {}))
    end.to raise_error(NimbleLedger::InvalidInput, /history/)
    {
      { "cylinders" => { "9" => {} } } => "/history/cylinders/9",
      { "cylinders" => { "2" => { "plugs_changed_km" => 200_000 } } } => "/history/cylinders/2/plugs_changed_km",
      { "fitted" => { "construction" => "multi-piece" } } => "/history/fitted/interval_km"
    }.each do |more, path|
      expect { risk(history: PAST.merge(more)) }.to raise_error(NimbleLedger::InvalidInput) { |e|
        expect(e.details.first["path"]).to eq(path)
      }
    end
  end
end
