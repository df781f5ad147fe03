# frozen_string_literal: true

require_relative "../spec_helper"

# The bill (model.md section 16): agreed, less what was not done, plus what happened and was allowed; never above.
RSpec.describe NimbleLedger::Bill do
  folder = File.join(Engines::ROOT, "formats/examples")

  let(:example) do
    request = JSON.parse(File.read("#{folder}/bill.request.json"))
    request["estimate"]["engine"] = JSON.parse(File.read("#{folder}/plover-v6.engine.json"))
    request["estimate"]["catalog"] = JSON.parse(File.read("#{folder}/plover.catalog.json"))
    request
  end

  def bill(request) = NimbleLedger::Answers.to(JSON.parse(JSON.generate(request)))
  def lines(answer, kind) = answer["lines"].select { |line| line["kind"] == kind }

  # A request without anything that was changed on the way.
  def plain(**rest)
    example.slice("format", "version", "estimate", "scopes").merge(rest.transform_keys(&:to_s))
  end

  # What section 7 asks for a set of targets as one job.
  def price(targets, **rest)
    estimate = example["estimate"].merge(rest.transform_keys(&:to_s))
    request = { "format" => "nimble-ledger.estimate-request", "version" => 1, "targets" => targets }.merge(estimate)
    NimbleLedger::Answers.to(request)["price"]["total_cents"]
  end

  def agreed(targets, over: 0)
    total = price(targets)
    { "targets" => targets, "agreed_cents" => total, "limit_cents" => total + over }
  end

  it "bills what was agreed where nothing came of it" do
    targets = %w[plug-1 plug-3 coil-3]
    found = bill(plain(scopes: [agreed(targets)]))
    expect(found["total_cents"]).to eq(price(targets))
    expect(found["lines"].sum { |line| line["cents"] }).to eq(found["total_cents"])
    expect(found.values_at("paid_cents", "owed_cents")).to eq([0, found["total_cents"]])
  end

  it "takes off what was not done, and what came back beyond it" do
    both = %w[plug-1 plug-3]
    found = bill(plain(scopes: [agreed(both)], not_done: ["plug-3"]))
    expect(found["total_cents"]).to eq(price(["plug-1"]))
    returned = bill(plain(scopes: [agreed(both)], unused: [{ part: "EX-PLUG", quantity: 1 }]))
    expect(lines(returned, "part").find { |line| line["part"] == "EX-PLUG" }["quantity"]).to eq(1)
  end

  it "counts a scope of which nothing is billed as never agreed" do
    scopes = [agreed(%w[plug-1], over: 500), agreed(%w[coil-3], over: 90_000)]
    found = bill(plain(scopes: scopes, not_done: ["coil-3"]))
    expect(found.values_at("agreed_cents", "limit_cents")).to eq(scopes[0].values_at("agreed_cents", "limit_cents"))
  end

  it "owes what is under warranty at nothing, and says so" do
    found = bill(plain(scopes: [agreed(%w[plug-1]), agreed(%w[coil-3])], owed: ["coil-3"]))
    expect(lines(found, "warranty").map { |line| line["cents"] }).to eq([0])
    expect(found["total_cents"]).to eq(price(["plug-1"]))
  end

  it "bills trouble up to the limit, and never a cent above" do
    broken = { broken: { "plug-3" => 1 } }
    free = bill(plain(scopes: [agreed(%w[plug-1 plug-3], over: 90_000)], happened: broken))
    expect(lines(free, "part").map { |line| line["label"] }).to include("Extraction set", "Extraction kit")
    expect(lines(free, "above-limit")).to be_empty
    tight = bill(plain(scopes: [agreed(%w[plug-1 plug-3], over: 1_000)], happened: broken))
    expect(tight["total_cents"]).to be <= tight["limit_cents"]
    expect(tight["total_cents"]).to be > tight["limit_cents"] - 3
  end

  it "counts the way of what was tried, and nothing at its end" do
    tried = bill(plain(scopes: [agreed(%w[plug-1 plug-3], over: 9_000)], tried: ["plug-3"]))
    left_out = bill(plain(scopes: [agreed(%w[plug-1 plug-3], over: 9_000)], not_done: ["plug-3"]))
    expect(lines(tried, "part")).to eq(lines(left_out, "part"))
    expect(tried["total_cents"]).to be >= left_out["total_cents"]
  end

  it "credits finding out where anything else is billed, and bills it alone where nothing is" do
    found_out = { hours: 1.0, worked_minutes: 30 }
    with = bill(plain(scopes: [agreed(["plug-1"])], diagnosis: found_out))
    expect(lines(with, "diagnosis").map { |line| line["cents"] }).to eq([0])
    alone = bill(plain(scopes: [], diagnosis: found_out))
    expect(alone["lines"].map { |line| line.values_at("kind", "quantity", "cents") }).to eq([["diagnosis", 0.5, 7250]])
    expect(alone["total_cents"]).to eq(7250)
  end

  it "has lines by hand as agreed, those not done left out" do
    by_hand = [{ "label" => "Weld the bracket", "cents" => 5_000, "class" => "labor" }]
    scope = agreed(["plug-1"], over: 0)
    scope["agreed_cents"] += 5_000
    scope["limit_cents"] += 5_000
    done = bill(plain(scopes: [scope.merge("lines" => by_hand)]))
    expect(lines(done, "by-hand").sum { |line| line["cents"] }).to eq(5_000)
    left = bill(plain(scopes: [scope.merge("lines" => by_hand.map { |row| row.merge("done" => false) })]))
    expect(left["total_cents"]).to eq(done["total_cents"] - 5_000)
  end

  it "bills the lesser of hours where the house says so" do
    house = example["estimate"]["house"].merge("bill_hours" => "lesser")
    request = plain(scopes: [agreed(%w[plug-1 plug-3])], worked_minutes: 60)
    request["estimate"] = request["estimate"].merge("house" => house)
    expect(bill(request)["hours"]).to eq(1.0)
  end

  it "names every tax with its net, contained ones too" do
    house = example["estimate"]["house"].merge("tax_inclusive" => true)
    request = plain(scopes: [agreed(%w[plug-1 coil-3], over: 10_000)])
    request["estimate"] = request["estimate"].merge("house" => house)
    found = bill(request)
    expect(found["taxes"].first["cents"]).to eq(found["included_tax_cents"])
    whole = found["classes"].values.sum + found["taxes"].sum { |tax| tax["cents"] }
    expect(whole).to be_within(1).of(found["total_cents"])
  end

  # Drawn jobs, always the same: whatever happened, whoever stopped what.
  it "is never above the limits, and its lines are its total" do
    random = Random.new(11)
    targets = %w[plug-1 plug-2 plug-3 plug-4 coil-1 coil-3 boot-2]
    60.times do |round|
      mine = targets.sample(random.rand(2..6), random: random)
      scopes = mine.each_slice(random.rand(1..3)).map { |some| agreed(some, over: random.rand(0..20_000)) }
      scopes.each { |one| one["discount"] = { "cents" => random.rand(1..3_000) } if random.rand < 0.3 }
      stopped = mine.sample(random.rand(0..2), random: random)
      plugs = (mine - stopped).grep(/plug/)
      request =
        plain(
          scopes: scopes,
          not_done: stopped,
          happened: {
            broken: plugs.first(random.rand(0..2)).to_h { |id| [id, 1] }
          }
        )
      found = bill(request)
      expect(found["lines"].sum { |line| line["cents"] }).to eq(found["total_cents"]), "round #{round}"
      expect(found["total_cents"]).to be <= found["limit_cents"], "round #{round}"
    end
  end

  {
    "a target in two scopes" => [->(r) { r["scopes"][1]["targets"] << "plug-1" }, "/scopes/1/targets/2"],
    "a limit below what was agreed" => [->(r) { r["scopes"][0]["limit_cents"] = 1 }, "/scopes/0/limit_cents"],
    "what is in no scope" => [->(r) { r["not_done"] = ["coil-1"] }, "/not_done/0"],
    "tried and not done" => [->(r) { r["tried"] = ["plug-4"] }, "/tried/0"],
    "more trouble than plugs" => [
      ->(r) { r["happened"] = { "broken" => { "plug-3" => 2 } } },
      "/happened/broken/plug-3"
    ],
    "trouble of no plug" => [->(r) { r["happened"] = { "thread" => { "coil-3" => 1 } } }, "/happened/thread/coil-3"],
    "a mishap nobody knows" => [
      ->(r) { r["happened"] = { "mishaps" => [{ "step" => "cover", "what" => "x" }] } },
      "/happened/mishaps/0/what"
    ],
    "pieces on no line" => [->(r) { r["unused"] = [{ "part" => "NOTHING", "quantity" => 1 }] }, "/unused/0/part"],
    "more than there are" => [->(r) { r["unused"] = [{ "part" => "EX-COIL", "quantity" => 9 }] }, "/unused/0/quantity"],
    "a payment of nothing" => [->(r) { r["paid"][0]["cents"] = 0 }, "/paid/0/cents"],
    "a day that is none" => [->(r) { r["paid"][0]["on"] = "2026-02-30" }, "/paid/0/on"],
    "a discount of the estimate" => [->(r) { r["estimate"]["discount"] = { "cents" => 1 } }, "/estimate/discount"],
    "nothing at all" => [
      ->(r) { r.merge!("scopes" => [], "not_done" => [], "unused" => [], "happened" => {}) },
      "/scopes"
    ]
  }.each do |what, (change, path)|
    it "refuses #{what}, with the path" do
      change.call(example)
      expect { bill(example) }.to raise_error(NimbleLedger::InvalidInput) { |error|
        expect(error.details.map { |row| row["path"] }).to include(path)
      }
    end
  end
end
