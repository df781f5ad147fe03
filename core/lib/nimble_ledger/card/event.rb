# frozen_string_literal: true

require "time"

module NimbleLedger
  module Card
    # One mark on a card (model.md section 15): made at the device, with an id and the device's time. Marks are never
    # changed; a wrong one is undone by another.
    #
    #   Event.parse({ "id" => "a1", "at" => "2026-11-26T08:00:00.000Z", "kind" => "start" }).kind  #=> "start"
    class Event
      KINDS = %w[
        start
        pause
        resume
        off
        on
        check
        well
        out
        read
        dry
        new
        in
        seated
        waiting
        tick
        left
        fight
        over
        found
        note
        codes
        correct
        undo
        finished
      ].freeze
      # Marks that say a piece is done.
      DONE = %w[off on check in seated].freeze
      # How a plug looks (domain.md, "Reading a plug").
      CONDITIONS = %w[
        normal
        sooty
        wet-fuel
        wet-oil
        oil-outside
        blistered
        ash
        worn
        cracked
        tracked
        stained
        rust
        loose
        wrong
      ].freeze
      # What fights back.
      FIGHTS = %w[stubborn broken thread connector bolt].freeze
      WHYS = %w[parts customer tool night other].freeze
      WORDS_MAX = 400
      MOST = 2_000

      text = Shape.string(max: WORDS_MAX, empty: true, lines: true)
      id = Shape.string(max: 40, pattern: /\A[0-9A-Za-z-]{2,40}\z/)
      at = Shape.string(max: 30, pattern: /\A20\d\d-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,6})?Z\z/)
      ref = Shape.string(max: 120)
      code =
        Shape.object(
          required: {
            "code" => Shape.string(max: 12, pattern: /\A[PBCU][0-9A-F]{4}\z/),
            "status" => Shape.one_of("stored", "pending", "permanent")
          }
        )
      SHAPE =
        Shape.object(
          required: {
            "id" => id,
            "at" => at,
            "kind" => Shape.one_of(*KINDS)
          },
          optional: {
            "piece" => ref,
            "pieces" => Shape.list(ref, min: 1, max: 200, unique: true),
            "plug" => ref,
            "nth" => Shape.integer(min: 1, max: 4),
            "cylinder" => Shape.nullable(Shape.integer(min: 1, max: 64)),
            "outcome" => Shape.one_of(*Risk::LiveOdds::OUTCOMES),
            "sign" => Shape.one_of(*Risk::LiveOdds::SIGNS),
            "conditions" => Shape.list(Shape.one_of(*CONDITIONS), max: CONDITIONS.size, unique: true),
            "gap_mm" => Shape.number(above: 0, max: 10, unit: "mm"),
            "by_hand" => Shape.boolean,
            "how" => Shape.one_of("torque", "angle"),
            "what" => Shape.one_of(*FIGHTS),
            "item" => Shape.string(max: 120),
            "why" => text,
            "words" => text,
            "finding" => Shape.one_of(*Finding::KINDS),
            "picture" => Shape.string(max: 40),
            "tell" => Shape.boolean,
            "lamp" => Shape.one_of("off", "steady", "blinking"),
            "codes" => Shape.list(code, max: 40),
            "again" => Shape.boolean,
            "minutes" => Shape.number(max: 10_000, unit: "minutes"),
            "of" => id
          }
        )
      # What a kind is nothing without.
      NEEDS = {
        "off" => %w[piece],
        "on" => %w[piece],
        "check" => %w[piece],
        "well" => %w[plug],
        "out" => %w[plug outcome],
        "read" => %w[plug],
        "dry" => %w[plug],
        "new" => %w[plug],
        "in" => %w[plug how],
        "seated" => %w[piece],
        "waiting" => %w[piece],
        "tick" => %w[piece item],
        "left" => %w[piece why],
        "fight" => %w[what],
        "over" => %w[of],
        "found" => %w[finding],
        "note" => %w[words],
        "codes" => %w[codes lamp],
        "correct" => %w[piece minutes why],
        "pause" => %w[why],
        "undo" => %w[of]
      }.freeze

      include Comparable

      attr_reader :id, :kind, :at, :values

      # @param hash [Hash] as the device made it
      # @raise [InvalidInput] with the path of what does not fit
      def self.parse(hash, path: "")
        SHAPE.check!(hash, what: "mark", code: "invalid_mark", path: path)
        lacking = NEEDS.fetch(hash["kind"], []).reject { |key| given?(hash, key) }
        return new(hash) if lacking.empty?

        message = "is needed for a mark of the kind #{hash["kind"]}"
        raise InvalidInput.at("#{path}/#{lacking.first}", message, what: "mark", code: "invalid_mark")
      end

      # Several pieces at once stand for one.
      def self.given?(hash, key)
        return %w[piece pieces].any? { |name| hash.key?(name) } if key == "piece"

        value = hash[key]
        !value.nil? && !(value.is_a?(String) && value.strip.empty?)
      end
      private_class_method :given?

      # @param hash [Hash] fitting SHAPE
      def initialize(hash)
        @id = hash["id"]
        @kind = hash["kind"]
        @at = ::Time.iso8601(hash["at"])
        @values = hash
        freeze
      end

      def [](key) = @values[key]

      # Pieces it is about.
      # @return [Array<String>]
      def pieces = @values["pieces"] || [@values["piece"]].compact

      # Whether it says that pieces are done; for a plug that is in, its work.
      def done? = DONE.include?(kind)

      # One order for all devices: by the device's time, then by id.
      def <=>(other) = [at, id] <=> [other.at, other.id]

      def to_h = @values
    end
  end
end
