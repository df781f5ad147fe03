# frozen_string_literal: true

module NimbleLedger
  module Bench
    # A gap as the leaves measured it (model.md section 10): against the target noted for this car, else the profile's;
    # what it wore since new; what to do about it. A reading nobody can believe is questioned and decides nothing.
    #
    #   Gap.new({ "leaves" => [{ "value" => 0.044, "unit" => "in" }] }, standard: { "low" => 1.0, "high" => 1.1 }).state
    #   #=> "worn-wide"
    class Gap
      LEAF = (0.04..2.0)
      SUM = (0.2..2.5)
      TOLERANCE = 1e-9
      FINE_WIRE = %w[platinum iridium].freeze

      # @param grade [String, nil] of the plug
      # @return [Boolean] whether its electrode is too fine to be pried at all
      def self.fine_wire?(grade) = FINE_WIRE.include?(grade)

      reading =
        Shape.object(required: { "value" => Shape.number(above: 0, max: 1000), "unit" => Shape.one_of("mm", "in") })
      typed = Shape.number(above: 0, max: 1000, unit: "mm")
      SHAPE =
        Shape.object(
          required: {
            "leaves" => Shape.list(reading, min: 1, max: 12)
          },
          optional: {
            "plug" => Shape.one_of("new", "worn"),
            "no_go" => reading,
            "box_mm" => typed,
            "when_new_mm" => typed,
            "run_km" => Shape.number(max: 10_000_000, unit: "km"),
            "target_mm" => Shape.object(required: { "low" => typed, "high" => typed })
          }
        )

      attr_reader :questions

      # @param given [Hash] fitting SHAPE
      # @param standard [Hash, nil] the profile's "low" and "high", mm
      # @param grade [String, nil] of the plug
      # @param fine_wire ["never", "tool"] whether fine wire is closed by a gapping tool on its strap
      # @raise [InvalidInput] when the own target's low is above its high
      def initialize(given, standard:, grade: nil, fine_wire: "never", path: "/gap")
        @given = given
        @standard = standard
        @grade = grade
        @fine_wire = fine_wire
        @path = path
        @questions = doubts.compact
        refuse_target
        freeze
      end

      # @return [Float] mm as read: the leaves that pass, together
      def mm = @given["leaves"].sum { |leaf| Units.mm(leaf) }

      # Between what passes and what does not.
      # @return [Array(Float, Float), nil] mm
      def range = @given["no_go"] && [mm, Units.mm(@given["no_go"])]

      # @return [String, nil] worn-wide, closed or in-range; nil while the reading is questioned, or nothing is known of
      #   what it should be
      def state
        return nil if target.nil? || questions.any?
        return "worn-wide" if mm > target["high"] + TOLERANCE

        mm < target["low"] - TOLERANCE ? "closed" : "in-range"
      end

      # A worn plug that is too wide is renewed, never gapped. Fine wire is never pried, by house rule set with a tool
      # on its strap; a new one out of range is exchanged. A worn plug's gap is never copied: the target is always the
      # standard's or this car's.
      # @return [String, nil] close, open, leave, renew or exchange
      def advice
        return nil if state.nil?
        return "leave" if state == "in-range"
        return "renew" if @given["plug"] == "worn" && state == "worn-wide"
        return @given["plug"] == "new" ? "exchange" : "leave" if Gap.fine_wire?(@grade) && @fine_wire != "tool"

        { "worn-wide" => "close", "closed" => "open" }.fetch(state)
      end

      # @return [Float, nil] mm a 1,000 km since it was new
      def wear
        new, run = @given.values_at("when_new_mm", "run_km")
        (mm - new) / run * 1000 if new && run&.positive? && questions.empty?
      end

      # @return [Hash] see formats.md, bench
      def to_h
        {
          "mm" => mm,
          "range_mm" => range,
          "standard_mm" => own? ? @standard : nil,
          "box_mm" => @given["box_mm"],
          "wear_mm_per_1000_km" => wear,
          "questions" => questions.empty? ? nil : questions.map(&:to_h)
        }.compact.merge({ "state" => state, "advice" => advice }.reject { |key, v| key == "advice" && v.nil? })
      end

      private

      # This car's own target before the profile's.
      def target = @given["target_mm"] || @standard

      def own? = @given.key?("target_mm")

      def doubts
        leaves = @given["leaves"].each_with_index.map { |leaf, i| leaf_doubt(leaf, "#{@path}/leaves/#{i}") }
        leaves << leaf_doubt(@given["no_go"], "#{@path}/no_go", range: SUM) if @given["no_go"]
        doubt = leaves.any? ? [] : [sum_doubt, no_go_doubt]
        leaves + doubt + typed_doubts
      end

      def leaf_doubt(leaf, path, range: LEAF)
        return nil if range.cover?(Units.mm(leaf))

        slips = likely(leaf, range)
        hint = slips.any? ? ": #{said(slips)}?" : ""
        message = "#{leaf["value"]} #{leaf["unit"]} is no leaf between #{range.begin} and #{range.end} mm#{hint}"
        question(path, "unit-slip", message, slips, leaf)
      end

      def sum_doubt
        return nil if SUM.cover?(mm)

        message = "the leaves come to #{mm.round(4)} mm; a plug's gap lies between #{SUM.begin} and #{SUM.end} mm"
        leaf = @given["leaves"].first
        slips = @given["leaves"].one? ? likely(leaf, LEAF) : []
        question("#{@path}/leaves", "sum", slips.any? ? "#{message}: #{said(slips)}?" : message, slips, leaf)
      end

      # Readings a leaf was probably meant as: the one that brings the sum nearest to the middle of the target first.
      def likely(leaf, range)
        slips = Units.meant(leaf, range)
        return slips if target.nil?

        middle = (target["low"] + target["high"]) / 2.0
        slips.sort_by.with_index { |one, i| [Math.log((mm - Units.mm(leaf) + Units.mm(one)) / middle).abs, i] }
      end

      def said(slips) = slips.map { |one| "#{one["value"]} #{one["unit"]}" }.join(" or ")

      def question(path, code, message, slips, leaf)
        unit = slips.first && slips.first["unit"]
        Units::Question.new(path, code, message, (unit if unit != leaf["unit"]), (slips if slips.any?))
      end

      def no_go_doubt
        return nil if range.nil? || range.last > range.first

        Units::Question.new("#{@path}/no_go", "no-go", "a leaf that does not pass is thicker than those that do")
      end

      def typed_doubts
        own = @given["target_mm"] || {}
        values = {
          "box_mm" => @given["box_mm"],
          "when_new_mm" => @given["when_new_mm"],
          "target_mm/low" => own["low"],
          "target_mm/high" => own["high"]
        }.compact
        values.map { |name, value| typed_doubt(name, value) }
      end

      def typed_doubt(name, value)
        return nil if SUM.cover?(value)

        meant = Units.slip(value, SUM, slips: %w[in tenfold tenth])
        message = "#{value} mm is no gap between #{SUM.begin} and #{SUM.end} mm"
        Units::Question.new("#{@path}/#{name}", "unit-slip", meant == "in" ? "#{message}: inches?" : message, meant)
      end

      def refuse_target
        own = @given["target_mm"]
        return if own.nil? || own["low"] <= own["high"]

        message = "low (#{own["low"]}) is above high (#{own["high"]})"
        raise InvalidInput.at("#{@path}/target_mm", message)
      end
    end
  end
end
