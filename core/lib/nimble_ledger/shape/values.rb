# frozen_string_literal: true

module NimbleLedger
  # Single values: text, numbers, true or false, fixed words, three-point times.
  class Shape
    # Text: valid UTF-8 on one line, or on several where that is said; no characters that control a terminal, a line or
    # the direction of writing.
    class Text < Shape
      UNSEEN = "\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F-\u009F\u2028\u2029\u202A-\u202E\u2066-\u2069\uFEFF"
      BLANK = /\A[[:space:]\u200B-\u200D\u2060]*\z/
      CONTROL = /[#{UNSEEN}]/
      ONE_LINE = /[#{UNSEEN}\t\n\r]/

      # @return [String, nil] what keeps a text from being shown as it is
      def self.fault(text, lines: false)
        return "is not UTF-8 text" unless text.encoding == Encoding::UTF_8 ? text.valid_encoding? : text.ascii_only?
        return "contains a control character" if text.match?(CONTROL)

        "contains a tab or a line end" if !lines && text.match?(ONE_LINE)
      end

      def initialize(max, empty, pattern, lines)
        super()
        @lines = lines
        @max = max
        @empty = empty
        @pattern = pattern
      end

      def check(value, path, faults)
        return faults.add(path, "must be text, not #{Shape.kind(value)}") unless value.is_a?(String)
        return faults.add(path, "is longer than #{@max} characters") if @max && value.length > @max

        odd = Text.fault(value, lines: @lines)
        return faults.add(path, odd) if odd
        return faults.add(path, "must not be empty") if !@empty && value.match?(BLANK)

        faults.add(path, "is not in the expected form") if @pattern && !value.match?(@pattern)
      end

      def schema
        { "type" => "string", "maxLength" => @max }.compact.tap do |schema|
          schema["minLength"] = 1 unless @empty
          schema["pattern"] = @pattern.source.gsub("\\A", "^").gsub("\\z", "$") if @pattern
        end
      end
    end

    # Number: finite, within limits; refused, never clamped.
    class Number < Shape
      LEAST = 1e-9
      def initialize(min, max, above, unit)
        super()
        @min = min
        @max = max
        @above = above
        @unit = unit
      end

      def check(value, path, faults)
        return faults.add(path, "must be a number, not #{Shape.kind(value)}") unless value.is_a?(Numeric)
        return faults.add(path, "must be a finite number") if value.is_a?(Float) && !value.finite?
        return faults.add(path, "must be above #{@above}") if @above && value <= @above
        return faults.add(path, "is too small to mean anything: use 0") if value != 0 && value.abs < LEAST

        faults.add(path, "must not be below #{@min}") if @min && value < @min
        faults.add(path, "must not be above #{@max}") if @max && value > @max
      end

      def schema
        { "type" => "number", "maximum" => @max, "exclusiveMinimum" => @above }.compact.tap do |schema|
          schema["minimum"] = @min unless @above || @min.nil?
          schema["x-unit"] = @unit if @unit
        end
      end
    end

    # Whole number (2.0 counts as 2).
    class Whole < Shape
      def initialize(min, max, unit)
        super()
        @min = min
        @max = max
        @unit = unit
      end

      def check(value, path, faults)
        return faults.add(path, "must be a whole number, not #{Shape.kind(value)}") unless value.is_a?(Numeric)
        unless value.is_a?(Integer) || (value.finite? && value % 1 == 0)
          return faults.add(path, "must be a whole number")
        end

        faults.add(path, "must not be below #{@min}") if @min && value < @min
        faults.add(path, "must not be above #{@max}") if @max && value > @max
      end

      def schema = { "type" => "integer", "minimum" => @min, "maximum" => @max, "x-unit" => @unit }.compact
    end

    # true or false
    class Truth < Shape
      def check(value, path, faults)
        faults.add(path, "must be true or false, not #{Shape.kind(value)}") unless [true, false].include?(value)
      end

      def schema = { "type" => "boolean" }
    end

    # One of a few fixed values.
    class Words < Shape
      def initialize(words)
        super()
        @words = words
      end

      def check(value, path, faults)
        return if @words.include?(value)

        faults.add(path, @words.size == 1 ? "must be #{@words.first}" : "must be one of: #{@words.join(", ")}")
      end

      def schema = @words.size == 1 ? { "const" => @words.first } : { "enum" => @words }
    end

    # [low, likely, high], low <= likely <= high, none negative (model.md section 3).
    class Triple < Shape
      NAMES = %w[low likely high].freeze

      def initialize(max, unit)
        super()
        @number = Number.new(0, max, nil, unit)
      end

      def check(value, path, faults)
        return faults.add(path, "must be [low, likely, high], not #{Shape.kind(value)}") unless value.is_a?(Array)
        return faults.add(path, "must be three numbers: [low, likely, high]") unless value.size == 3

        before = faults.list.size
        value.each_with_index { |number, i| @number.check(number, "#{path}/#{i}", faults) }
        return if faults.list.size > before

        value
          .each_cons(2)
          .with_index { |(a, b), i| faults.add(path, "#{NAMES[i]} (#{a}) is above #{NAMES[i + 1]} (#{b})") if a > b }
      end

      def schema
        {
          "type" => "array",
          "items" => @number.schema,
          "minItems" => 3,
          "maxItems" => 3,
          "description" => "[low, likely, high]"
        }
      end
    end
  end
end
