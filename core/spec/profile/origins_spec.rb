# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Profile::Origins do
  let(:plain) { profile(steps: [step("cover"), step("pipe")], targets: [target("plug-1", work: "plug")]) }

  it "takes a figure that says nothing for a typed one" do
    expect(described_class.of(plain, "steps", "cover", "remove")).to eq({ "from" => "typed" })
    expect(described_class.counts(plain)).to eq("typed" => 5, "pattern" => 0, "kind" => 0, "learned" => 0)
  end

  it "notes where a figure comes from, with the jobs it was learned from" do
    described_class.note(plain, "steps", "cover", "remove", "kind")
    described_class.note(plain, "targets", "plug-1", "minutes", "learned", jobs: 14)
    expect(described_class.of(plain, "steps", "cover", "remove")).to eq({ "from" => "kind" })
    expect(described_class.of(plain, "targets", "plug-1", "minutes")).to eq({ "from" => "learned", "jobs" => 14 })
    expect(described_class.counts(plain)).to eq("typed" => 3, "pattern" => 0, "kind" => 1, "learned" => 1)
  end

  it "leaves no trace of what was typed over, or of a step that is gone" do
    before = JSON.parse(JSON.generate(plain))
    described_class.note(plain, "steps", "cover", "remove", "pattern")
    described_class.note(plain, "steps", "cover", "remove", "typed")
    expect(plain).to eq(before)
    described_class.note(plain, "steps", "pipe", "refit", "kind")
    described_class.forget(plain, "steps", "pipe")
    expect(plain).to eq(before)
  end

  it "is part of the format, and changes no figure" do
    described_class.note(plain, "steps", "cover", "remove", "learned", jobs: 3)
    engine = NimbleLedger::Profile::Engine.build(plain)
    expect(engine.source["origins"]).to eq("steps:cover:remove" => { "from" => "learned", "jobs" => 3 })
    bare = NimbleLedger::Profile::Engine.build(plain.except("origins"))
    minutes =
      [engine, bare].map { |one| NimbleLedger::Car.new(engine: one).job([one.target("plug-1")]).plan.job.total.mean }
    expect(minutes.uniq.size).to eq(1)
    wrong = plain.merge("origins" => { "steps:cover:remove" => { "from" => "dreamed" } })
    expect { NimbleLedger::Profile::Engine.build(wrong) }.to raise_error(NimbleLedger::InvalidInput) { |e|
      expect(e.details.first["path"]).to eq("/origins/steps:cover:remove/from")
    }
  end
end
