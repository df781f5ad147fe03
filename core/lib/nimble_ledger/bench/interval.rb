# frozen_string_literal: true

require "date"

module NimbleLedger
  module Bench
    # When plugs are due again (model.md section 10): by distance and by months, whichever comes first, with what the
    # car does a year.
    class Interval
      DAYS_PER_YEAR = 365.25r
      BELIEVED = 10

      day = Shape.string(max: 10, pattern: /\A\d{4}-(0\d|1[0-2])-[0-3]\d\z/)
      SHAPE =
        Shape.object(
          required: {
            "odometer_km" => Shape.number(max: 10_000_000, unit: "km"),
            "changed_km" => Shape.number(max: 10_000_000, unit: "km"),
            "today" => day
          },
          optional: {
            "changed_on" => day,
            "yearly_km" => Shape.number(max: 1_000_000, unit: "km"),
            "severe" => Shape.boolean
          }
        )

      # @param given [Hash] fitting SHAPE
      # @param engine [Profile::Engine]
      # @param house [House::Settings]
      # @raise [InvalidInput] for an odometer below the change, a change still to come, a day that is none
      def initialize(given, engine:, house:, path: "/interval")
        @given = given
        @engine = engine
        @house = house
        @path = path
        @today = date("today")
        @changed_on = given["changed_on"] && date("changed_on")
        refuse
        freeze
      end

      # @return [Numeric, nil] km between changes
      def km = kilometers && whole(kilometers)

      # @return [Integer, nil] whole months between changes
      def months = @engine.plug("interval_months")&.then { |months| (ThreePoints.exact(months) * severity).floor }

      # @return [Numeric, nil] odometer when they are due
      def due_km = kilometers && whole(exact("changed_km") + kilometers)

      # @return [Date, nil] the earlier of months and distance; what is past stays past
      def due_on = [by_months, by_distance].compact.min

      # @return [Float, nil] share of the interval run since the change; section 5's r
      def overdue_ratio = kilometers && (run / kilometers).to_f

      # @return [Array<Units::Question>]
      def questions
        return [] unless kilometers && run > kilometers * BELIEVED

        message = "#{run.to_i} km since the change is more than ten intervals of #{km} km: is a figure missing?"
        [Units::Question.new("#{@path}/changed_km", "long-run", message)]
      end

      # @return [Hash] see formats.md, bench
      def to_h
        {
          "due_km" => due_km,
          "due_on" => due_on&.iso8601,
          "overdue_ratio" => overdue_ratio,
          "questions" => questions.empty? ? nil : questions.map(&:to_h)
        }.compact
      end

      private

      def exact(key) = ThreePoints.exact(@given[key])
      def run = exact("odometer_km") - exact("changed_km")
      def severity = @given["severe"] ? ThreePoints.exact(@house["severe_use"]) : 1r

      # The profile's where it states one; else the grade's, shorter in a boosted engine with direct injection.
      # @return [Rational, nil]
      def kilometers = stated ? ThreePoints.exact(stated) * severity : by_grade

      def stated = @engine.plug("interval_km")

      def by_grade
        km = @house["grade_km"][@engine.plug("grade")] or return nil
        ThreePoints.exact(km) * (boosted? ? ThreePoints.exact(@house["boosted_interval"]) : 1r) * severity
      end

      def boosted? = @engine.injection == "direct" && %w[turbo twin-charged].include?(@engine.aspiration)

      def by_months = @changed_on && months && (@changed_on >> months)

      def by_distance
        return nil unless due_km && @given["yearly_km"]

        left = ThreePoints.exact(due_km) - exact("odometer_km")
        return left.positive? ? nil : @today if @given["yearly_km"].zero?

        @today + (left / exact("yearly_km") * DAYS_PER_YEAR).floor
      end

      def whole(number) = number.denominator == 1 ? number.to_i : number.to_f

      def date(key)
        Date.iso8601(@given[key])
      rescue Date::Error
        fault(key, "is no day of the calendar")
      end

      def refuse
        fault("odometer_km", "stands below the change (#{@given["changed_km"]} km)") if run.negative?
        fault("changed_on", "is after today") if @changed_on && @changed_on > @today
      end

      def fault(key, message) = raise(InvalidInput.at("#{@path}/#{key}", message))
    end
  end
end
