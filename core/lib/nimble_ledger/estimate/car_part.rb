# frozen_string_literal: true

module NimbleLedger
  module Estimate
    # What a request of any format says of a car, checked and built.
    class CarPart
      # @return [Car]
      attr_reader :car

      # @return [Profile::Engine] as it was written, all variants in it
      attr_reader :written

      # @return [Hash{String=>String}] variants nobody answered, with the usual answer
      attr_reader :assumed_variants

      # @return [Array<Hash>] "path", "message"
      attr_reader :warnings

      # @param hash [Hash] fitting Request::CAR, with "engine"
      # @param documents [Documents] where engine and catalog come from
      # @param base [House::Settings]
      # @param path [String] where the hash stands in its request
      # @raise [InvalidInput]
      def initialize(hash, documents: Documents.new, base: House::Settings.defaults, path: "")
        @path = path
        @written = documents.engine(hash["engine"], "#{path}/engine")
        answers = @written.variants.resolve(hash["variants"], path: "#{path}/variants")
        @assumed_variants = answers.assumed
        built = @written.variant(answers.in_force)
        house = House::Precedence.resolve(base, @written, hash["house"])
        pins = Access::VariantPins.new(@written, built, hash["pins"], path: "#{path}/pins")
        @warnings = @written.warnings + pins.warnings
        @car =
          Car.new(
            engine: built,
            house: house,
            condition: condition(hash, house),
            history: history(hash),
            pins: pins.pins,
            catalog: documents.catalog(hash["catalog"], "#{path}/catalog"),
            **given(hash)
          )
      end

      # @param ids [Array<String>]
      # @return [Array<Profile::Target>]
      # @raise [InvalidInput] for one the engine does not have
      def targets(ids, path)
        ids.each_with_index.map do |id, i|
          car.engine.target(id) ||
            raise(InvalidInput.at("#{path}/#{i}", "names target #{id}, which #{@written.code} does not have"))
        end
      end

      private

      # What needs no engine to be read.
      def given(hash)
        hours, outcomes = (hash["learned"] || {}).values_at("hours", "outcomes")
        {
          equipment: hash["equipment"] || [],
          warranty: hash["warranty"] || [],
          rules: hash["rules"] ? Rules[hash["rules"].to_i] : Rules::NEWEST,
          correction: hours && Time::Correction.from(hours),
          odds: outcomes && Risk::LearnedOdds.new(outcomes)
        }
      end

      def condition(hash, house)
        found = Time::Condition.new(hash["condition"], house)
        unknown = found.wells.keys - @written.cylinders.map { |cylinder| cylinder.number.to_s }
        return found if unknown.empty?

        fault(
          "#{@path}/condition/wells/#{Shape.key(unknown.first)}",
          "names cylinder #{unknown.first}, which does not exist"
        )
      end

      def history(hash)
        hash["history"] &&
          Risk::History.new(hash["history"], cylinders: @written.cylinders.map(&:number), path: "#{@path}/history")
      end
    end
  end
end
