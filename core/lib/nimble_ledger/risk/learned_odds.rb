# frozen_string_literal: true

module NimbleLedger
  module Risk
    # What plugs have taught, as it is applied to the odds of the next ones (model.md section 12, "Outcomes"): of a
    # break by construction and, after that, by soak; of a damaged thread and of a stubborn plug over all constructions.
    class LearnedOdds
      # @param max [Integer] above which no factor lies
      # @return [Shape]
      def self.shape(max)
        factor = Shape.number(above: 0, max: max)
        Shape.object(
          required: {
            "broken" =>
              Shape.map(Shape.object(required: { "factor" => factor, "soaks" => Shape.map(factor, max: 20) }), max: 20),
            "thread" => factor,
            "stubborn" => factor
          }
        )
      end

      SHAPE = shape(1000)

      # @param hash [Hash] fitting SHAPE
      def initialize(hash)
        @broken = hash["broken"]
        @thread, @stubborn = hash.values_at("thread", "stubborn")
        freeze
      end

      attr_reader :thread, :stubborn

      # @return [Numeric] times the odds of a break; 1 of a construction or soak nobody has seen
      def broken(construction, soak)
        seen = @broken[construction] or return 1

        seen["factor"] * seen["soaks"].fetch(soak, 1)
      end
    end
  end
end
