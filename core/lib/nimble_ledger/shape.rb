# frozen_string_literal: true

module NimbleLedger
  # Declares what a JSON value must look like, once. The same declaration checks values (with a JSON-pointer path
  # and a plain message for each fault) and prints itself as JSON Schema for formats/.
  #
  #   Point = Shape.object(required: { "x" => Shape.number }, optional: { "label" => Shape.string })
  #   Point.faults({ "x" => "1" })  #=> [{"path" => "/x", "message" => "must be a number, not text"}]
  #
  # Caveat: a list that is too long is reported without looking at its members, so a hostile file costs little.
  class Shape
    MAX_FAULTS = 25
    KINDS = {
      "String" => "text",
      "Integer" => "a number",
      "Float" => "a number",
      "Array" => "a list",
      "Hash" => "an object",
      "TrueClass" => "true",
      "FalseClass" => "false",
      "NilClass" => "null"
    }.freeze

    # Collects faults; gives up (quietly) after MAX_FAULTS.
    class Faults
      attr_reader :list

      def initialize
        @list = []
      end

      def add(path, message)
        @list << { "path" => path, "message" => message } if @list.size < MAX_FAULTS
      end

      def full?
        @list.size >= MAX_FAULTS
      end
    end

    class << self
      # @param lines [Boolean] whether it may run over several lines
      def string(max: 200, empty: false, pattern: nil, lines: false) = Text.new(max, empty, pattern, lines)
      # @param unit [String, nil] what the number counts, told to whoever shows or edits it ("share", "cents",
      # "minutes")
      def number(min: 0, max: 1_000_000, above: nil, unit: nil) = Number.new(min, max, above, unit)
      def integer(min: 0, max: 1_000_000, unit: nil) = Whole.new(min, max, unit)
      def boolean = Truth.new
      def one_of(*words) = Words.new(words)
      def const(value) = Words.new([value])
      def list(of, min: 0, max: 200, unique: false) = List.new(of, min, max, unique)
      def object(required: {}, optional: {}) = Members.new(required, optional)
      def map(of, max: 200) = Dictionary.new(of, max)
      def open_object = OpenObject.new
      def named(name) = Named.new(name)
      def anything = Anything.new
      # What the program says itself: of any length and size.
      def said = Text.new(nil, true, nil, true)
      def figure = Number.new(nil, nil, nil, nil)
      def whole_figure = Whole.new(nil, nil, nil)
      def nullable(of) = Nullable.new(of)
      def either(*shapes, say:) = Either.new(shapes, say)
      def triple(max: 1_000_000, unit: nil) = Triple.new(max, unit)
    end

    # @return [Array<Hash>] faults with "path" and "message"; empty when the value fits
    def faults(value, path = "")
      Faults.new.tap { |faults| check(value, path, faults) }.list
    end

    # The value with the keys of its objects in the order they are declared in: for files people read.
    def ordered(value) = value

    # @return [Object] the value itself
    # @raise [InvalidInput] with every fault found (at most MAX_FAULTS)
    def check!(value, what:, code: "invalid_input", path: "")
      found = faults(value, path)
      return value if found.empty?

      raise InvalidInput.new(
              "The #{what} has #{found.size == 1 ? "a fault" : "#{found.size} faults"}: " \
                "#{found.first["path"]} #{found.first["message"]}".strip,
              code: code,
              details: found
            )
    end

    def self.kind(value) = KINDS.fetch(value.class.name, "something else")

    # JSON-pointer escaping of one key.
    def self.key(name)
      text = name.to_s
      text = text.gsub("~", "~0").gsub("/", "~1") if text.match?(%r{[~/]})
      text.length > 100 ? text[0, 100] : text
    end
  end
end
