# frozen_string_literal: true

module NimbleLedger
  module Trace
    # The tables of a trace: shipped, with what a house or a request sets anew. Objects merge by key, lists replace;
    # rows sum to 1.
    class Tables
      TOLERANCE = 1e-6
      SHAPE = Shape.open_object

      # @param given [Hash, nil] parts of the tables
      # @param path [String]
      # @raise [InvalidInput] for a table that is none, or a row that does not sum to 1, with its path
      def initialize(given = nil, path: "/tables")
        @path = path
        @hash = given ? merged(SHIPPED, given, path) : SHIPPED
        check
        freeze
      end

      # @return [Hash] as trace-tables.json
      def to_h = @hash

      def prior(ignition) = @hash["prior"].fetch(ignition)
      def brittle(cause) = @hash["brittle"].fetch(cause, 1)
      def code(name) = @hash["code"].fetch(name)
      def several(size) = @hash["code"]["several"].fetch(size)
      def when(cause, moment) = @hash["when"].fetch(cause).fetch(moment)
      def counters(name) = @hash["counters"].fetch(name)
      def set(kind) = @hash["sets"].fetch(kind)
      def rail_whole = @hash["rail_whole"]
      def cap_and_rotor = @hash["cap_and_rotor"]

      # @return [Array<String>] in order
      def tests = @hash["tests"].keys

      # @return [Hash] a test: minutes, runs, touches, outcomes, here, other, elsewhere, moves_plugs, needs
      def test(name) = @hash["tests"][name]

      private

      # Nothing that is not there already: a new key would be a word nobody reads.
      def merged(base, given, path)
        raise InvalidInput.at(path, "must be an object") unless given.is_a?(Hash)

        given.reduce(base) do |all, (key, value)|
          here = "#{path}/#{Shape.key(key)}"
          raise InvalidInput.at(here, "is no table") unless all.key?(key) || path.end_with?("/here") || needs?(here)
          all.merge(key => all[key].is_a?(Hash) ? merged(all[key], value, here) : leaf(all[key], value, here))
        end
      end

      # What a test needs may be said of any; the shipped ones mostly need nothing.
      def needs?(path) = path.match?(%r{/tests/[^/]+/needs\z})

      def leaf(before, value, path)
        fits =
          case before
          when Array
            value.is_a?(Array)
          when Numeric
            value.is_a?(Numeric) && value.to_f.finite? && !value.negative?
          when nil
            value.is_a?(Array) && (!needs?(path) || value.all?(String))
          else
            value.instance_of?(before.class) || [true, false].include?(value)
          end
        fits ? value : raise(InvalidInput.at(path, "is of another kind than the shipped table"))
      end

      def check
        @hash["prior"].each { |kind, row| sums("/prior/#{kind}", row.values) }
        @hash["when"].each { |cause, row| sums("/when/#{cause}", row.values) }
        @hash["tests"].each do |name, test|
          size = test["outcomes"].size
          test["here"].each { |cause, row| row("/tests/#{name}/here/#{cause}", row, size) }
          %w[other elsewhere].each { |key| row("/tests/#{name}/#{key}", test[key], size) }
        end
      end

      def row(at, row, size)
        raise InvalidInput.at(@path + at, "has #{row.size} figures for #{size} outcomes") unless row.size == size
        sums(at, row)
      end

      def sums(at, figures)
        fits = figures.all? { |figure| figure.is_a?(Numeric) && figure.between?(0, 1) }
        return if fits && (figures.sum - 1).abs <= TOLERANCE

        raise InvalidInput.at(@path + at, "does not sum to 1")
      end
    end
  end
end
