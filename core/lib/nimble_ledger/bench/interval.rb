# frozen_string_literal: true

require "date"

module NimbleLedger
  module Bench
    # When plugs are due again, asked on the bench (model.md section 10; the rule is Vehicle::Interval): by distance and
    # by months, whichever comes first, with what the car does a year.
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
        @interval = Vehicle::Interval.new(engine, house, severe: given.fetch("severe", false))
        @path = path
        @today = date("today")
        @changed_on = given["changed_on"] && date("changed_on")
        refuse
        freeze
      end

      # @return [Numeric] km between changes
      def km = @interval.km

      # @return [Integer, nil] whole months between changes
      def months = @interval.months

      # @return [Numeric] odometer when they are due
      def due_km = @interval.due_km(@given["changed_km"])

      # @return [Date, nil] the earlier of months and distance; what is past stays past
      def due_on = [by_months, by_distance].compact.min

      # @return [Float] share of the interval run since the change; section 5's r
      def overdue_ratio = (run / @interval.exact_km).to_f

      # @return [Array<Units::Question>]
      def questions
        return [] unless run > @interval.exact_km * BELIEVED

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
      def by_months = @interval.due_on(@changed_on)

      def by_distance
        return nil unless @given["yearly_km"]

        left = ThreePoints.exact(due_km) - exact("odometer_km")
        return left.positive? ? nil : @today if @given["yearly_km"].zero?

        @today + (left / exact("yearly_km") * DAYS_PER_YEAR).floor
      end

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
