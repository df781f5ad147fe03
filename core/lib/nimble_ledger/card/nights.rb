# frozen_string_literal: true

module NimbleLedger
  module Card
    # Nights between two moments, by the shop's opening hours (model.md section 15): from closing to the next opening,
    # where a midnight lies between the two. Somebody who stays late without seeing midnight is working.
    class Nights
      DAYS = %w[sun mon tue wed thu fri sat].freeze
      DAY = 86_400

      # @param opening [Hash] house setting "opening_hours"
      # @param wall [Proc] an instant to the shop's wall clock, a Time whose figures are read
      # @param instant [Proc] the wall clock back to an instant
      def initialize(opening, wall: ->(time) { time }, instant: ->(time) { time })
        @opening = opening
        @wall = wall
        @instant = instant
        freeze
      end

      # @param from [Time]
      # @param to [Time]
      # @return [Array<Range>] instants
      def between(from, to)
        day = midnight(@wall.call(from))
        last = midnight(@wall.call(to))
        spans = []
        while day < last
          spans << (closing(day, from)..opening(day + DAY, to))
          day += DAY
        end
        spans.reject { |span| span.end <= span.begin }
      end

      private

      def midnight(time) = ::Time.utc(time.year, time.month, time.day)

      def closing(day, from)
        hours = @opening[DAYS[day.wday]]
        [hours ? at(day, hours.last) : @instant.call(day), from].max
      end

      # Opening on a day; a day the shop is closed is night as a whole.
      def opening(day, to)
        hours = @opening[DAYS[day.wday]]
        [hours ? at(day, hours.first) : @instant.call(day + DAY), to].min
      end

      def at(day, text)
        hour, minute = text.split(":").map(&:to_i)
        @instant.call(day + (hour * 3600) + (minute * 60))
      end
    end
  end
end
