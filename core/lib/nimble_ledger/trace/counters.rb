# frozen_string_literal: true

module NimbleLedger
  module Trace
    # Misfires counted for each cylinder by the scan tool (model.md section 9, "Given more"): a suspect is the
    # likelier the more of them lie where it sits now. Counts of one drive hang together, so that all of them say as
    # much as a few independent misfires (docs/trace.md).
    #
    #   Counters.new({ "3" => 214, "1" => 4 }, engine, tables).likelihood([3])  #=> 0.69…
    class Counters
      SHAPE = Shape.map(Shape.integer(min: 0, max: 10_000_000), max: 64)

      # @param given [Hash{String=>Integer}, nil] cylinder to misfires; nil where nobody read them
      # @param engine [Profile::Engine]
      # @param tables [Tables]
      # @raise [InvalidInput] for a cylinder there is not
      def initialize(given, engine, tables, path: "/counters")
        @given = (given || {}).transform_keys(&:to_i)
        @numbers = engine.cylinders.map(&:number)
        @tables = tables
        unknown = @given.keys.find { |number| !@numbers.include?(number) }
        raise InvalidInput.at("#{path}/#{unknown}", "names cylinder #{unknown}, which does not exist") if unknown

        freeze
      end

      def any? = @given.values.sum.positive?

      # @param affected [Array<Integer>] cylinders a suspect affects as its part sits now
      # @return [Float] how likely the counts are, up to a factor all suspects share
      def likelihood(affected)
        whole = @given.values.sum.to_f
        return 1.0 unless whole.positive?

        weight = @tables.counters("weight")
        Math.exp(@given.sum(0.0) { |number, count| weight * count / whole * Math.log(chance(number, affected)) })
      end

      private

      # Of a misfire, that it falls on a cylinder.
      def chance(number, affected)
        others = @numbers.size - affected.size
        return 1.0 / @numbers.size if others.zero?

        inside = @tables.counters("inside")
        affected.include?(number) ? inside / affected.size : (1 - inside) / others
      end
    end
  end
end
