# frozen_string_literal: true

require_relative "../spec_helper"

# What holds for a car's plugs whatever its engine's profile says, and that its card goes by it.
RSpec.describe NimbleLedger::Bench::PlugNotes do
  def notes(hash) = described_class.build(hash)

  def plug(code, target, noted)
    hash = Engines.request([target], equipment: Engines::EQUIPMENT)
    documents = NimbleLedger::Documents.new(engine: Engines.engine(code), catalog: Engines.catalog)
    asked = NimbleLedger::Estimate::Request.build(hash, documents: documents)
    sheet = NimbleLedger::Card::Sheet.new(asked.job(car: asked.car.with(plug_notes: notes(noted)))).to_h
    sheet["pieces"].filter_map { |piece| piece["plug"] }.last
  end

  it "is nothing where nothing is noted" do
    expect([notes(nil), notes({}), notes("gap_mm" => nil, "torque_note" => " ")]).to all(be_nil)
  end

  it "refuses a gap no plug has and one that is upside down, with its place" do
    {
      { "low" => 6, "high" => 7 } => "/plug_notes/gap_mm/low",
      { "low" => 0.8, "high" => 0.7 } => "/plug_notes/gap_mm"
    }.each do |gap, path|
      expect { notes("gap_mm" => gap) }.to raise_error(NimbleLedger::InvalidInput) { |error|
        expect(error.details.map { |detail| detail["path"] }).to include(path)
      }
    end
  end

  it "takes the place of the profile's gap on the card, says that it is the car's, and leaves the torque alone" do
    plain = plug("SK18", "plug-1", nil)
    own =
      plug("SK18", "plug-1", "gap_mm" => { "low" => 0.61, "high" => 0.66 }, "torque_note" => "insert: by hand first")
    expect(plain.keys & %w[own_gap torque_note]).to eq([])
    expect(own).to eq(
      plain.merge(
        "gap_mm" => {
          "low" => 0.61,
          "high" => 0.66
        },
        "own_gap" => true,
        "torque_note" => "insert: by hand first"
      )
    )
  end

  it "keeps the profile's gap where only the torque is noted" do
    noted = plug("SK18", "plug-1", "torque_note" => "insert: by hand first")
    expect(noted["gap_mm"]).to eq(plug("SK18", "plug-1", nil)["gap_mm"])
    expect(noted).not_to have_key("own_gap")
  end
end
