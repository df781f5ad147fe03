# frozen_string_literal: true

require_relative "../spec_helper"

# Canonical JSON after RFC 8785; the numbers are those of its appendix B.
RSpec.describe NimbleLedger::Record::Canonical do
  def json(value) = described_class.json(value)

  [
    [0.0, "0"],
    [-0.0, "0"],
    [5e-324, "5e-324"],
    [-5e-324, "-5e-324"],
    [1.7976931348623157e308, "1.7976931348623157e+308"],
    [9007199254740992.0, "9007199254740992"],
    [295147905179352830000.0, "295147905179352830000"],
    [9.999999999999997e22, "9.999999999999997e+22"],
    [1e23, "1e+23"],
    [1.0000000000000001e23, "1.0000000000000001e+23"],
    [999999999999999700000.0, "999999999999999700000"],
    [999999999999999900000.0, "999999999999999900000"],
    [1e21, "1e+21"],
    [9.999999999999997e-7, "9.999999999999997e-7"],
    [0.000001, "0.000001"],
    [333333333.3333332, "333333333.3333332"],
    [333333333.33333325, "333333333.33333325"],
    [-0.0000033333333333333333, "-0.0000033333333333333333"],
    [1424953923781206.2, "1424953923781206.2"],
    [2.0, "2"],
    [154.35, "154.35"]
  ].each { |number, text| it("writes #{text}") { expect(json(number)).to eq(text) } }

  it "sorts keys by their UTF-16 units and escapes no more than it must" do
    expect(
      json({ "\u20ac" => 1, "\r" => 2, "\ufb33" => 3, "1" => 4, "\u{1f600}" => 5, "\u0080" => 6, "\u00f6" => 7 })
    ).to eq("{\"\\r\":2,\"1\":4,\"\u0080\":6,\"\u00f6\":7,\"\u20ac\":1,\"\u{1f600}\":5,\"\ufb33\":3}")
    expect(json({ "s" => "\u20ac$\u000f\nA'B\"\\\"/" })).to eq("{\"s\":\"\u20ac$\\u000f\\nA'B\\\"\\\\\\\"/\"}")
  end

  it "gives one text for one value, however it was written" do
    rng = Random.new(8)
    value =
      lambda do |depth|
        case rng.rand(depth.zero? ? 5 : 7)
        when 0
          rng.rand(-1_000_000..1_000_000)
        when 1
          rng.rand * (10**rng.rand(-12..20))
        when 2
          [true, false, nil].sample(random: rng)
        when 3, 4
          Array
            .new(rng.rand(0..6)) do
              [rng.rand(32..126), rng.rand(160..2_000), rng.rand(0x1f600..0x1f640)].sample(random: rng)
            end
            .pack("U*")
        when 5
          Array.new(rng.rand(0..4)) { value.call(depth - 1) }
        else
          Array.new(rng.rand(0..4)) { [rng.rand(97..122).chr * rng.rand(1..3), value.call(depth - 1)] }.to_h
        end
      end
    300.times do
      one = value.call(4)
      read = JSON.parse(json(one))
      expect(json(read)).to eq(json(one))
      expect(json(one.is_a?(Hash) ? one.to_a.shuffle(random: rng).to_h : one)).to eq(json(one))
    end
  end

  it "refuses what has no such form" do
    [Float::NAN, Float::INFINITY, Object.new, 1r].each { |odd| expect { json(odd) }.to raise_error(ArgumentError) }
  end
end
