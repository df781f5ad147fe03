# frozen_string_literal: true

module NimbleLedger
  module Card
    # What is found on a car and stays true of it until somebody mends it: a kind, a place, words of one's own
    # (model.md section 15, domain.md "History has a place").
    #
    #   Finding::SHAPE.faults("kind" => "bolt-missing", "cylinder" => 1)  #=> []
    module Finding
      KINDS = %w[
        connector-lock-broken
        bolt-missing
        bolt-snapped
        clip-missing
        boot-torn
        tracking
        thread-repaired
        oil-in-well
        water-in-well
        oily-plug
        ash-on-plug
        wrong-plug
        part-renewed
        lost-in-well
        other
      ].freeze
      WORDS_MAX = 200

      SHAPE =
        Shape.object(
          required: {
            "kind" => Shape.one_of(*KINDS)
          },
          optional: {
            "cylinder" => Shape.nullable(Shape.integer(min: 1, max: 64)),
            "words" => Shape.string(max: WORDS_MAX, empty: true)
          }
        )
    end
  end
end
