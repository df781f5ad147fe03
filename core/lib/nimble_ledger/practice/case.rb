# frozen_string_literal: true

require "zlib"

module NimbleLedger
  module Practice
    # A made-up car with a hidden fault and hidden plugs, drawn from the house's own tables by a seed: what an advisor
    # or technician practises on. The same seed and engine are the same car, and a test done again shows the same.
    #
    #   Case.new(7, engine: engine, catalog: catalog).shown
    class Case
      # What the car says by itself; the rest is found out.
      LAMP_BLINKS = 0.3

      # A plug of the car and how it would come out.
      Plug = Struct.new(:cylinder, :target, :outcome)

      # Whether there is anything to find out on an engine: more than one cylinder, and figures somebody stands for.
      # @param engine [Profile::Engine]
      def self.fit?(engine) = engine.cylinders.size > 1 && !engine.provisional?

      attr_reader :engine, :history, :condition, :codes, :moment, :lamp

      # @return [Trace::Hypothesis] the fault nobody is told
      attr_reader :fault

      # @return [Array<Plug>] how each plug would come out without a soak
      attr_reader :plugs

      # @param seed [Integer]
      # @param engine [Profile::Engine] as written
      # @param catalog [Parts::Catalog, nil]
      # @param house [House::Settings]
      # @param equipment [Array<String>]
      def initialize(seed, engine:, catalog: nil, house: House::Settings.defaults, equipment: [])
        @seed = seed
        @engine = engine
        @documents = Documents.new(engine: engine, catalog: catalog)
        @house = house
        @equipment = equipment
        @tables = Trace::Tables.new
        @rng = Random.new(seed)
        draw
        freeze
      end

      # What is known of the car when it comes in.
      # @param evidence [Array<Hash>] tests done, with what they showed
      # @return [Trace::Request]
      def request(evidence = [])
        known = {
          "format" => Trace::Request::FORMAT,
          "version" => 1,
          "engine" => {
          },
          "equipment" => @equipment,
          "history" => history,
          "condition" => condition,
          "evidence" => evidence
        }
        known.merge!("codes" => codes, "lamp" => lamp, "when" => moment) if codes
        Trace::Request.build(known, documents: @documents, base: @house)
      end

      # Does tests, in their order.
      # @param tests [Array<Hash>] "test", "cylinder", "with"?
      # @return [Array<Hash>] the same with their outcomes
      # @raise [InvalidInput] for a test that cannot be done, with its path under /evidence
      def done(tests)
        tests.reduce([]) do |so_far, test|
          # Read with any outcome first: what cannot be done is refused before anything is shown.
          request([*so_far, test.merge("outcome" => outcomes_of(test["test"]).first)])
          [*so_far, test.merge("outcome" => outcome(test, so_far))]
        end
      end

      private

      def draw
        @history = {
          "odometer_km" => 60_000 + @rng.rand(140_000),
          "plugs_changed_km" => @rng.rand(60_000),
          "plugs_changed_years" => 2 + @rng.rand(9),
          "compound_used" => @rng.rand < 0.2
        }
        @condition = { "corrosion" => %w[none none light heavy].sample(random: @rng), "brittle" => @rng.rand < 0.2 }
        first = request
        @fault = sampled(first.belief.held.map { |one| [one.hypothesis, one.chance] })
        @moment = sampled(Trace::Request::MOMENTS.map { |moment| [moment, @tables.when(@fault.row, moment)] })
        @codes = read(first.car.engine)
        lit = @rng.rand < LAMP_BLINKS ? "blinking" : "steady"
        @lamp = @codes.empty? ? "off" : lit
        @plugs = plugs_of(first.car)
      end

      # Codes as the fault sets them.
      def read(engine)
        reading = Trace::Codes.new([], engine, @tables)
        numbers = engine.cylinders.map(&:number).select { |number| @rng.rand < reading.chance(@fault, number) }
        found = numbers.map { |number| format("P03%02d", number) }
        found.unshift(Trace::Codes::SEVERAL) if @rng.rand < reading.chance_of_several(@fault)
        found.map { |code| { "code" => code, "status" => "stored" } }
      end

      def plugs_of(car)
        return [] unless Risk::PlugRemoval.known?(car)

        odds = Risk::PlugRemoval.new(car)
        car
          .engine
          .targets
          .select(&:plug?)
          .flat_map do |target|
            target.cylinders.map { |number| Plug.new(number, target.id, came_out(odds.chances(target))) }
          end
      end

      def came_out(chances)
        return "broken" if @rng.rand < chances.broken
        return "thread" if @rng.rand < chances.thread

        @rng.rand < chances.stubborn ? "stubborn" : "free"
      end

      def sampled(weighed, at = @rng.rand)
        whole = weighed.sum { |_one, weight| weight }
        reached = 0.0
        weighed.find { |_one, weight| (reached += weight) >= at * whole }&.first || weighed.last.first
      end

      def outcomes_of(name) = @tables.test(name)&.fetch("outcomes") || [""]

      def outcome(test, so_far)
        places = Trace::Evidence.new(so_far, engine, @tables).places
        here = places.affects(fault).include?(test["cylinder"])
        row = Trace::Evidence.row(@tables, test["test"], fault, here)
        set = [test["cylinder"], test["with"]].compact.sort.join("-")
        at = Random.new(Zlib.crc32("#{@seed} #{test["test"]} #{set}")).rand
        sampled(outcomes_of(test["test"]).zip(row), at)
      end
    end
  end
end
