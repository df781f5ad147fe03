# frozen_string_literal: true

require_relative "spec_helper"

# One declaration checks values with a path and a plain message, orders them for people, and prints itself as a schema.
RSpec.describe NimbleLedger::Shape do
  let(:shape) do
    described_class.object(
      required: {
        "name" => described_class.string(max: 5),
        "sizes" => described_class.list(described_class.number(max: 10), min: 1, max: 3)
      },
      optional: {
        "kind" => described_class.one_of("a", "b"),
        "count" => described_class.integer(min: 1, max: 9),
        "on" => described_class.boolean,
        "times" => described_class.triple,
        "tags" => described_class.map(described_class.string(max: 3), max: 2),
        "none" => described_class.nullable(described_class.number)
      }
    )
  end
  let(:sound) { { "name" => "abc", "sizes" => [1, 2.5] } }

  def faults(**change) =
    shape.faults(sound.merge(change.transform_keys(&:to_s))).map { |fault| [fault["path"], fault["message"]] }

  it "finds nothing wrong with what fits" do
    expect(
      shape.faults(
        sound.merge(
          "kind" => "a",
          "count" => 2.0,
          "on" => false,
          "times" => [1, 1, 2],
          "tags" => {
            "x" => "yes"
          },
          "none" => nil
        )
      )
    ).to eq([])
  end

  {
    { name: "" } => ["/name", "must not be empty"],
    { name: "   " } => ["/name", "must not be empty"],
    { name: "abcdef" } => ["/name", "is longer than 5 characters"],
    { name: 7 } => ["/name", "must be text, not a number"],
    { name: nil } => ["/name", "must be text, not null"],
    { name: "a\u0007" } => ["/name", "contains a control character"],
    { sizes: [] } => ["/sizes", "needs at least one entry"],
    { sizes: [1, 2, 3, 4] } => ["/sizes", "has 4 entries; at most 3 are allowed"],
    { sizes: [1, "2"] } => ["/sizes/1", "must be a number, not text"],
    { sizes: [Float::NAN] } => ["/sizes/0", "must be a finite number"],
    { sizes: [Float::INFINITY] } => ["/sizes/0", "must be a finite number"],
    { sizes: [-1] } => ["/sizes/0", "must not be below 0"],
    { sizes: [11] } => ["/sizes/0", "must not be above 10"],
    { sizes: {} } => ["/sizes", "must be a list, not an object"],
    { kind: "c" } => ["/kind", "must be one of: a, b"],
    { count: 1.5 } => ["/count", "must be a whole number"],
    { count: 0 } => ["/count", "must not be below 1"],
    { on: "yes" } => ["/on", "must be true or false, not text"],
    { times: [1, 2] } => ["/times", "must be three numbers: [low, likely, high]"],
    { times: [3, 2, 4] } => ["/times", "low (3) is above likely (2)"],
    { times: [1, 5, 4] } => ["/times", "likely (5) is above high (4)"],
    { times: 4 } => ["/times", "must be [low, likely, high], not a number"],
    { tags: { "a" => "long" } } => ["/tags/a", "is longer than 3 characters"],
    { tags: { "a" => "1", "b" => "1", "c" => "1" } } => ["/tags", "has 3 entries; at most 2 are allowed"],
    { none: "x" } => ["/none", "must be a number, not text"],
    { speed: 1 } => ["/speed", "is not a known key"]
  }.each do |change, expected|
    it "says #{expected.join(" ")} of #{change.inspect[0, 50]}" do
      expect(faults(**change)).to include(expected)
    end
  end

  it "names what is missing, and escapes odd keys in the path" do
    expect(shape.faults({}).map { |fault| fault["path"] }).to match_array(%w[/name /sizes])
    expect(shape.faults(sound.merge("a/b~c" => 1)).map { |fault| fault["path"] }).to eq(["/a~1b~0c"])
  end

  it "stops counting after a readable number of faults" do
    long = described_class.list(described_class.boolean, max: 1000)
    expect(long.faults(Array.new(900, 7)).size).to eq(described_class::MAX_FAULTS)
  end

  it "finds what stands twice in a list of one of each" do
    expect(described_class.list(described_class.string, unique: true).faults(%w[a b a])).to eq(
      [{ "path" => "/2", "message" => "stands twice (a)" }]
    )
  end

  it "raises with every fault, and hands back what fits" do
    expect(shape.check!(sound, what: "thing")).to equal(sound)
    expect { shape.check!({ "name" => 1, "sizes" => [] }, what: "thing", code: "bad_thing") }.to raise_error(
      NimbleLedger::InvalidInput
    ) { |e|
      expect([e.code, e.details.size, e.message]).to eq(
        ["bad_thing", 2, "The thing has 2 faults: /name must be text, not a number"]
      )
      expect(e.to_h["error"].keys).to eq(%w[code message details])
    }
  end

  it "puts keys in the order they are declared in, all the way down, and loses none" do
    nested =
      described_class.object(
        required: {
          "first" => described_class.list(shape),
          "second" => described_class.nullable(shape)
        }
      )
    mixed = {
      "second" => {
        "on" => true,
        "sizes" => [1],
        "name" => "b"
      },
      "first" => [{ "sizes" => [2], "name" => "a", "kind" => "b" }]
    }
    ordered = nested.ordered(mixed)
    expect(ordered).to eq(mixed)
    expect([ordered.keys, ordered["first"][0].keys, ordered["second"].keys]).to eq(
      [%w[first second], %w[name sizes kind], %w[name sizes on]]
    )
    expect(nested.ordered({ "first" => [], "second" => nil })).to eq("first" => [], "second" => nil)
  end

  it "prints itself as a schema that says the same" do
    schema = shape.schema
    expect(schema).to include("type" => "object", "additionalProperties" => false, "required" => %w[name sizes])
    expect(schema["properties"]["kind"]).to eq("enum" => %w[a b])
    expect(schema["properties"]["none"]).to eq(
      "anyOf" => [{ "type" => "number", "maximum" => 1_000_000, "minimum" => 0 }, { "type" => "null" }]
    )
  end
end
