# frozen_string_literal: true

require_relative "../spec_helper"
require_relative "../support/drawn_cars"

# Which scope: what comes back, what it costs, what is recommended; against hand calculation and a seeded simulation.
RSpec.describe NimbleLedger::Scope do
  HISTORY_OF_IT = { "odometer_km" => 150_000, "plugs_changed_km" => 60_000, "plugs_changed_years" => 5 }.freeze

  def asked(scopes, code: "JIV6", **rest)
    estimate = {
      "engine" => Engines.profile_of(code),
      "catalog" => JSON.parse(File.read(File.join(Engines::ROOT, "demo/merrow.catalog.json"))),
      "equipment" => Engines::EQUIPMENT,
      "history" => HISTORY_OF_IT
    }.merge((rest.delete(:estimate) || {}).transform_keys(&:to_s))
    {
      "format" => "nimble-ledger.scopes-request",
      "version" => 1,
      "estimate" => estimate,
      "yearly_km" => 15_000,
      "scopes" => scopes.map { |id, targets| { "id" => id.to_s, "targets" => targets } }
    }.merge(rest.transform_keys(&:to_s))
  end

  def answer(scopes, **rest) = NimbleLedger::Answers.to(asked(scopes, **rest))
  def row(answer, id) = answer["scopes"].find { |one| one["id"] == id.to_s }

  def refused(path, &block) =
    expect(&block).to raise_error(NimbleLedger::InvalidInput) { |e| expect(e.details.first["path"]).to eq(path) }

  PLUGS = (1..6).map { |n| "plug-#{n}" }.freeze
  COILS = (1..6).map { |n| "coil-#{n}" }.freeze

  it "moves the odds of what is left by what has failed already, and by what was found" do
    one = ->(**rest) do
      row(answer({ only: %w[coil-3] }, failed: [{ "work" => "coil", "cylinder" => 3 }], **rest), :only)
    end
    base = one.call
    expect(one.call(earlier_failures: { "coil" => 1 })["returns"]).to be > base["returns"]
    expect(one.call(found: { "coil" => "weak" })["returns"]).to be > base["returns"]
    expect(one.call(found: { "coil" => "sound" })["returns"]).to be < base["returns"]
    known = one.call(earlier_failures: { "coil" => { "count" => 1, "lives_km" => [140_000] } })
    expect(known["returns"]).to be < one.call(earlier_failures: { "coil" => 1 })["returns"]
  end

  it "is the gamma frailty worked by hand for the coils left old" do
    found = row(answer({ only: ["coil-3", *PLUGS] }, failed: [{ "target" => "coil-3" }]), :only)
    hazard = ->(km, scale, shape) { (km / scale.to_f)**shape }
    coils_now = hazard.call(150_000, 260_000, 2.6)
    more = hazard.call(180_000, 260_000, 2.6) - coils_now
    a = (1 / 0.6) + 1
    b = (1 / 0.6) + (6 * coils_now)
    coil = 1 - ((b / (b + more))**a)
    boots_now = hazard.call(150_000, 420_000, 2.6)
    boot_more = hazard.call(180_000, 420_000, 2.6) - boots_now
    boot_b = (1 / 0.6) + (6 * boots_now)
    boot = 1 - ((boot_b / (boot_b + boot_more))**(1 / 0.6))
    plug = 1 - Math.exp(-hazard.call(30_000, 2.5 * 120_000, 5))
    new_coil = 1 - Math.exp(-hazard.call(30_000, 260_000, 2.6))
    new_boot = 1 - Math.exp(-hazard.call(30_000, 420_000, 2.6))
    expect(found["returns"]).to be_within(1e-12).of((5 * coil) + new_coil + (5 * boot) + new_boot + (6 * plug))
  end

  it "agrees with a seeded simulation of the coils" do
    profile = Engines.profile_of("JIV6")
    profile["targets"] = profile["targets"].reject { |target| target["work"] == "boot" }
    found = answer({ only: ["coil-3", *PLUGS] }, failed: [{ "target" => "coil-3" }], estimate: { engine: profile })
    plugs = 6 * (1 - Math.exp(-((30_000 / 300_000.0)**5)))
    returns, calm = DrawnCars.new(seed: 3).coils(renewed: 1)
    only = row(found, :only)
    expect(only["returns"] - plugs).to be_within(0.01).of(returns)
    expect(only["no_comeback"] / (0.995**7)).to be_within(0.006).of(calm)
  end

  it "schedules plugs when they fall due, the last day included, and counts their life used so that it makes no jump" do
    due = ->(months) { row(answer({ only: %w[coil-3] }, months: months), :only) }
    # 120,000 km interval, 90,000 run: 30,000 left at 15,000 a year is 24 months
    expect(due.call(24)["scheduled"]["months"]).to be_within(1e-9).of(24)
    expect(due.call(23.99)["scheduled"]).to be_nil
    weighed = [due.call(24), due.call(23.99)].map { |one| one["net_cents"] - one["now_cents"] }
    expect(weighed.reduce(:-).abs).to be < 300
    late = row(answer({ only: %w[coil-3] }, estimate: { history: HISTORY_OF_IT.merge("plugs_changed_km" => 0) }), :only)
    expect(late["scheduled"]["months"]).to eq(0.0)
    stands = row(answer({ only: %w[coil-3] }, yearly_km: 0, months: 240), :only)
    expect(stands["scheduled"]["months"]).to be_within(1e-9).of(36) # 96 months less five years
  end

  it "adds up: total, net, the recommendation, what stands beside it, and the break-even" do
    scopes = { failed: %w[coil-3], plugs: ["coil-3", *PLUGS], all: COILS + PLUGS }
    found = answer(scopes, failed: [{ "work" => "coil", "cylinder" => 3 }])
    found["scopes"].each do |one|
      returned = one["returns"] * one["return_cents"]
      sum = one["now_cents"] + returned + one["own_cents"] + (one["scheduled"]&.fetch("cents") || 0)
      expect(one["total_cents"]).to eq((sum + 0.5).floor)
      expect(one["net_cents"]).to eq(one["total_cents"] + one["plug_life_used_cents"])
      expect(one["no_comeback"]).to be_between(0, 1)
    end
    best = found["scopes"].min_by { |one| one["net_cents"] }
    cheap = found["scopes"].min_by { |one| one["now_cents"] }
    expect(found.values_at("recommended", "cheapest_now")).to eq([best["id"], cheap["id"]])
    spared = best["net_cents"] - cheap["now_cents"] - cheap["scheduled"]["cents"] - cheap["plug_life_used_cents"]
    expect(found["break_even_returns"]).to be_within(1e-9).of([0, spared / (cheap["return_cents"] + 15_000.0)].max)
  end

  it "never recommends what it cannot price, and says what is missing" do
    bare = JSON.parse(File.read(File.join(Engines::ROOT, "demo/merrow.catalog.json")))
    bare["offers"] = bare["offers"].reject { |offer| offer["part"] == "COI-80409" }
    bare["shelf"] = (bare["shelf"] || []).reject { |row| row["part"] == "COI-80409" }
    found = answer({ one: %w[coil-3], plugs: PLUGS }, estimate: { catalog: bare })
    expect(found["scopes"].map { |one| one["missing"] }).to all(include({ "part" => "COI-80409" }))
    expect(found.values_at("recommended", "cheapest_now", "break_even_returns")).to eq([nil, nil, nil])
  end

  it "keeps a discount and hours by hand for now" do
    plain = row(answer({ one: %w[coil-3] }), :one)
    off = row(answer({ one: %w[coil-3] }, estimate: { discount: { "label" => "Goodwill", "cents" => 1_000 } }), :one)
    expect(off["now_cents"]).to be < plain["now_cents"]
    expect(off.slice("return_cents", "scheduled", "plug_life_used_cents")).to eq(
      plain.slice("return_cents", "scheduled", "plug_life_used_cents")
    )
  end

  it "refuses what cannot be, and says where" do
    refused("/scopes/0") { answer({ one: %w[plug-3] }, failed: [{ "work" => "coil", "cylinder" => 3 }]) }
    refused("/failed/0") { answer({ one: %w[coil-3] }, failed: [{ "target" => "coil-9" }]) }
    refused("/failed/0") { answer({ one: %w[coil-3] }, failed: [{ "work" => "wire", "cylinder" => 3 }]) }
    refused("/fitted_km/coil-3") { answer({ one: %w[coil-3] }, fitted_km: { "coil-3" => 150_001 }) }
    refused("/fitted_km/hose") { answer({ one: %w[coil-3] }, fitted_km: { "hose" => 1 }) }
    refused("/earlier_failures/hose") { answer({ one: %w[coil-3] }, earlier_failures: { "hose" => 1 }) }
    refused("/scopes/0/targets/0") { answer({ one: %w[coil-9] }) }
    twice = asked({ one: %w[coil-3] }).tap { |hash| hash["scopes"] << hash["scopes"].first }
    refused("/scopes/1/id") { NimbleLedger::Answers.to(twice) }
  end

  it "takes a part's own word before its kind's, and its kind's before the car's" do
    returns = ->(fitted) { row(answer({ one: %w[plug-1] }, fitted_km: fitted), :one)["returns"] }
    expect(returns.call({ "coil" => 140_000 })).to be < returns.call({})
    expect(returns.call({ "coil" => 140_000, "coil-2" => 0 })).to be > returns.call({ "coil" => 140_000 })
  end
end
