# frozen_string_literal: true

require_relative "../spec_helper"
require_relative "../../../formats/card_cases"

RSpec.describe NimbleLedger::Card::Fold do
  def marks(*list)
    list.each_with_index.map do |(minute, kind, values), i|
      at = (Time.utc(2026, 11, 26, 8) + (minute * 60)).iso8601(3)
      NimbleLedger::Card::Event.parse({ "id" => "m#{i}", "at" => at, "kind" => kind }.merge(values || {}))
    end
  end

  def state(*list) = described_class.new(marks(*list)).state

  it "gives the same state for any order and any repeats" do
    (1..120).each do |seed|
      rng = Random.new(seed)
      events = CardCases.marks(rng, 20).map { |event| NimbleLedger::Card::Event.parse(event) }
      whole = described_class.new(events).state
      4.times do
        arrived = (events + events.sample(8, random: rng)).shuffle(random: rng)
        expect(described_class.new(arrived).state).to eq(whole)
      end
    end
  end

  it "is never changed by what is undone, and an undo can be undone" do
    off = [5, "off", { "piece" => "step:cover:remove" }]
    expect(state([0, "start"], off)["done"]).to eq({ "step:cover:remove" => "2026-11-26T08:05:00.000Z" })
    expect(state([0, "start"], off, [6, "undo", { "of" => "m1" }])["done"]).to eq({})
    again = state([0, "start"], off, [6, "undo", { "of" => "m1" }], [7, "undo", { "of" => "m2" }])
    expect([again["done"].keys, again["undone"]]).to eq([["step:cover:remove"], ["m2"]])
    expect(state([9, "undo", { "of" => "m1" }], off)["done"]).to eq({}), "made after it"
    expect(state([1, "undo", { "of" => "m1" }], off)["done"].keys).to eq(["step:cover:remove"]), "made before it"
  end

  it "follows one plug from the well to the torque" do
    found =
      state(
        [0, "start"],
        [1, "well", { "plug" => "plug-5" }],
        [2, "out", { "plug" => "plug-5", "outcome" => "stubborn", "sign" => "more-force" }],
        [3, "read", { "plug" => "plug-5", "conditions" => %w[wet-fuel], "gap_mm" => 1.3 }],
        [4, "new", { "plug" => "plug-5", "gap_mm" => 1.05 }],
        [5, "in", { "plug" => "plug-5", "how" => "torque", "by_hand" => true, "piece" => "target:plug-5:work" }]
      )
    expect(found["plugs"]["plug-5"]).to eq(
      "well" => true,
      "out" => {
        "outcome" => "stubborn",
        "sign" => "more-force"
      },
      "read" => {
        "conditions" => %w[wet-fuel],
        "gap_mm" => 1.3
      },
      "new" => {
        "gap_mm" => 1.05
      },
      "in" => {
        "how" => "torque",
        "by_hand" => true
      }
    )
    expect(found["done"].keys).to eq(["target:plug-5:work"])
  end

  it "refuses a mark that lacks what it is about, with its path" do
    expect { marks([0, "out", { "plug" => "plug-5" }]) }.to raise_error(NimbleLedger::InvalidInput) { |e|
      expect(e.details.first["path"]).to eq("/outcome")
    }
    expect { marks([0, "left", { "piece" => "step:x:refit", "why" => " " }]) }.to raise_error(
      NimbleLedger::InvalidInput
    )
    expect { marks([0, "shrug"]) }.to raise_error(NimbleLedger::InvalidInput)
  end

  it "formats/card-cases.json is what the core says (run bin/formats)" do
    path = File.expand_path("../../../formats/card-cases.json", __dir__)
    expect(JSON.parse(File.read(path))).to eq(JSON.parse(JSON.generate(CardCases.all)))
  end
end
