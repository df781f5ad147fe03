# frozen_string_literal: true

require "date"

module NimbleLedger
  # The shop's wall clock in minutes: local instants ("2026-11-24T07:50", no zone) counted from one of them.
  #
  #   clock = WallClock.new("2026-11-24T07:50")
  #   clock.minutes("2026-11-24T09:00")  #=> 70
  #   clock.text(70)                     #=> "2026-11-24T09:00"
  class WallClock
    INSTANT = /\A(\d{4})-(\d\d)-(\d\d)T([01]\d|2[0-3]):([0-5]\d)\z/
    DATE = /\A(\d{4})-(\d\d)-(\d\d)\z/
    TIME = /\A(?:([01]\d|2[0-3]):([0-5]\d)|24:00)\z/
    WEEKDAYS = %w[sun mon tue wed thu fri sat].freeze
    MINUTES_A_DAY = 1440

    # @param text [String]
    # @return [Date, nil] nil for a day that is not in the calendar
    def self.date(text) =
      text.match(/\A(\d{4})-(\d\d)-(\d\d)/) &&
        Date.valid_date?(::Regexp.last_match(1).to_i, ::Regexp.last_match(2).to_i, ::Regexp.last_match(3).to_i) &&
        Date.new(::Regexp.last_match(1).to_i, ::Regexp.last_match(2).to_i, ::Regexp.last_match(3).to_i)

    # @param text [String] "08:00"
    # @return [Integer] minutes after midnight
    def self.of_day(text) = text.split(":").map(&:to_i).then { |hours, minutes| (hours * 60) + minutes }

    attr_reader :today

    # @param now [String] what minutes are counted from
    def initialize(now)
      @today = WallClock.date(now)
      @start = WallClock.of_day(now[11..])
      freeze
    end

    # @return [Integer] minutes after now, negative before it
    def minutes(instant) = midnight(WallClock.date(instant)) + WallClock.of_day(instant[11..])

    # @param date [Date]
    # @return [Integer] minutes after now at which it begins
    def midnight(date) = ((date - @today).to_i * MINUTES_A_DAY) - @start

    # @param minutes [Numeric] after now
    # @return [Date] the day they fall on
    def date_of(minutes) = @today + ((minutes + @start) / MINUTES_A_DAY).floor

    # @param minutes [Integer] after now
    # @return [String] local instant
    def text(minutes)
      date = date_of(minutes)
      of_day = minutes - midnight(date)
      format("%sT%02d:%02d", date.iso8601, of_day / 60, of_day % 60)
    end

    # The next full quarter of an hour of the wall clock, or this one.
    # @param minutes [Float] after now
    # @return [Integer]
    def quarter(minutes) = (((minutes + @start - SAME) / 15.0).ceil * 15) - @start

    # Instants less than this many minutes apart are one.
    SAME = 1e-6
  end
end
