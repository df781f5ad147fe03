# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Profile::Engine do
  def faults(hash)
    described_class.build(hash)
    []
  rescue NimbleLedger::InvalidInput => e
    expect(e.code).to eq("invalid_profile")
    e.details
  end

  def sound
    profile(
      steps: [step("a"), step("b", after: ["a"]), step("m", after: [any("a", "b")])],
      targets: [target("p", work: "plug", through: ["m"]), target("c", through: ["b"])],
      coils: [{ "id" => "c1", "part" => "X", "cylinders" => [1] }]
    )
  end

  # What breaks it, where the fault is, and a word of the message.
  BROKEN = {
    "a dangling prerequisite" => [->(h) { h["steps"][1]["after"] = ["ghost"] }, "/steps/1/after/0", /ghost/],
    "a dangling member" => [->(h) { h["steps"][2]["after"][0]["any"][1] = "ghost" }, "/steps/2/after/0/any/1", /ghost/],
    "a dangling way" => [
      ->(h) { h["targets"][0]["ways"][0]["through"] = ["ghost"] },
      "/targets/0/ways/0/through/0",
      /ghost/
    ],
    "a cycle" => [->(h) { h["steps"][0]["after"] = ["b"] }, "/steps/1/after/0", /a → b → a/],
    "a cycle through a choice" => [
      ->(h) { h["steps"][0]["after"] = [{ "any" => %w[m b] }] },
      "/steps/2/after/0/any/0",
      /→/
    ],
    "low above likely" => [->(h) { h["steps"][0]["remove"] = [3, 2, 4] }, "/steps/0/remove", /low .* above likely/],
    "likely above high" => [
      ->(h) { h["targets"][0]["minutes"] = [1, 5, 4] },
      "/targets/0/minutes",
      /likely .* above high/
    ],
    "a negative time" => [->(h) { h["steps"][0]["refit"] = [-1, 2, 4] }, "/steps/0/refit/0", /below 0/],
    "text for a number" => [->(h) { h["steps"][0]["remove"][1] = "5" }, "/steps/0/remove/1", /number, not text/],
    "an unknown key" => [->(h) { h["steps"][0]["colour"] = "red" }, "/steps/0/colour", /not a known key/],
    "a missing key" => [->(h) { h["steps"][0].delete("label") }, "/steps/0/label", /missing/],
    "a repeated step" => [->(h) { h["steps"][1]["id"] = "a" }, "/steps/1/id", /already used/],
    "a repeated target" => [->(h) { h["targets"][1]["id"] = "p" }, "/targets/1/id", /already used/],
    "a repeated way" => [->(h) { h["targets"][0]["ways"] *= 2 }, "/targets/0/ways/1/id", /already used/],
    "a repeated cylinder" => [->(h) { h["cylinders"] *= 2 }, "/cylinders/1/number", /already used/],
    "a target without ways" => [->(h) { h["targets"][0]["ways"] = [] }, "/targets/0/ways", /at least one/],
    "a choice of one" => [->(h) { h["steps"][2]["after"][0]["any"] = ["a"] }, "/steps/2/after/0/any", /at least 2/],
    "a choice of seven" => [
      ->(h) { h["steps"][2]["after"][0]["any"] = %w[a b c d e f g] },
      "/steps/2/after/0/any",
      /at most 6/
    ],
    "five ways" => [
      ->(h) { h["targets"][0]["ways"] = (1..5).map { |i| { "id" => "w#{i}" } } },
      "/targets/0/ways",
      /at most 4/
    ],
    "a cylinder without a plug" => [
      ->(h) { h["cylinders"] << { "number" => 2, "position" => 2 } },
      "/cylinders/1",
      /no plug target/
    ],
    "plugs that do not add up" => [
      ->(h) do
        h["plug"]["per_cylinder"] = 2
        h["targets"][0]["plugs"] = 1
      end,
      "/targets/0",
      /hold 1 plugs/
    ],
    "a coil on no cylinder" => [->(h) { h["coils"][0]["cylinders"] = [9] }, "/coils/0/cylinders/0", /cylinder 9/],
    "a plug of its own at a coil" => [
      ->(h) { h["targets"][1]["plug"] = { "part" => "X" } },
      "/targets/1/plug",
      /only a plug target/
    ],
    "a target on no cylinder" => [->(h) { h["targets"][1]["cylinder"] = 9 }, "/targets/1/cylinder", /cylinder 9/],
    "an infinite number" => [->(h) { h["steps"][0]["remove"][2] = Float::INFINITY }, "/steps/0/remove/2", /finite/],
    "a number above a million" => [
      ->(h) { h["plug"]["interval_km"] = 2_000_000 },
      "/plug/interval_km",
      /above 1000000/
    ],
    "a vee without banks" => [->(h) { h["arrangement"] = "vee" }, "/cylinders/0/bank", /left or right/],
    "a future version" => [->(h) { h["version"] = 2 }, "/version", /must be 1/],
    "too many steps" => [->(h) { h["steps"] = Array.new(1_000_000, 0) }, "/steps", /at most 80/],
    "other work without a label" => [
      ->(h) { h["targets"][1].merge!("work" => "other") },
      "/targets/1/label",
      /needs a label/
    ],
    "a control character" => [->(h) { h["name"] = "a\u0000b" }, "/name", /control character/]
  }.freeze

  BROKEN.each do |name, (break_it, path, message)|
    it "refuses #{name}, says where and what" do
      hash = sound
      hash["mounting"] = "lengthwise"
      break_it.call(hash)
      found = faults(hash)
      expect(found).not_to be_empty
      expect(found.map { |fault| fault["path"] }).to include(path)
      expect(found.map { |fault| fault["message"] }).to include(match(message))
    end
  end

  it "accepts the sound profile, and only warns of a step nothing reaches" do
    hash = sound
    expect(faults(hash)).to be_empty
    hash["steps"] << step("loose")
    expect(described_class.build(hash).warnings).to match([{ "path" => "/steps/3", "message" => /loose/ }])
  end

  it "counts choices, in after and through together" do
    hash = sound
    hash["targets"][0]["ways"][0]["through"] = Array.new(12) { any("a", "b") }
    expect(faults(hash).map { |fault| fault["message"] }).to include(/13 choices; at most 12/)
  end

  it "refuses hostile texts quickly" do
    document = NimbleLedger::Document
    deep = "#{"[" * 3_000_000}#{"]" * 900_000}"
    {
      "too_large" => "x" * 5_000_000,
      "too_deep" => deep,
      "invalid_json" => "{\n\"a\": nope}",
      "invalid_encoding" => "{\"a\": \"\xFF\"}"
    }.each do |code, text|
      effort =
        processor_seconds do
          expect { document.parse(text) }.to raise_error(NimbleLedger::InvalidInput) { |e| expect(e.code).to eq(code) }
        end
      expect(effort).to be < 1
    end
    expect { document.parse("[NaN]") }.to raise_error(NimbleLedger::InvalidInput)
  end
end
