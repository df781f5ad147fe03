# frozen_string_literal: true

module NimbleLedger
  module Bench
    # What a plug is tightened to (model.md section 10): the profile's figure, moved by what it assumes of compound and
    # what is used; a table by seat, thread and head where it has none; what the wrench is set to with an adapter, and
    # whether that wrench can.
    class Torque
      SHAPE =
        Shape.object(
          optional: {
            "compound" => Shape.boolean,
            "wrench_nm" => Shape.number(above: 0, max: 10_000, unit: "N·m"),
            "wrench_mm" => Shape.number(above: 0, max: 10_000, unit: "mm"),
            "adapter_mm" => Shape.number(max: 10_000, unit: "mm"),
            "adapter" => Shape.one_of("in-line", "right-angle")
          }
        )
      # Shorter than any torque wrench: probably inches.
      SHORTEST_WRENCH_MM = 60
      # Full scales no torque wrench for plugs has: probably lb-in.
      LARGEST_WRENCH_NM = 400

      # @param given [Hash] fitting SHAPE
      # @param plug [Hash] what the profile says of the plug
      # @param head [String]
      # @param compound [Boolean] whether compound is used, where the request does not say
      # @raise [InvalidInput] for an in-line adapter without both lengths
      # @param house [House::Settings]
      def initialize(given, plug:, head:, house:, compound: false, path: "/torque")
        @given = given
        @plug = plug
        @head = head
        @house = house
        @path = path
        @compound = given.fetch("compound", compound)
        refuse_without_lengths
        freeze
      end

      # @return [Float, nil] N·m to tighten to; nil where neither profile nor table knows
      def nm = stated && (stated * share)

      # @return [Array(Float, Float), nil] N·m, where the profile gives a range
      def range = @plug["torque_range_nm"]&.map { |value| value * share }

      # @return [Float, nil] N·m the wrench is set to
      def setting
        return nil if nm.nil?
        return nm unless @given["adapter"] == "in-line"

        wrench, adapter = @given.values_at("wrench_mm", "adapter_mm")
        nm * wrench / (wrench + adapter)
      end

      # @return [Boolean, nil] whether the setting lies in the part of its scale a wrench is good for, ends included
      def wrench_ok
        full = @given["wrench_nm"]
        return nil unless full && setting

        setting.between?((full * @house["wrench_least"]) - Gap::TOLERANCE, full + Gap::TOLERANCE)
      end

      # @return [Array<Units::Question>]
      def questions = [unknown, far_off, said_with_compound, *slips].compact

      # @return [Hash] see formats.md, bench
      def to_h
        {
          **(nm ? Units.torque(nm) : {}),
          "nm_range" => range,
          "setting_nm" => setting,
          "wrench_ok" => wrench_ok,
          "questions" => questions.empty? ? nil : questions.map(&:to_h)
        }.compact
      end

      private

      # What the profile states, else the house's table by seat, thread and head.
      def stated = profile_nm || table_nm

      def profile_nm = @plug["torque_range_nm"] ? @plug["torque_range_nm"].sum / 2.0 : @plug["torque_nm"]&.to_f

      def table_nm
        row = @house["seat_torque"].dig(@plug["seat"], @plug["thread_mm"]&.to_i.to_s)
        row && @plug["thread_mm"] == @plug["thread_mm"].to_i ? row[@head].to_f : nil
      end

      def assumes_compound? = profile_nm && @plug["torque_assumes"] == "compound"

      # Compound takes its share off a dry figure; a figure meant for compound stands.
      def share = @compound && !assumes_compound? ? 1 - @house["compound_torque"] : 1

      def unknown
        return nil if stated

        ask("", "unknown", "neither the profile nor the table knows a torque for this plug; use the maker's figure")
      end

      def far_off
        return nil unless profile_nm && table_nm && !profile_nm.between?(table_nm / 2, table_nm * 2)

        factor = { "lb-ft" => Units::NM_PER_LB_FT, "lb-in" => Units::NM_PER_LB_FT / 12, "tenfold" => 0.1 }
        meant = factor.find { |_unit, f| (profile_nm * f).between?(table_nm / 2, table_nm * 2) }&.first
        ask("", "far-off", "the profile says #{profile_nm} N·m where #{table_nm} N·m is usual for such a plug", meant)
      end

      def said_with_compound
        return nil unless assumes_compound? && !@compound

        ask(
          "/compound",
          "assumes-compound",
          "the profile's figure is meant with compound; without it, it stands as it is"
        )
      end

      # An in-line adapter changes the setting by both lengths.
      def refuse_without_lengths
        return unless @given["adapter"] == "in-line"

        lacking = %w[wrench_mm adapter_mm].reject { |key| @given[key] }
        return if lacking.empty?

        found = lacking.map { |key| { "path" => "#{@path}/#{key}", "message" => "is needed with an in-line adapter" } }
        raise InvalidInput.new("The setting with an in-line adapter needs both lengths.", details: found)
      end

      def slips
        short = @given["wrench_mm"]&.<(SHORTEST_WRENCH_MM)
        large = @given["wrench_nm"]&.>(LARGEST_WRENCH_NM)
        found = []
        if short
          found << ask(
            "/wrench_mm",
            "unit-slip",
            "#{@given["wrench_mm"]} mm is short for a torque wrench: inches?",
            "in"
          )
        end
        if large
          found << ask("/wrench_nm", "unit-slip", "#{@given["wrench_nm"]} N·m is large for plugs: lb-in?", "lb-in")
        end
        found
      end

      def ask(at, code, message, meant = nil) = Units::Question.new("#{@path}#{at}", code, message, meant)
    end
  end
end
