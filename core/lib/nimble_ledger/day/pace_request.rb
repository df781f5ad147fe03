# frozen_string_literal: true

module NimbleLedger
  module Day
    # A pace request (formats.md): what is done of a job and what is left, answered with how it goes.
    class PaceRequest
      FORMAT = "nimble-ledger.pace-request"
      minutes = Shape.number(max: 1_000_000, above: 0)
      variance = Shape.number(max: 1e12)
      SHAPE =
        Shape.object(
          required: {
            "format" => Shape.const(FORMAT),
            "version" => Shape.const(1),
            "common_variation" => Shape.number(max: 10),
            "done" =>
              Shape.nullable(
                Shape.object(required: { "mean_minutes" => minutes, "variance" => variance, "took_minutes" => minutes })
              ),
            "left" => Shape.object(required: { "mean_minutes" => minutes, "variance" => variance })
          },
          optional: {
            "factor" => Shape.number(max: 1_000, above: 0),
            "in_hand" =>
              Shape.object(required: { "mean_minutes" => minutes, "spent_minutes" => Shape.number(max: 1_000_000) })
          }
        )

      # @param hash [Hash] parsed JSON
      # @raise [InvalidInput] with the path of every fault
      def self.build(hash, **)
        SHAPE.check!(hash, what: "request", code: "invalid_request")
        in_hand = hash.dig("in_hand", "mean_minutes")
        if in_hand && in_hand > hash["left"]["mean_minutes"]
          raise InvalidInput.at("/in_hand/mean_minutes", "is above what is left, of which it is a part")
        end

        new(hash)
      end

      def initialize(hash)
        @hash = hash
        freeze
      end

      # @return [Hash] see formats.md
      def answer(**)
        pace =
          Pace.new(
            @hash["common_variation"],
            done: figures("done", Pace::Done),
            left: figures("left", Pace::Left),
            in_hand: figures("in_hand", Pace::InHand),
            correction: @hash.fetch("factor", 1.0).to_f
          )
        {
          "format" => "nimble-ledger.pace",
          "version" => 1,
          "factor" => pace.factor,
          "mean_minutes" => pace.mean_minutes,
          "variance" => pace.variance
        }
      end

      private

      def figures(key, kind) = @hash[key] && kind.new(*@hash[key].values_at(*NAMES.fetch(key)).map(&:to_f))

      NAMES = {
        "done" => %w[mean_minutes variance took_minutes],
        "left" => %w[mean_minutes variance],
        "in_hand" => %w[mean_minutes spent_minutes]
      }.freeze
    end
  end
end
