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
      # @raise [InvalidInput] when the own target's low is above its high
      def initialize(given, standard:, grade: nil, path: "/gap")
        @given = given
        @standard = standard
        @grade = grade
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

      # Fine wire is never pried; a worn plug's gap is never copied: the target is always the standard's or this car's.
      # @return [String, nil] close, open or leave
      def advice
        return nil if state.nil?
        return "leave" if Gap.fine_wire?(@grade)

        { "worn-wide" => "close", "closed" => "open", "in-range" => "leave" }.fetch(state)
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

        meant = { "in" => "mm", "mm" => "in" }.fetch(leaf["unit"])
        meant = nil unless range.cover?(Units.mm(leaf.merge("unit" => meant)))
        hint = meant && ": #{leaf["value"]} #{meant}?"
        Units::Question.new(
          path,
          "unit-slip",
          "#{leaf["value"]} #{leaf["unit"]} is no leaf between #{range.begin} and #{range.end} mm#{hint}",
          meant
        )
      end

      def sum_doubt
        return nil if SUM.cover?(mm)

        message = "the leaves come to #{mm.round(4)} mm; a plug's gap lies between #{SUM.begin} and #{SUM.end} mm"
        Units::Question.new("#{@path}/leaves", "sum", message)
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
