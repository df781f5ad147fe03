# frozen_string_literal: true

require_relative "../spec_helper"
require "highs"

# The least order over all that waits (model.md section 6, "Purchase"), held against trying everything.
RSpec.describe NimbleLedger::Parts::Purchase do
  NOW = "2026-11-24T09:40" # a Tuesday
  DAYS = %w[mon tue wed thu fri].freeze

  def answer(request) = NimbleLedger::Answers.to(JSON.parse(JSON.generate(request)))

  def request(needs, catalog, **rest)
    {
      "format" => "nimble-ledger.purchase-request",
      "version" => 1,
      "now" => NOW,
      "needs" => needs,
      "catalog" => catalog
    }.merge(rest.transform_keys(&:to_s))
  end

  # A drawn catalog: parts, a kit, suppliers with a run each or none.
  def drawn(random)
    parts = %w[A B]
    items = parts.map { |part| { part: part, pack: random.rand(1..2) } }
    items << { part: "K", contains: [{ part: "A", quantity: 1 }, { part: "B", quantity: random.rand(1..2) }] }
    suppliers = {
      "S" => {
        runs: [run("noon", random, 0), run("night", random, 1)]
      },
      "T" => random.rand < 0.5 ? { runs: [run("day", random, 1)] } : { delivery_cents: random.rand(0..400) }
    }
    offers =
      %w[S T].flat_map do |supplier|
        items.map { |item| item[:part] }.filter_map { |part| offer(supplier, part, random) if random.rand < 0.6 }
      end
    { items: items, suppliers: suppliers, offers: offers, shelf: random.rand < 0.3 ? [shelf("A")] : [] }
  end

  def shelf(part) = { part: part, quantity: 1, cost_cents: 100 }

  def run(id, random, days)
    made = { id: id, order_by: "10:30", arrives: days.zero? ? "14:00" : "07:30", days: days, on: DAYS }
    made[:charge_cents] = random.rand(0..500) if random.rand < 0.6
    made[:free_from_cents] = random.rand(200..900) if made[:charge_cents] && random.rand < 0.5
    made[:minimum_cents] = random.rand(0..600) if random.rand < 0.4
    made
  end

  def offer(supplier, part, random)
    made = { supplier: supplier, part: part, cost_cents: random.rand(50..400) }
    made[:on_hand] = random.rand(0..4) if random.rand < 0.7
    made[:lead_days] = random.rand(0..1)
    made
  end

  def needs(random)
    Array.new(random.rand(1..3)) do
      {
        part: %w[A B].sample(random: random),
        quantity: random.rand(1..2),
        by: %w[2026-11-24T12:00 2026-11-24T15:00 2026-11-25T08:00].sample(random: random)
      }
    end
  end

  # Everything that could be ordered, tried: [short, cents, suppliers, runs, pieces].
  def brute(asked)
    hash = JSON.parse(JSON.generate(asked))
    made = NimbleLedger::Parts::PurchaseRequest.build(hash, documents: NimbleLedger::Documents.new)
    waiting = made.send(:waiting, made.instance_variable_get(:@needs))
    columns =
      made
        .instance_variable_get(:@offers)
        .flat_map do |offer|
          made
            .send(:matter)
            .fetch(offer.supplier)
            .select { |run| run.takes?(offer.lead) && run.counts_from }
            .map { |run| [offer, run] }
        end
    best(columns, waiting)
  end

  MOST_PACKS = 3

  def best(columns, waiting)
    ranges = columns.map { |offer, _run| (0..[MOST_PACKS, offer.packs || MOST_PACKS].min).to_a }
    (ranges.first || [0]).product(*ranges.drop(1)).filter_map { |packs| judged(columns.zip(packs), waiting) }.min
  end

  def judged(chosen, waiting)
    lines = chosen.filter_map { |(offer, run), packs| described_class::Line.new(offer, run, packs) if packs.positive? }
    return nil if over_stock?(lines) || below_minimum?(lines)

    short = waiting.parts.sum { |part| waiting.serve(part, stock(lines, part)).short.values.sum }
    [
      short,
      lines.sum(&:cents) + charges(lines),
      lines.map { |line| line.offer.supplier }.uniq.size,
      lines.map(&:run).uniq.size,
      lines.sum(&:pieces)
    ]
  end

  def over_stock?(lines)
    lines.group_by(&:offer).any? { |offer, same| offer.packs && same.sum(&:packs) > offer.packs }
  end

  def below_minimum?(lines) = lines.group_by(&:run).any? { |run, same| same.sum(&:cents) < run.minimum }

  def stock(lines, part)
    lines
      .select { |line| line.offer.holds.key?(part) }
      .map do |line|
        NimbleLedger::Parts::WaitingParts::Stock.new(line.run.counts_from, line.offer.holds[part] * line.packs)
      end
  end

  def charges(lines)
    by_run = lines.group_by(&:run)
    driven = by_run.reject { |run, _same| run.lead }
    once = by_run.keys.select(&:lead).uniq(&:supplier).sum(&:charge)
    once + driven.sum { |run, same| run.free_from && same.sum(&:cents) >= run.free_from ? 0 : run.charge }
  end

  it "is as good as the best of all there are, goal after goal" do
    random = Random.new(5)
    14.times do |round|
      asked = request(needs(random), drawn(random))
      found = answer(asked)
      got = [
        found["short"].sum { |row| row["quantity"] },
        found["total_cents"],
        found["suppliers"],
        found["runs"],
        found["orders"].sum { |order| order["lines"].sum { |line| line["pieces"] } }
      ]
      expect([round, found["proven"], got]).to eq([round, true, brute(asked)])
    end
  end

  let(:catalog) do
    {
      items: [{ part: "P" }, { part: "K", contains: [{ part: "P", quantity: 3 }] }],
      suppliers: {
        "Quayside" => {
          runs: [
            { id: "noon", order_by: "10:30", arrives: "14:00", days: 0, on: DAYS, late: 0.2 },
            { id: "night", order_by: "17:00", arrives: "07:30", days: 1, on: DAYS }
          ]
        }
      },
      offers: [{ supplier: "Quayside", part: "P", cost_cents: 100 }],
      shelf: []
    }
  end

  it "counts a run that is late too often from the supplier's next arrival" do
    found = answer(request([{ part: "P", quantity: 1, by: "2026-11-24T15:00" }], catalog))
    expect(found["short"]).to eq(
      [{ "part" => "P", "quantity" => 1, "by" => "2026-11-24T15:00", "for" => [], "from" => "2026-11-25T07:30" }]
    )
    sure = answer(request([{ part: "P", quantity: 1, by: "2026-11-24T15:00" }], catalog, sure: 0.8))
    expect(sure["orders"].map { |order| order["run"] }).to eq(["noon"])
  end

  it "takes the shelf first, then what is coming, then buys; a kit that is needed is what it holds" do
    stocked = catalog.merge(shelf: [{ part: "P", quantity: 1, cost_cents: 90 }])
    coming = [{ part: "P", quantity: 1, counts_from: "2026-11-25T07:00" }]
    found = answer(request([{ part: "K", quantity: 1, by: "2026-11-25T08:00" }], stocked, coming: coming))
    expect(found["orders"].flat_map { |order| order["lines"] }).to eq(
      [{ "part" => "P", "pieces" => 1, "cents" => 100 }]
    )
  end

  it "orders nothing on a closed day, and nothing that would arrive on one" do
    needs = [{ part: "P", quantity: 1, by: "2026-11-26T12:00" }]
    found = answer(request(needs, catalog, closed: %w[2026-11-24 2026-11-25]))
    expect(found["orders"].map { |order| order.values_at("ordered", "arrives") }).to eq(
      [%w[2026-11-25T17:00 2026-11-26T07:30]]
    )
  end

  it "says what is short of a part nobody offers, and has no order" do
    found = answer(request([{ part: "Z", quantity: 2, by: NOW, for: "van" }], catalog))
    expect(found.values_at("orders", "total_cents")).to eq([[], 0])
    expect(found["short"].first).to include("part" => "Z", "quantity" => 2, "for" => ["van"], "from" => nil)
  end

  {
    "a kit in a kit" => [
      ->(r) { r["catalog"]["items"] << { "part" => "KK", "contains" => [{ "part" => "K", "quantity" => 1 }] } },
      "/catalog/items/2/contains/0/part"
    ],
    "a run that arrives before it is ordered" => [
      ->(r) { r["catalog"]["suppliers"]["Quayside"]["runs"][0]["arrives"] = "10:30" },
      "/catalog/suppliers/Quayside/runs/0/arrives"
    ],
    "a run's name twice" => [
      ->(r) { r["catalog"]["suppliers"]["Quayside"]["runs"][1]["id"] = "noon" },
      "/catalog/suppliers/Quayside/runs/1/id"
    ],
    "a day that is none" => [->(r) { r["needs"][0]["by"] = "2026-02-30T10:00" }, "/needs/0/by"],
    "an instant gone by" => [->(r) { r["also_by"] = ["2026-11-20T10:00"] }, "/also_by/0"]
  }.each do |what, (change, path)|
    it "refuses #{what}, with the path" do
      asked = JSON.parse(JSON.generate(request([{ part: "P", quantity: 1, by: NOW }], catalog)))
      change.call(asked)
      expect { NimbleLedger::Answers.to(asked) }.to raise_error(NimbleLedger::InvalidInput) { |error|
        expect(error.details.map { |row| row["path"] }).to include(path)
      }
    end
  end
end
