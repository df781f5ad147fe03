# frozen_string_literal: true

require_relative "../spec_helper"

# Ways about as short that are quieter on the car (model.md section 2, "Near tie").
RSpec.describe NimbleLedger::Access::NearTies do
  def ties(house: {}, minutes: 11, **quick)
    steps = [
      step("aside", minutes),
      step("unplug", 5, **{ closing: [{ "what" => "relearn", "minutes" => [5, 5, 5] }] }.merge(quick)),
      step("m", 10, after: [any("aside", "unplug")])
    ]
    hash = profile(steps: steps, targets: [target("t", through: ["m"])])
    NimbleLedger::Estimate::Request.build(Engines.request(["t"], engine: hash, house: house)).answer["plan"][
      "near_ties"
    ]
  end

  it "names the way without a relearn where it takes a minute more, and not where it takes three" do
    expect(ties).to eq(
      [
        {
          "ways" => {
            "t" => "way"
          },
          "choices" => {
            "m" => ["aside"]
          },
          "extra_minutes" => 1.0,
          "spares" => ["closing"]
        }
      ]
    )
    expect(ties(minutes: 13)).to be_nil
    expect(ties(minutes: 13, house: { "near_tie_minutes" => 4 }).size).to eq(1)
  end

  it "says whether it spares the battery or new parts" do
    expect(ties(minutes: 11, closing: [], battery: true)[0]["spares"]).to eq(["battery"])
    expect(ties(minutes: 6, closing: [], seals: [{ "part" => "SEA-1", "rule" => "replace" }])[0]["spares"]).to eq(
      ["parts"]
    )
    expect(ties(minutes: 6, closing: [])).to be_nil
  end
end
