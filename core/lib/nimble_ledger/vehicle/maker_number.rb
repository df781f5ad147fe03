# frozen_string_literal: true

module NimbleLedger
  # What is known of a car apart from its engine: its number, its odometer, what was fitted to it and by whom.
  module Vehicle
    # The number a maker stamps on a car: 17 letters and digits without I, O and Q. Makers of some regions (a first
    # figure from 1 to 5) put a check digit in the ninth place; elsewhere that place is free.
    #
    #   MakerNumber.fault("11111111111111111")  #=> nil
    #   MakerNumber.fault("11111111211111111")  #=> "check_digit"
    module MakerNumber
      LENGTH = 17
      SHAPE = /\A[A-HJ-NPR-Z0-9]+\z/
      CHECKED = ("1".."5")
      PLACE = 8
      WEIGHTS = [8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2].freeze
      # Value of each letter, by the order of the alphabet in rows of nine.
      VALUES = {
        **("A".."H").zip(1..8).to_h,
        **("J".."N").zip(1..5).to_h,
        "P" => 7,
        "R" => 9,
        **("S".."Z").zip(2..9).to_h,
        **("0".."9").zip(0..9).to_h
      }.freeze

      module_function

      # As it is kept: capitals without spaces.
      def plain(text) = text.to_s.upcase.gsub(/[\s-]/, "")

      # @param number [String] as #plain gives it
      # @return ["length", "letters", "check_digit", nil] what is wrong with it
      def fault(number)
        return "length" unless number.length == LENGTH
        return "letters" unless number.match?(SHAPE)
        return nil unless CHECKED.cover?(number[0])

        number[PLACE] == check_digit(number) ? nil : "check_digit"
      end

      # @return [String] "0" to "9", or "X"
      def check_digit(number)
        sum = number.chars.zip(WEIGHTS).sum { |letter, weight| VALUES.fetch(letter) * weight }
        rest = sum % 11
        rest == 10 ? "X" : rest.to_s
      end
    end
  end
end
