# frozen_string_literal: true

module NimbleLedger
  module Record
    # What a customer has agreed to on one job, all yeses together (model.md section 14).
    #
    #   Agreement.new(50_000, 60_000).with(30_000, 40_000)                    #=> 80_000, not above 100_000
    #   Agreement.new(50_000, 60_000).with(70_000, 80_000, supplement: true)  #=> 70_000, not above 80_000
    class Agreement
      attr_reader :agreed_cents, :limit_cents

      # @param agreed_cents [Integer]
      # @param limit_cents [Integer] nothing is billed above it without another yes
      def initialize(agreed_cents, limit_cents)
        @agreed_cents = agreed_cents
        @limit_cents = limit_cents
        freeze
      end

      # Another yes: a supplement holds the whole work anew and takes the place of what was agreed; another scope comes
      # on top.
      # @return [Agreement]
      def with(total_cents, limit_cents, supplement: false)
        return Agreement.new(total_cents, limit_cents) if supplement

        Agreement.new(agreed_cents + total_cents, self.limit_cents + limit_cents)
      end
    end
  end
end
