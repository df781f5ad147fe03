# frozen_string_literal: true

require "twitter_cldr"

module NimbleServer
  # Currencies in use and how many decimals each has, by the common locale data.
  module Currencies
    module_function

    # @param code [String] ISO 4217
    def known?(code) = TwitterCldr::Shared::Currencies.currency_codes.map(&:to_s).include?(code.to_s)

    # @return [Integer] decimals of its smallest unit
    def exponent(code)
      digits = TwitterCldr.get_resource("shared", "currency_digits_and_rounding")
      (digits[code.to_s.to_sym] || digits[:DEFAULT])[:digits]
    end
  end
end
