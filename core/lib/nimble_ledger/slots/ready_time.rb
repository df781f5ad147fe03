# frozen_string_literal: true

require "date"

module NimbleLedger
  module Slots
    # When the car is ready, thin (model.md section 5): the shop's opening hours, the drop-off, cooling, waits and p80
    # hands-on time laid end to end; an overnight soak goes on at the next opening. Wall-clock time of the shop only;
    # the caller turns instants into wall clock and back.
    class ReadyTime
      DAYS = %w[sun mon tue wed thu fri sat].freeze
      # A moment of the shop's wall clock: a Date and minutes after midnight.
      Moment =
        Struct.new(:date, :minute) do
          include Comparable
          def <=>(other) = [date, minute] <=> [other.date, other.minute]

          # "2026-11-24T15:30"
          def to_s = format("%sT%02d:%02d", date.iso8601, minute / 60, minute % 60)

          # @raise [InvalidInput] when there is no such day
          def self.parse(text, path: "")
            day, time = text.split("T")
            new(Date.iso8601(day), ReadyTime.minutes(time))
          rescue Date::Error
            raise InvalidInput.new(
                    "There is no such day: #{text}.",
                    details: [{ "path" => path, "message" => "is no day of the calendar" }]
                  )
          end
        end

      # @param opening [Hash] "mon".."sun" to [open, close] in minutes after midnight, nil when closed
      def initialize(opening)
        @opening = opening
        @week = opening.values.compact.sum { |open, close| close - open }
        raise ArgumentError, "a shop that never opens is never ready" unless @week.positive?

        freeze
      end

      # From the house setting: "mon" => ["08:00", "17:30"].
      def self.from(setting) = new(setting.transform_values { |day| day&.map { |text| minutes(text) } })

      # "08:00" to minutes after midnight.
      def self.minutes(text) = text.split(":").map(&:to_i).then { |hours, minutes| (hours * 60) + minutes }

      # @param from [Moment] drop-off
      # @param minutes [Float] hands-on and waiting minutes, cooling included
      # @param before_night [Float, nil] minutes worked before an overnight soak; nil for none
      # @return [Moment]
      def ready(from, minutes, before_night: nil)
        return work(from, minutes) unless before_night

        evening = work(from, before_night)
        work(opening_after(evening), minutes - before_night)
      end

      private

      def hours(date) = @opening[DAYS[date.wday]]

      # Every week is alike: whole weeks are stepped over at once, and what is left of the last one is walked by days.
      def work(from, minutes)
        weeks = [(minutes / @week.to_f).ceil - 1, 0].max
        date = from.date + (7 * weeks)
        minutes -= weeks * @week
        at = from.minute
        loop do
          open, close = hours(date)
          if open && at < close
            at = [at, open].max
            return Moment.new(date, (at + minutes).ceil) if at + minutes <= close

            minutes -= close - at
          end
          date += 1
          at = 0
        end
      end

      def opening_after(moment)
        date = moment.date + 1
        date += 1 until hours(date)
        Moment.new(date, hours(date).first)
      end
    end
  end
end
