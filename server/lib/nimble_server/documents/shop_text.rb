# frozen_string_literal: true

require "twitter_cldr"
require "tzinfo"

module NimbleServer
  module Documents
    # Money, numbers, dates and distances as the shop writes them, on paper and in files.
    #
    #   text = ShopText.new(locale: "de-DE", currency: "EUR", exponent: 2)
    #   text.plain(123_456)  #=> "1.234,56"
    #   text.full(123_456)   #=> "1.234,56 €"
    class ShopText
      KM_PER_MILE = 1.609344

      # @param locale [String] as browsers name it: "en-US", "de-DE"
      # @param currency [String, nil] where money is written
      # @param exponent [Integer] decimals of the currency
      def initialize(locale:, currency: nil, exponent: 2, distance_unit: "km", time_zone: "UTC")
        @locale = ShopText.known(locale)
        @currency = currency
        @exponent = exponent
        @unit = distance_unit
        @zone = TZInfo::Timezone.get(time_zone)
      end

      # The nearest locale there are rules for.
      def self.known(locale)
        [locale, locale.to_s.split("-").first, "en"].map(&:to_sym).find { |name| TwitterCldr.supported_locale?(name) }
      end

      # @return [String] the mark before decimals where a locale is at home: "." or ","
      def self.decimal_mark(locale) = (@marks ||= {})[locale] ||= 0.5.localize(known(locale)).to_s(precision: 1)[1]

      # @param decimals [Integer, nil] as many as there are, where unsaid
      def number(value, decimals = nil)
        decimals ||= value % 1 == 0 ? 0 : value.to_s.split(".").last.size
        minus(value.localize(@locale).to_s(precision: decimals))
      end

      # @param cents [Integer] minor units
      # @return [String] without the sign of the currency
      def plain(cents) = number(major(cents), @exponent)

      # With the sign of the currency where the locale puts it.
      def full(cents)
        options = { currency: @currency, use_cldr_symbol: true, precision: @exponent }
        minus(major(cents).localize(@locale).to_currency.to_s(options))
      end

      # @param time [Time]
      def date(time) = day(@zone.to_local(time))

      # @param day [Date]
      def day(day) = DateTime.new(day.year, day.month, day.day, 12).localize(@locale).to_date.to_long_s

      # A day and time of the shop's wall clock, with its weekday.
      # @param text [String] "2026-11-27T14:30"
      def moment(text)
        at = DateTime.parse(text).localize(@locale)
        "#{at.to_date.to_additional_s("MMMEd")}, #{at.to_time.to_short_s}"
      end

      # @param time [Time]
      # @return [DateTime] as the clock on the shop's wall shows it, without a zone
      def wall(time)
        at = @zone.to_local(time)
        DateTime.new(at.year, at.month, at.day, at.hour, at.min)
      end

      # A month of a year: "November 2034".
      # @param date [Date]
      def month(date) = DateTime.new(date.year, date.month, 1, 12).localize(@locale).to_date.to_additional_s("yMMMM")

      def distance(km) = "#{number((@unit == "mi" ? km / KM_PER_MILE : km).round, 0)} #{@unit}"

      # @param doubt [NimbleLedger::Risk::History::Doubt]
      # @return [String] a sentence
      def doubt(doubt) = "#{doubt.sentence { |km| distance(km) }}."

      private

      def major(cents) = @exponent.zero? ? cents : cents.to_r.quo(10**@exponent).to_f
      def minus(text) = text.sub("-", "−")
    end
  end
end
