# frozen_string_literal: true

require "tzinfo"

module NimbleServer
  module Documents
    # Money, dates and distances as the shop writes them on paper.
    class MoneyText
      SIGNS = { "USD" => "$", "GBP" => "£", "EUR" => "€", "JPY" => "¥" }.freeze
      KM_PER_MILE = 1.609344

      def initialize(currency, exponent, distance_unit: "km", time_zone: "UTC", locale: "en-US")
        @sign = SIGNS.fetch(currency, "#{currency} ")
        @exponent = exponent
        @unit = distance_unit
        @zone = TZInfo::Timezone.get(time_zone)
        @day_first = locale != "en-US"
      end

      # @param cents [Integer] minor units
      # @return [String] "1,234.50", without the sign of the currency
      def plain(cents)
        whole, part = cents.abs.divmod(10**@exponent)
        digits = whole.to_s.reverse.scan(/\d{1,3}/).join(",").reverse
        "#{"−" if cents.negative?}#{digits}#{format(".%0#{@exponent}d", part) if @exponent.positive?}"
      end

      # With the sign of the currency.
      def full(cents) = cents.negative? ? "−#{@sign}#{plain(-cents)}" : "#{@sign}#{plain(cents)}"

      def date(time)
        local = @zone.to_local(time)
        @day_first ? local.strftime("%-d %B %Y") : local.strftime("%B %-d, %Y")
      end

      def distance(km)
        value = @unit == "mi" ? km / KM_PER_MILE : km
        "#{value.round.to_s.reverse.scan(/\d{1,3}/).join(",").reverse} #{@unit}"
      end
    end
  end
end
