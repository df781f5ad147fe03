# frozen_string_literal: true

module NimbleLedger
  module Risk
    # When the plugs were last changed and what is in the head, as the risk needs it (model.md section 5). A cylinder's
    # own entry wins over the car's, key by key: only the front bank was done last time, one plug is of another make.
    class History
      CONSTRUCTIONS = %w[one-piece one-piece-long-reach multi-piece].freeze

      fitted =
        Shape.object(
          required: {
            "construction" => Shape.one_of(*CONSTRUCTIONS),
            "interval_km" => Shape.number(above: 0, max: 10_000_000)
          }
        )
      change = { "plugs_changed_km" => Shape.number(max: 10_000_000), "plugs_changed_years" => Shape.number(max: 200) }
      more = { "compound_used" => Shape.boolean, "fitted" => fitted }
      SHAPE =
        Shape.object(
          required: {
            "odometer_km" => Shape.number(max: 10_000_000),
            **change
          },
          optional: {
            **more,
            "cylinders" => Shape.map(Shape.object(optional: { **change, **more }), max: 32)
          }
        )

      # What is known of the plugs of one cylinder: km and years since the last change, whether compound was used then,
      # and what is fitted (nil: what the profile says).
      Entry =
        Struct.new(:distance_km, :years, :compound_used, :fitted) do
          def compound_used? = compound_used
          # @return [String, nil] construction of what is fitted
          def construction = fitted&.fetch("construction")
          # @return [Numeric, nil] km
          def interval_km = fitted&.fetch("interval_km")
        end

      # @return [Entry] of the car as a whole
      attr_reader :car

      # A last change that stands above the odometer. cylinder: whose plug, nil for the car's.
      Doubt =
        Struct.new(:cylinder, :changed_km, :odometer_km) do
          # @yield [km] a distance as whoever reads it writes it; km where no block is given
          # @return [String] without its full stop
          def sentence(&distance)
            distance ||= ->(km) { "#{format("%.10g", km)} km" }
            "#{cylinder ? "Plug #{cylinder}" : "The plugs"} cannot have been changed at " \
              "#{distance.call(changed_km)}: the odometer is at #{distance.call(odometer_km)}"
          end
        end

      # A history that cannot be true.
      class Impossible < InvalidInput
        # @return [Doubt]
        attr_reader :doubt

        def initialize(doubt, path)
          @doubt = doubt
          message = "is above the odometer (#{format("%.10g", doubt.odometer_km)} km)"
          super("#{doubt.sentence}.", details: [{ "path" => path, "message" => message }])
        end
      end

      # Why a last change cannot be true; nil where it can be or too little is known.
      # @param changed [Numeric, nil] km at the last change
      # @param odometer [Numeric, nil] km now
      # @param cylinder [String, Integer, nil] whose plug; nil for the car's
      # @return [Doubt, nil]
      def self.doubt(changed, odometer, cylinder: nil) =
        changed && odometer && changed > odometer ? Doubt.new(cylinder, changed, odometer) : nil

      # @param cylinders [Array<Integer>, nil] of the engine; nil leaves unknown numbers unchecked
      # @raise [InvalidInput] when a last change stands above the odometer, or a cylinder does not exist
      def initialize(hash, cylinders: nil, path: "/history")
        SHAPE.check!(hash, what: "history", path: path)
        @odometer = hash["odometer_km"]
        @path = path
        @car = entry(hash, path)
        @own =
          (hash["cylinders"] || {}).to_h do |number, own|
            here = "#{path}/cylinders/#{Shape.key(number)}"
            if cylinders&.none? { |known| known.to_s == number }
              refuse(here, "names cylinder #{number}, which does not exist")
            end
            [number, entry(hash.merge(own), here, cylinder: number)]
          end
        freeze
      end

      # @param number [Integer] cylinder
      # @return [Entry]
      def of(number) = @own.fetch(number.to_s, car)

      # What is fitted anywhere, for what depends on the whole engine.
      # @return [Array<Entry>]
      def entries = [car, *@own.values]

      def odometer_km = @odometer
      def distance_km = car.distance_km
      def years = car.years
      def compound_used? = car.compound_used?

      private

      def entry(hash, path, cylinder: nil)
        changed = hash["plugs_changed_km"]
        doubt = History.doubt(changed, @odometer, cylinder: cylinder)
        raise Impossible.new(doubt, "#{path}/plugs_changed_km") if doubt

        Entry.new(@odometer - changed, hash["plugs_changed_years"], hash["compound_used"] || false, hash["fitted"])
      end

      def refuse(path, message)
        raise InvalidInput.new(
                "The history cannot be right: #{path} #{message}.",
                details: [{ "path" => path, "message" => message }]
              )
      end
    end
  end
end
