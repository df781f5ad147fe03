# frozen_string_literal: true

require_relative "../spec_helper"

# Small repairs found beside the job, as lines by hand: from the card into the quote, and back on to the card.
RSpec.describe NimbleLedger::Card::Repair do
  let(:house) { NimbleLedger::House::Settings.defaults }

  def job(targets, **rest)
    hash = Engines.request(targets, equipment: Engines::EQUIPMENT, **rest)
    documents = NimbleLedger::Documents.new(engine: Engines.engine("JIV6"), catalog: Engines.catalog)
    NimbleLedger::Estimate::Request.build(hash, documents: documents).job
  end

  it "is hours at the shop's rate, rounded up to its increment, and the material where there is any" do
    bolt = described_class.for("bolt-snapped", 3, house)
    expect(bolt.hours).to eq(0.7) # 40 min
    expect(bolt.entered.map { |row| row.values_at("class", "quantity", "each_cents") }).to eq(
      [["labor", 0.7, house["rate_cents"]], ["parts", 1, 600]]
    )
    lost = described_class.for("lost-in-well", nil, house)
    expect(lost.entered.map { |row| row["label"] }).to eq(["Something in the well: fetched out"])
    expect(described_class.for("bolt-missing", 3, house)).to be_nil
  end

  it "is proposed for what was found at its price, with hours and no target" do
    open = job(%w[coil-5])
    found = NimbleLedger::Card::Proposal.new("connector-lock-broken", 5, open).to_h
    lines = described_class.for("connector-lock-broken", 5, open.car.house).lines
    by_itself = job(%w[coil-5], lines: lines.map(&:to_h)).price.total_cents
    expect(found.values_at("targets", "added_hours")).to eq([[], 0.4])
    expect(found.values_at("added_cents", "total_cents")).to eq([by_itself - open.price.total_cents, by_itself])
    expect(NimbleLedger::Card::Proposal.new("bolt-missing", 5, open).to_h["added_cents"]).to be_nil
  end

  it "is on the card once it is agreed: before the start, and ticked before the engine is started" do
    lines = described_class.for("bolt-snapped", 5, house).lines.map(&:to_h)
    sheet = NimbleLedger::Card::Sheet.new(job(%w[coil-5], lines: lines)).to_h
    expect(sheet["by_hand"]).to eq(lines)
    check = sheet["pieces"].find { |piece| piece["id"] == "house:leak_check" }
    expect(check["ticks"].map { |tick| tick["label"] }).to start_with(
      "agreed beside it, done: Snapped bolt at cylinder 5: drilled out",
      "agreed beside it, done: Snapped bolt at cylinder 5: bolt and thread"
    )
  end
end
