# frozen_string_literal: true

module NimbleLedger
  module Profile
    # What may go wrong at a step (model.md section 1): the chance before anything is known of the car, the minutes it
    # adds, the parts it takes.
    class Mishap
      attr_reader :what, :chance, :minutes, :parts

      def initialize(hash)
        @what, @chance = hash.values_at("what", "chance")
        @minutes = ThreePoints.from(hash["minutes"])
        @parts = (hash["parts"] || []).map { |part| part.is_a?(Hash) ? part : { "part" => part, "quantity" => 1 } }
        freeze
      end
    end
  end
end
