# frozen_string_literal: true

module NimbleLedger
  # Values made of others: lists, objects, dictionaries, alternatives.
  class Shape
    # List with a shape for its members.
    class List < Shape
      def initialize(of, min, max, unique)
        super()
        @of = of
        @min = min
        @max = max
        @unique = unique
      end

      def check(value, path, faults)
        return faults.add(path, "must be a list, not #{Shape.kind(value)}") unless value.is_a?(Array)
        return faults.add(path, "has #{value.size} entries; at most #{@max} are allowed") if @max && value.size > @max

        faults.add(path, "needs at least #{@min == 1 ? "one entry" : "#{@min} entries"}") if value.size < @min
        value.each_with_index do |member, i|
          break if faults.full?

          @of.check(member, "#{path}/#{i}", faults)
        end
        repeats(value, path, faults) if @unique
      end

      def ordered(value) = value.is_a?(Array) ? value.map { |member| @of.ordered(member) } : value

      def schema
        { "type" => "array", "items" => @of.schema, "maxItems" => @max }.compact.tap do |schema|
          schema["minItems"] = @min if @min.positive?
          schema["uniqueItems"] = true if @unique
        end
      end

      private

      def repeats(value, path, faults)
        seen = {}
        value.each_with_index do |member, i|
          faults.add("#{path}/#{i}", "stands twice (#{member})") if seen.key?(member)
          seen[member] = true
        end
      end
    end

    # Object with named members; unknown keys are refused with their path.
    class Members < Shape
      attr_reader :required, :optional

      def initialize(required, optional)
        super()
        @required = required
        @optional = optional
        @known = required.merge(optional)
      end

      def check(value, path, faults)
        return faults.add(path, "must be an object, not #{Shape.kind(value)}") unless value.is_a?(Hash)

        @required.each_key { |key| faults.add("#{path}/#{key}", "is missing") unless value.key?(key) }
        value.each do |key, member|
          break if faults.full?

          shape = @known[key]
          here = "#{path}/#{Shape.key(key)}"
          shape ? shape.check(member, here, faults) : faults.add(here, "is not a known key")
        end
      end

      def ordered(value)
        return value unless value.is_a?(Hash)

        (@known.keys & value.keys).to_h { |key| [key, @known[key].ordered(value[key])] }
      end

      def schema
        {
          "type" => "object",
          "additionalProperties" => false,
          "properties" => @known.transform_values(&:schema)
        }.tap { |schema| schema["required"] = @required.keys unless @required.empty? }
      end
    end

    # Object used as a dictionary: any key, one shape.
    class Dictionary < Shape
      LONGEST_KEY = 200

      def initialize(of, max)
        super()
        @of = of
        @max = max
      end

      def check(value, path, faults)
        return faults.add(path, "must be an object, not #{Shape.kind(value)}") unless value.is_a?(Hash)
        return faults.add(path, "has #{value.size} entries; at most #{@max} are allowed") if @max && value.size > @max

        value.each do |key, member|
          break if faults.full?

          here = "#{path}/#{Shape.key(key)}"
          odd = key.length > LONGEST_KEY ? "is a key of more than #{LONGEST_KEY} characters" : Text.fault(key)
          odd ? faults.add(path, odd) : @of.check(member, here, faults)
        end
      end

      def schema = { "type" => "object", "additionalProperties" => @of.schema, "maxProperties" => @max }.compact
    end

    # What is declared elsewhere under a name, and checked there.
    class Named < Shape
      def initialize(name)
        super()
        @name = name
      end

      def check(_value, _path, _faults) = nil
      def schema = { "$ref" => "#/components/schemas/#{@name}" }
    end

    # Whatever a figure may be: its own schema stands beside it.
    class Anything < Shape
      def check(_value, _path, _faults) = nil
      def schema = {}
    end

    # An object that another shape will look into.
    class OpenObject < Shape
      def check(value, path, faults)
        faults.add(path, "must be an object, not #{Shape.kind(value)}") unless value.is_a?(Hash)
      end

      def schema = { "type" => "object" }
    end

    # null or the shape.
    class Nullable < Shape
      def initialize(of)
        super()
        @of = of
      end

      def check(value, path, faults)
        @of.check(value, path, faults) unless value.nil?
      end

      def ordered(value) = value.nil? ? nil : @of.ordered(value)

      def schema = { "anyOf" => [@of.schema, { "type" => "null" }] }
    end

    # One of several shapes, told apart by the kind of the value; the first of the same kind reports its faults.
    class Either < Shape
      def initialize(shapes, say)
        super()
        @shapes = shapes
        @say = say
      end

      def check(value, path, faults)
        tried = []
        return if @shapes.any? { |shape| tried.push(shape.faults(value, path)).last.empty? }

        deeper = tried.find { |list| list.first["path"] != path || !list.first["message"].include?(", not ") }
        return faults.add(path, "must be #{@say}") unless deeper

        deeper.each { |fault| faults.add(fault["path"], fault["message"]) }
      end

      def schema = { "anyOf" => @shapes.map(&:schema) }
    end
  end
end
