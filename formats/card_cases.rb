# frozen_string_literal: true

require_relative "../core/lib/nimble_ledger"

# Lists of marks with the state the core folds them to: what the device's own fold (web/src/bay/fold.ts) must say too.
# Generated from a seed, so that they are the same every time.
module CardCases
  COUNT = 60
  PIECES = %w[
    step:cover:remove
    step:cover:refit
    target:plug-1:work
    target:coil-1:work
    house:leak_check
    wait:soak
  ].freeze
  PLUGS = [["plug-1", nil], ["plug-2", 1], ["plug-2", 2]].freeze
  START = Time.utc(2026, 11, 26, 8)

  module_function

  # @return [Array<Hash>] "events" in the order they arrived, "state"
  def all = (1..COUNT).map { |seed| one(Random.new(seed)) }

  def one(rng)
    events = marks(rng, rng.rand(0..24))
    arrived = (events + events.sample(3, random: rng)).shuffle(random: rng)
    fold = NimbleLedger::Card::Fold.new(arrived.map { |event| NimbleLedger::Card::Event.parse(event) })
    { "events" => arrived, "state" => fold.state }
  end

  # Marks of every kind, some at the same moment, some undone, some about what is not there.
  def marks(rng, count)
    ids = Array.new(count) { |i| format("e%02d", i) }
    ids.map do |id|
      kind = NimbleLedger::Card::Event::KINDS.sample(random: rng)
      at = START + (rng.rand(0..40) * 30)
      { "id" => id, "at" => at.iso8601(3), "kind" => kind }.merge(values(kind, ids, rng))
    end
  end

  def values(kind, ids, rng)
    plug, nth = PLUGS.sample(random: rng)
    {
      "off" => -> { { "piece" => PIECES.sample(random: rng) } },
      "check" => -> { { "pieces" => PIECES.sample(2, random: rng) } },
      "well" => -> { plugged(plug, nth) },
      "out" => -> { plugged(plug, nth).merge(came(rng)) },
      "read" => -> { plugged(plug, nth).merge("conditions" => %w[worn sooty].first(rng.rand(0..2)), "gap_mm" => 1.2) },
      "new" => -> { plugged(plug, nth).merge("gap_mm" => 1.1) },
      "in" => -> do
        plugged(plug, nth).merge("how" => "torque", "by_hand" => true, "piece" => PIECES.sample(random: rng))
      end,
      "tick" => -> { { "piece" => PIECES.sample(random: rng), "item" => "fastener:#{rng.rand(0..1)}" } },
      "fight" => -> { { "what" => "stubborn", "piece" => PIECES.sample(random: rng), "words" => "squeaks" } },
      "found" => -> { { "finding" => "oil-in-well", "cylinder" => 3, "words" => "" } },
      "codes" => -> do
        { "codes" => [{ "code" => "P0303", "status" => "stored" }], "lamp" => "steady", "again" => false }
      end,
      "correct" => -> { { "piece" => PIECES.sample(random: rng), "minutes" => rng.rand(1..30), "why" => "forgot" } },
      "left" => -> { { "piece" => PIECES.sample(random: rng), "why" => "the owner's wish" } },
      "pause" => -> { { "why" => "parts" } },
      "note" => -> { { "words" => "bolt already missing" } },
      "over" => -> { { "of" => ids.sample(random: rng) } },
      "undo" => -> { { "of" => ids.sample(random: rng) } }
    }.fetch(kind == "dry" ? "well" : kind) do
        -> { %w[on seated waiting].include?(kind) ? { "piece" => PIECES.sample(random: rng) } : {} }
      end
      .call
  end

  def plugged(plug, nth) = nth ? { "plug" => plug, "nth" => nth } : { "plug" => plug }

  def came(rng)
    outcome = NimbleLedger::Risk::LiveOdds::OUTCOMES.sample(random: rng)
    rng.rand < 0.5 ? { "outcome" => outcome } : { "outcome" => outcome, "sign" => "chirps" }
  end
end
