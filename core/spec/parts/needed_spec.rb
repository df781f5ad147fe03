# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Parts::Needed do
  def needed(code, targets, **rest) = Engines.answer(code, targets, **rest).needed

  def rows(needed) = needed.rows.to_h { |row| [row.part, [row.quantity, row.rule]] }

  it "lists plugs, coils and every disturbed seal, with what may be needed besides" do
    found = rows(needed("JIV6", %w[plug-5 coil-5]))
    expect(found).to include(
      "PLG-74865" => [1, "needed"],
      "COI-80409" => [1, "needed"],
      "SEA-46375" => [6, "replace"],
      "SEA-70833" => [1, "replace"],
      "CLP-28278" => [3, "if-needed"]
    )
    expect(rows(needed("JIV6", %w[plug-2]))).not_to include("SEA-46375")
  end

  it "says what each part is for" do
    because = needed("JIV6", %w[plug-1 plug-3]).rows.to_h { |row| [row.part, row.because] }
    expect(because["PLG-74865"]).to eq(%w[plug-1 plug-3])
    expect(because["SEA-46375"]).to eq(["manifold"])
  end

  it "needs a shared coil once, for both cylinders" do
    hash =
      profile(
        steps: [],
        targets: [target("coil-a", cylinder: 1), target("coil-b", cylinder: 4)],
        coils: [{ "id" => "pair", "part" => "COI-9", "cylinders" => [1, 4] }]
      )
    request = {
      "format" => "nimble-ledger.estimate-request",
      "version" => 1,
      "engine" => hash,
      "targets" => %w[coil-a coil-b]
    }
    answer = NimbleLedger::Estimate::Answer.new(NimbleLedger::Estimate::Request.build(request))
    expect(answer.to_h["parts"]).to eq(
      [{ "part" => "COI-9", "quantity" => 1, "because" => %w[coil-a coil-b], "rule" => "needed" }]
    )
  end

  it "follows the stricter of profile and house on seals marked inspect" do
    steps = [step("m", seals: [{ "part" => "SEA-9", "quantity" => 2, "rule" => "inspect", "chance" => 0.3 }])]
    planner = planner(profile(steps: steps, targets: [target("t", through: ["m"])]))
    plan = planner.plan([planner.graph.engine.target("t")])
    rule = ->(house) do
      described_class.new(plan, house: planner.house.with(house)).rows.find { |row| row.part == "SEA-9" }.rule
    end
    expect(rule.call({})).to eq("if-needed")
    expect(rule.call({ "inspect_seals" => "replace" })).to eq("replace")
  end

  it "greases reused boots only, and tops up the coolant a step releases" do
    names = ->(needed) { needed.consumables.to_h { |row| [row.label, row.quantity] } }
    expect(names.call(needed("SK18", %w[plug-1 plug-2]))).to eq("Boot grease" => 2)
    expect(names.call(needed("SK18", %w[plug-1 coil-1]))).to eq({})
    expect(names.call(needed("KUJ6", %w[coil-2]))).to eq("Coolant top-up" => 0.3)
    expect(names.call(needed("SK18", %w[plug-1], soak: "short"))).to include("Penetrating cleaner" => 1)
  end
end
