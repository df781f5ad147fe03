# frozen_string_literal: true

module NimbleLedger
  # When is it ready: the board of a shop, played through (model.md section 11).
  module Day
    # When a shop is open and when its people are at work, laid out in minutes after now (model.md section 11).
    class OpeningHours
      HORIZON_DAYS = 28
      # Beyond the horizon so far: an end at its last minute still has an opening after it.
      LOOK_AHEAD_DAYS = HORIZON_DAYS + 9

      # Time at work: from, to; hours_end: when that person's hours of the day end, date: the day.
      Span = Struct.new(:from, :to, :hours_end, :date)

      # When two people are at work, both.
      # @param one [Array<Span>]
      # @param other [Array<Span>]
      # @return [Array<Span>]
      def self.together(one, other) =
        one.flat_map do |mine|
          other.filter_map do |its|
            from = [mine.from, its.from].max
            to = [mine.to, its.to].min
            Span.new(from, to, mine.hours_end, mine.date) if from < to
          end
        end

      # @param clock [WallClock]
      # @param weekly [Hash{String=>Array(String, String), nil}]
      # @param closed [Array<String>] dates
      def initialize(clock, weekly, closed)
        @clock = clock
        @weekly = weekly
        @closed = closed.map { |text| WallClock.date(text) }.to_set
        @days = spans(weekly)
        freeze
      end

      # The opening hours of each day, by day.
      # @return [Array<Span>]
      attr_reader :days

      # A person's own hours, less absences, from now on.
      # @param hours [Hash, nil] as the weekly opening; nil: the shop's own
      # @param away [Array<Hash>] "from", "to"
      # @return [Array<Span>]
      def at_work(hours, away)
        gone = away.map { |row| [@clock.minutes(row["from"]), @clock.minutes(row["to"])] }
        whole = hours ? spans(hours) : @days
        whole.flat_map { |span| without(span, gone) }.filter_map { |span| from_now(span) }
      end

      # @param minutes [Numeric] after now
      # @return [Integer, nil] the first opening strictly after it
      def next_opening(minutes) = @days.find { |span| span.from > minutes + WallClock::SAME }&.from

      # What is ready then can be fetched: that instant while the shop is open, else the next opening.
      # @param minutes [Integer]
      # @return [Integer, nil]
      def ready(minutes) =
        @days.any? { |span| span.from <= minutes && minutes <= span.to } ? minutes : next_opening(minutes)

      private

      def spans(weekly)
        (-1..LOOK_AHEAD_DAYS).filter_map do |offset|
          date = @clock.today + offset
          hours = weekly[WallClock::WEEKDAYS[date.wday]]
          next if hours.nil? || @closed.include?(date)

          midnight = @clock.midnight(date)
          from, to = hours.map { |text| midnight + WallClock.of_day(text) }
          Span.new(from, to, to, date)
        end
      end

      def without(span, gone)
        gone.reduce([span]) do |left, (from, to)|
          left.flat_map { |one| [cut(one, one.from, [from, one.to].min), cut(one, [to, one.from].max, one.to)].compact }
        end
      end

      def cut(span, from, to) = from < to ? Span.new(from, to, span.hours_end, span.date) : nil

      def from_now(span) = span.to <= 0 ? nil : Span.new([span.from, 0].max, span.to, span.hours_end, span.date)
    end
  end
end
