# frozen_string_literal: true

module NimbleLedger
  module Trace
    # Tests that were done, in their order, with what they showed (model.md section 9, "Tests and outcomes"). Swaps move
    # parts, unless they were put back ("back"); the same test on the same cylinders counts once, the last time.
    class Evidence
      COIL_SWAPS = %w[swap-coil swap-both].freeze
      LOOKS = { "look-coil" => %w[coil wire boot], "read-plug" => %w[plug], "check-wire" => %w[wire boot] }.freeze
      SHAPE =
        Shape.list(
          Shape.object(
            required: {
              "test" => Shape.string(max: 40),
              "cylinder" => Shape.integer(min: 1, max: 99),
              "outcome" => Shape.string(max: 40)
            },
            optional: {
              "with" => Shape.integer(min: 1, max: 99),
              "back" => Shape.boolean,
              "run" => Shape.one_of("as-it-misfires", "otherwise")
            }
          ),
          max: 200
        )

      # The outcome of a swap after which nothing misfires.
      GONE = "none"

      # A test done: where parts sat before it, and whether it was run the way it misfires.
      Done =
        Struct.new(:test, :cylinder, :with, :outcome, :before, :run) do
          def set = [cylinder, with].compact.sort

          # An idle does not prove a load: that nothing misfires any more, where it was run otherwise, is no evidence.
          def proves? = !(outcome == GONE && run == "otherwise")
        end

      # @return [Array<Done>] all, in their order
      attr_reader :list

      # @return [SwappedParts] where parts sit after all of them
      attr_reader :places

      # @param given [Array<Hash>]
      # @param engine [Profile::Engine]
      # @param tables [Tables]
      # @raise [InvalidInput] for a test, cylinder or outcome there is not, and for a swap that cannot be
      def initialize(given, engine, tables, path: "/evidence")
        @engine = engine
        @tables = tables
        @path = path
        @places = SwappedParts.new(engine)
        @list = given.each_with_index.map { |one, i| done(one, "#{path}/#{i}") }.freeze
        freeze
      end

      # Those that count: what proves something, of the same test on the same cylinders the last.
      # @return [Array<Done>]
      def counted = list.select(&:proves?).reverse.uniq { |one| [one.test, one.set] }.reverse

      # @param hypothesis [Hypothesis]
      # @param one [Done]
      # @return [Float]
      def likelihood(hypothesis, one)
        at = @tables.test(one.test)["outcomes"].index(one.outcome)
        Evidence.row(@tables, one.test, hypothesis, one.before.affects(hypothesis).include?(one.cylinder))[at].to_f
      end

      # The row of a test a hypothesis is read by.
      # @param here [Boolean] whether it affects the tested cylinder
      # @return [Array<Float>]
      def self.row(tables, name, hypothesis, here)
        test = tables.test(name)
        return test["elsewhere"] if hypothesis.elsewhere? || (hypothesis.set? && SwappedParts::SWAPS.key?(name))
        return test["other"] unless here

        (hypothesis.boot? && test["here"]["boot"]) || test["here"].fetch(hypothesis.row)
      end

      private

      def done(given, path)
        refuse_outcome(given, path)
        %w[cylinder with].each { |key| refuse_unknown(given[key], "#{path}/#{key}") if given[key] }
        refuse_swap(given, path)
        found =
          Done.new(given["test"], given["cylinder"].to_i, given["with"]&.to_i, given["outcome"], @places, given["run"])
        @places = @places.swapped(found.test, found.cylinder, found.with) if SwappedParts::SWAPS.key?(found.test) &&
          !given["back"]
        found
      end

      def refuse_outcome(given, path)
        name, outcome = given.values_at("test", "outcome")
        test = @tables.test(name) or
          raise InvalidInput.at("#{path}/test", "is no test; there are #{@tables.tests.join(", ")}")
        known = test["outcomes"]
        return if known.include?(outcome)

        raise InvalidInput.at("#{path}/outcome", "is no outcome of #{name}; there are #{known.join(", ")}")
      end

      def refuse_unknown(number, path)
        return if @engine.cylinders.any? { |cylinder| cylinder.number == number.to_i }

        raise InvalidInput.at(path, "names cylinder #{number}, which #{@engine.code} does not have")
      end

      def refuse_swap(given, path)
        unless SwappedParts::SWAPS.key?(given["test"])
          raise InvalidInput.at("#{path}/with", "has no place in #{given["test"]}") if given["with"]
          return
        end
        raise InvalidInput.at("#{path}/with", "is needed: a swap has two cylinders") unless given["with"]
        raise InvalidInput.at("#{path}/with", "is the cylinder itself") if given["with"].to_i == given["cylinder"].to_i
        refuse_coils(given, path) if COIL_SWAPS.include?(given["test"])
      end

      def refuse_coils(given, path)
        if @engine.ignition == "rail"
          raise InvalidInput.at("#{path}/test", "cannot be: on a rail no coil can be swapped")
        end
        one, other = %w[cylinder with].map { |key| @places.record(given[key].to_i) }
        return if one && other && one.id != other.id

        raise InvalidInput.at("#{path}/with", "hangs on the same coil as cylinder #{given["cylinder"]}")
      end
    end
  end
end
