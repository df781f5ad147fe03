# frozen_string_literal: true

require_relative "../spec_helper"

# Grease goes on the plugs in scope whose own boot is old (model.md section 6).
RSpec.describe NimbleLedger::Parts::Boots do
  # How many boots are greased on an engine with these options when these targets are done.
  def greased(ids, targets:, steps: [], house: {}, **engine)
    hash = profile(steps: steps, targets: targets, **engine)
    request = NimbleLedger::Estimate::Request.build(Engines.request(ids, engine: hash, house: house))
    row = NimbleLedger::Estimate::Answer.new(request).needed.consumables.find { |one| one.label == "Boot grease" }
    row ? row.quantity : 0
  end

  def two_plugs
    {
      targets: [target("plug-1", work: "plug", plugs: 2), target("coil-a", coil: "a"), target("coil-b", coil: "b")],
      plug: {
        "part" => "P",
        "per_cylinder" => 2
      },
      coils: [{ "id" => "a", "part" => "C", "cylinders" => [1] }, { "id" => "b", "part" => "C", "cylinders" => [1] }]
    }
  end

  it "both boots of a two-plug cylinder, and the second one where only one of its coils is new" do
    engine = two_plugs
    expect(greased(%w[plug-1], **engine)).to eq(2)
    expect(greased(%w[plug-1 coil-a], **engine)).to eq(1)
    expect(greased(%w[plug-1 coil-a coil-b], **engine)).to eq(0)
  end

  it "the boot of the plug whose way goes through the old coil" do
    engine =
      two_plugs.merge(
        steps: [step("a", cylinder: 1), step("b", cylinder: 1)],
        targets: [
          target("in", work: "plug", plugs: 1, through: ["a"]),
          target("out", work: "plug", plugs: 1, through: ["b"]),
          target("coil-a", coil: "a", through: ["a"])
        ]
      )
    expect(greased(%w[in coil-a], **engine)).to eq(0)
    expect(greased(%w[out coil-a], **engine)).to eq(1)
  end

  it "a boot on a wire, where only the remote coil pack is new" do
    pack = [{ "id" => "pack", "part" => "C", "cylinders" => [1, 2] }]
    plugs = [1, 2].map { |n| target("plug-#{n}", work: "plug", cylinder: n) }
    remote = { targets: plugs + [target("coil", cylinder: nil, cylinders: [1, 2])], coils: pack, ignition: "paired" }
    expect(greased(%w[plug-1 plug-2 coil], **remote)).to eq(2)
    wired =
      remote.merge(
        targets:
          remote[:targets] + [target("wire-2", work: "wire", cylinder: 2, parts: [{ "part" => "W", "quantity" => 1 }])]
      )
    on_plug =
      wired.merge(
        steps: [step("pack", cylinder: 1)],
        targets: [target("plug-1", work: "plug", through: ["pack"]), *wired[:targets].drop(1)]
      )
    expect(greased(%w[plug-1 plug-2 coil], **on_plug)).to eq(1)
    expect(greased(%w[plug-1 plug-2 coil wire-2], **on_plug)).to eq(0)
    expect(greased(%w[plug-1 plug-2 coil], targets: remote[:targets], coils: pack, ignition: "distributor")).to eq(2)
  end

  it "by whose word: film beats the shop and not the job, forbidden beats every word" do
    engine = { targets: [target("plug-1", work: "plug")] }
    none = { "boot_grease" => "none" }
    expect(greased(%w[plug-1], house: none, **engine)).to eq(0)
    expect(greased(%w[plug-1], house: none, boot_grease: "film", **engine)).to eq(0)
    expect(greased(%w[plug-1], house: { "boot_grease" => "reused" }, boot_grease: "forbidden", **engine)).to eq(0)
    expect(greased(%w[plug-1], house_overrides: none, **engine)).to eq(0)
    expect(greased(%w[plug-1], house_overrides: none, house: { "boot_grease" => "reused" }, **engine)).to eq(1)
    shop = NimbleLedger::House::Settings.defaults.with(none)
    built = NimbleLedger::Profile::Engine.build(profile(steps: [], boot_grease: "film", **engine))
    expect(NimbleLedger::House::Precedence.resolve(shop, built)["boot_grease"]).to eq("reused")
  end
end
