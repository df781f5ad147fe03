# frozen_string_literal: true

module NimbleLedger
  module Bench
    # Tightening by angle after finger-tight (model.md section 10): only once seat and new or used are known. Where a
    # wrench fits it is given with the question why. Schools differ because gaskets do: from an eighth of a turn to two
    # thirds.
    class Angle
      SHAPE = Shape.object(required: { "seat_state" => Shape.one_of("new", "used") })
      SMALL_THREAD_MM = 10

      # @param given [Hash] fitting SHAPE
      # @param plug [Hash] what the profile says of the plug
      # @param wrench_fits [Boolean] at the target
      # @param house [House::Settings]
      def initialize(given, plug:, wrench_fits:, house:, path: "/angle")
        @given = given
        @plug = plug
        @wrench_fits = wrench_fits
        @house = house
        @path = path
        freeze
      end

      # @return [Array(Float, Float), nil] turns after finger-tight; nil while the seat is not known
      def turns
        return nil unless @plug["seat"]

        @house["seat_turns"].fetch(row)
      end

      # Whether the angle is the way here: the profile says so, or no wrench fits.
      def needed? = @plug["tighten"] == "angle" || !@wrench_fits

      # @return [Array<Units::Question>]
      def questions
        [
          @plug["seat"] ? nil : ask("", "seat", "the profile does not say whether it seats on a gasket or a taper"),
          needed? ? nil : ask("", "wrench-fits", "a torque wrench fits here: why by angle?")
        ].compact
      end

      # @return [Hash] see formats.md, bench
      def to_h
        { "turns" => turns, "questions" => questions.empty? ? nil : questions.map(&:to_h) }.compact
      end

      private

      def row
        return "taper" if @plug["seat"] == "taper"
        return "gasket-used" if @given["seat_state"] == "used"

        @plug["thread_mm"] == SMALL_THREAD_MM ? "gasket-new-10" : "gasket-new"
      end

      def ask(at, code, message) = Units::Question.new("#{@path}#{at}", code, message)
    end
  end
end
