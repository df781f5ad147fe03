# frozen_string_literal: true

module NimbleLedger
  # What was said stays as it was said (model.md section 14).
  module Record
    # Canonical JSON (RFC 8785): one text for one value, so that its bytes can be sealed and compared. Keys are sorted
    # by their UTF-16 units, numbers are written as ECMAScript writes them.
    #
    #   Record::Canonical.json({ "b" => 1.0, "a" => [true] })  #=> '{"a":[true],"b":1}'
    module Canonical
      ESCAPES = {
        "\b" => "\\b",
        "\t" => "\\t",
        "\n" => "\\n",
        "\f" => "\\f",
        "\r" => "\\r",
        "\"" => "\\\"",
        "\\" => "\\\\"
      }.freeze
      SPECIAL = /[\u0000-\u001F"\\]/

      module_function

      # @param value [Hash, Array, String, Integer, Float, true, false, nil] parsed JSON
      # @return [String] UTF-8
      # @raise [ArgumentError] for anything else, and for numbers that are not finite
      def json(value)
        case value
        when Hash
          "{#{sorted(value).map { |key, member| "#{text(key)}:#{json(member)}" }.join(",")}}"
        when Array
          "[#{value.map { |member| json(member) }.join(",")}]"
        when String
          text(value)
        when Integer
          value.to_s
        when Float
          number(value)
        when true, false
          value.to_s
        when nil
          "null"
        else
          raise ArgumentError, "#{value.class} has no canonical form"
        end
      end

      def sorted(hash) =
        hash.transform_keys(&:to_s).sort_by { |key, _member| key.encode(Encoding::UTF_16BE).unpack("n*") }

      def text(string)
        "\"#{string.encode(Encoding::UTF_8).gsub(SPECIAL) { |char| ESCAPES[char] || format("\\u%04x", char.ord) }}\""
      end

      # The shortest digits that read back as the same number, placed as ECMAScript places them.
      def number(float)
        raise ArgumentError, "#{float} has no canonical form" unless float.finite?
        return "0" if float.zero?

        sign = float.negative? ? "-" : ""
        digits, point = digits_and_point(float.abs)
        sign + placed(digits, point)
      end

      # @return [Array(String, Integer)] significant digits, and how many of them stand before the decimal point
      def digits_and_point(float)
        mantissa, exponent = float.to_s.split("e")
        whole, rest = mantissa.split(".")
        digits = "#{whole}#{rest}".sub(/0+\z/, "")
        point = whole.length + exponent.to_i
        leading = digits[/\A0*/].length
        [digits[leading..], point - leading]
      end

      def placed(digits, point)
        return digits + ("0" * (point - digits.length)) if digits.length <= point && point <= 21
        return "#{digits[0, point]}.#{digits[point..]}" if point.between?(1, 21)
        return "0.#{"0" * -point}#{digits}" if point.between?(-5, 0)

        exponent = point - 1
        "#{digits[0]}#{".#{digits[1..]}" if digits.length > 1}e#{exponent.negative? ? "-" : "+"}#{exponent.abs}"
      end
    end
  end
end
