# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Card::TraceEvidence do
  let(:sheet) do
    {
      "plugs" => [{ "key" => "plug-1", "cylinder" => 1 }, { "key" => "plug-2", "cylinder" => 2 }],
      "pieces" => [
        { "id" => "step:cover:remove", "ref" => "cover" },
        { "id" => "step:coil-1:remove", "ref" => "coil-1" },
        { "id" => "target:plug-1:work", "ref" => "plug-1" },
        { "id" => "step:coil-1:refit", "ref" => "coil-1" },
        { "id" => "step:cover:refit", "ref" => "cover" }
      ]
    }
  end

  def told(**state)
    described_class.new(sheet, { "plugs" => {}, "codes" => [], "done" => {} }.merge(state.transform_keys(&:to_s)))
  end

  def looked(*conditions) = told(plugs: { "plug-2" => { "read" => { "conditions" => conditions } } }).evidence

  it "tells nothing of a card nobody has marked" do
    expect([told.codes, told.lamp, told.evidence, told.open]).to eq([nil, nil, [], []])
  end

  it "tells the codes and the lamp as they were last read" do
    codes = [{ "codes" => [], "lamp" => "off" }, { "codes" => [{ "code" => "P0302" }], "lamp" => "blinking" }]
    expect([told(codes: codes).codes, told(codes: codes).lamp]).to eq([[{ "code" => "P0302" }], "blinking"])
  end

  it "reads a plug as the trade does: wet before sooty, a stained ring is normal, what says nothing stays out" do
    expect(looked("sooty", "wet-fuel")).to eq([{ "test" => "read-plug", "cylinder" => 2, "outcome" => "wet" }])
    outcomes = %w[stained wet-oil tracked worn].map { |condition| looked(condition).first["outcome"] }
    expect(outcomes).to eq(%w[normal oily cracked worn])
    expect(looked("rust", "loose")).to eq([])
    known = NimbleLedger::Trace::SHIPPED["tests"]["read-plug"]["outcomes"]
    expect(described_class::LOOKS.values.uniq - known).to eq([])
    expect(described_class::LOOKS.keys - NimbleLedger::Card::Event::CONDITIONS).to eq([])
  end

  it "holds a layer open from its taking off to its going back" do
    off = { "step:cover:remove" => "a", "step:coil-1:remove" => "b" }
    expect(told(done: off).open).to eq(%w[cover coil-1])
    expect(told(done: off.merge("step:coil-1:refit" => "c")).open).to eq(["cover"])
  end
end
