# frozen_string_literal: true

module NimbleLedger
  module Profile
    # One way to a target: the steps it goes through, what it needs, and how awkward the reach is.
    class Way
      attr_reader :id, :through, :choices, :factor, :needs, :cautions

      def initialize(hash)
        @id = hash["id"]
        @through = Entries.plain(hash["through"])
        @choices = Entries.choices(hash["through"])
        @factor = hash["factor"] || 1.0
        @needs = hash["needs"] || []
        @cautions = hash["cautions"] || []
        freeze
      end
    end
  end
end
