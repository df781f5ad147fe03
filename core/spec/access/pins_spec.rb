# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Access::Pins do
  let(:engine) do
    steps = [step("a"), step("b"), step("c"), step("d"), step("twin", after: [any("a", "b"), any("c", "d")])]
    hash =
      profile(
        steps: steps,
        targets: [
          target("t", ways: [{ "id" => "w", "through" => ["twin"] }, { "id" => "v", "through" => [any("a", "c")] }]),
          target("twin", cylinder: 2, through: [any("b", "d")])
        ]
      )
    NimbleLedger::Profile::Engine.build(hash)
  end
  let(:twin) { engine.step("twin") }

  def pins(hash) = described_class.new(engine, hash)

  def member(holder, choice, id) = NimbleLedger::Access::Alternatives::Member.new(holder, choice, id)

  it "binds each member of a list to the choice that holds it" do
    both = pins("choices" => { "step:twin" => %w[b c] })
    expect(twin.choices.map { |choice| both.member(choice) }).to eq(%w[b c])
  end

  it "wants step: or target: where both of that id hold a choice" do
    expect { pins("choices" => { "twin" => "b" }) }.to raise_error(NimbleLedger::InvalidInput) { |e|
      expect(e.details.first["message"]).to include("write step:twin or target:twin")
    }
    expect(pins("choices" => { "target:twin" => "d" }).member(engine.target("twin").ways.first.choices.first)).to eq(
      "d"
    )
  end

  {
    "a target the engine lacks" => [{ "ways" => { "ghost" => "w" } }, "/pins/ways/ghost"],
    "a way the target lacks" => [{ "ways" => { "t" => "ghost" } }, "/pins/ways/t"],
    "a holder without a choice" => [{ "choices" => { "a" => "b" } }, "/pins/choices/a"],
    "a member of no choice" => [{ "choices" => { "step:twin" => "ghost" } }, "/pins/choices/step:twin"],
    "two members of one choice" => [{ "choices" => { "step:twin" => %w[a b] } }, "/pins/choices/step:twin"]
  }.each do |name, (hash, path)|
    it "refuses #{name}, with its path" do
      expect { pins(hash) }.to raise_error(NimbleLedger::InvalidInput) { |e|
        expect(e.details.map { |d| d["path"] }).to eq([path])
      }
    end
  end

  it "lays others over, choice by choice, and takes them off again" do
    first, second = twin.choices
    start = pins("ways" => { "t" => "w" }, "choices" => { "step:twin" => "a" })
    more = start.with(ways: { "twin" => "way" }, members: [member(twin, second, "d")])
    expect(more.to_h).to eq("ways" => { "t" => "w", "twin" => "way" }, "choices" => { "step:twin" => %w[a d] })
    changed = more.with(members: [member(twin, first, "b")])
    expect(twin.choices.map { |choice| changed.member(choice) }).to eq(%w[b d])
    gone = changed.without(ways: ["t"], members: [member(twin, first, nil), member(twin, second, nil)])
    expect(gone.to_h).to eq("ways" => { "twin" => "way" }, "choices" => {})
    expect([start.any?, gone.without(ways: ["twin"]).any?]).to eq([true, false])
  end

  it "ignores what the plan does not reach" do
    planner = NimbleLedger::Car.new(engine: engine, pins: pins("choices" => { "step:twin" => "a" })).planner
    expect(planner.plan([engine.target("twin")]).choices).to eq("target:twin" => ["b"])
  end
end
