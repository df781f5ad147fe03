# frozen_string_literal: true

module NimbleLedger
  module Bench
    # What holds for this car's plugs whatever its engine's profile says: the gap it was set up for, and a note on the
    # torque (a repaired thread, a head that was changed). Noted on the car; card, paper and bench go by it.
    #
    #   notes = Bench::PlugNotes.build("gap_mm" => { "low" => 0.6, "high" => 0.7 }, "torque_note" => "insert in 3")
    #   notes.gap_mm   #=> {"low" => 0.6, "high" => 0.7}
    class PlugNotes
      NOTE_MAX = 120
      typed = Shape.number(min: Gap::SUM.begin, max: Gap::SUM.end, unit: "mm")
      SHAPE =
        Shape.object(
          optional: {
            "gap_mm" => Shape.nullable(Shape.object(required: { "low" => typed, "high" => typed })),
            "torque_note" => Shape.nullable(Shape.string(max: NOTE_MAX, empty: true))
          }
        )

      # @param hash [Hash, nil] as the car keeps it; nil where nothing is its own
      # @raise [InvalidInput] when the gap's low is above its high
      # @return [PlugNotes, nil]
      def self.build(hash, path: "/plug_notes")
        return nil if hash.nil?

        SHAPE.check!(hash, what: "car", code: "invalid_input", path: path)
        own = new(hash["gap_mm"], hash["torque_note"].to_s.strip)
        own.empty? ? nil : own.checked("#{path}/gap_mm")
      end

      attr_reader :gap_mm, :torque_note

      def initialize(gap_mm, torque_note)
        @gap_mm = gap_mm
        @torque_note = torque_note
        freeze
      end

      def empty? = gap_mm.nil? && torque_note.empty?

      def checked(path)
        return self if gap_mm.nil? || gap_mm["low"] <= gap_mm["high"]

        raise InvalidInput.at(path, "low (#{gap_mm["low"]}) is above high (#{gap_mm["high"]})")
      end

      # @return [Hash] as the car keeps it
      def to_h = { "gap_mm" => gap_mm, "torque_note" => torque_note }.reject { |_key, value| value.nil? || value == "" }
    end
  end
end
