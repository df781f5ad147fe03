# frozen_string_literal: true

require_relative "../spec_helper"

# Every demo engine's card worked from top to bottom, with each soak it allows: a plug breaks, something is found, every
# act is done where the card says it, every tick is made; then nothing is open, and everything is done.
RSpec.describe NimbleLedger::Card do
  PAST_OF_WORKED = { "odometer_km" => 180_000, "plugs_changed_km" => 60_000, "plugs_changed_years" => 9 }.freeze

  def job(code, targets, soak)
    given = { equipment: Engines.engine(code).equipment, history: PAST_OF_WORKED, soak: soak }
    documents = NimbleLedger::Documents.new(engine: Engines.engine(code), catalog: Engines.catalog)
    NimbleLedger::Estimate::Request.build(Engines.request(targets, **given), documents: documents).job
  end

  # What a technician marks, piece by piece.
  class Hand
    attr_reader :events

    def initialize
      @events = []
    end

    def mark(kind, **values)
      at = (Time.utc(2026, 11, 26, 8) + (events.size * 90)).iso8601(3)
      row = { "id" => "w#{events.size}", "at" => at, "kind" => kind }.merge(values.transform_keys(&:to_s))
      events << NimbleLedger::Card::Event.parse(row)
      row["id"]
    end

    def fold = NimbleLedger::Card::Fold.new(events)
  end

  MARK_OF_ACT = { "clean" => "well", "out" => "out", "read" => "read", "dry" => "dry", "in" => "in" }.freeze

  # @param breaks [String] target of the plug that breaks
  def work(sheet, hand, breaks)
    hand.mark("start")
    sheet["pieces"].each do |piece|
      (piece["ticks"] || []).each { |tick| hand.mark("tick", piece: piece["id"], item: tick["item"]) }
      (piece["acts"] || []).each { |act| do_act(piece, act["act"], hand, breaks) }
      hand.mark("check", piece: piece["id"])
    end
    hand.mark("found", finding: "boot-torn", cylinder: sheet["plugs"].first["cylinder"])
    hand.mark("finished")
  end

  def do_act(piece, act, hand, breaks)
    kind = MARK_OF_ACT[act] or return
    piece["plugs"].each do |plug|
      (1..plug["count"]).each do |nth|
        about = plug["count"] > 1 ? { plug: plug["target"], nth: nth } : { plug: plug["target"] }
        about = about.merge(how: piece.dig("plug", "by") || "torque", piece: piece["id"]) if kind == "in"
        kind == "out" ? come_out(about, hand, breaks) : hand.mark(kind, **about)
      end
    end
  end

  def come_out(about, hand, breaks)
    return hand.mark("out", **about, outcome: "free") unless about[:plug] == breaks

    fight = hand.mark("fight", what: "broken", plug: about[:plug])
    hand.mark("out", **about, outcome: "broken")
    hand.mark("over", of: fight)
  end

  Engines.codes.each do |code|
    it "#{code}: can be worked to its end with every soak, a break and a finding" do
      engine = Engines.engine(code)
      plugs = engine.targets.select(&:plug?).map(&:id)
      ["none", *engine.soaks].each do |soak|
        made = job(code, plugs, soak)
        sheet = described_class::Sheet.new(made).to_h
        hand = Hand.new
        work(sheet, hand, plugs.first)
        nights = described_class::Nights.new(made.car.house["opening_hours"])
        standing = described_class::Standing.new(made, hand.fold, nights: nights, limit_cents: made.price.total_cents)
        state = hand.fold.state
        expect(standing.to_h["open"]).to eq([]), "#{code} #{soak}"
        expect(described_class::WorkDone.of(made.targets, state["done"])).to eq(made.targets)
        outcomes = state["plugs"].values.map { |plug| plug["out"]["outcome"] }
        if sheet["plugs"].size > 1
          expect(outcomes.tally).to eq(
            "broken" => made.targets.find { |t| t.id == plugs.first }.plugs,
            "free" => sheet["plugs"].size - made.targets.find { |t| t.id == plugs.first }.plugs
          )
        end
        expect(standing.so_far_cents).to be > made.price.total_cents
        found = described_class::Proposal.new("boot-torn", sheet["plugs"].first["cylinder"], made)
        expect(found.targets.any? || found.lacking?).to be(true), "#{code}: nothing for a torn boot"
      end
    end
  end
end
