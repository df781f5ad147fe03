# frozen_string_literal: true

module NimbleServer
  module Features
    module Trace
      # What the card of a quote's job tells its trace; nothing where no job is open or begun.
      class Bay
        def initialize(shop, quote)
          @job = shop[:jobs].where(quote_id: quote[:id]).first
          @card = @job && @job[:started_at] && told_by(shop)
        end

        def codes = @card&.codes
        def lamp = @card&.lamp
        def evidence = @card ? @card.evidence : []
        def open = @card ? @card.open : []

        # @return [Hash] see the contract, TracePage
        def to_h
          {
            "job" => @job && { "id" => @job[:id], "number" => @job[:number] },
            "evidence" => evidence,
            "codes" => codes,
            "lamp" => lamp,
            "open" => open
          }
        end

        private

        def told_by(shop)
          sheet = Jobs::Cards.new(shop).of(@job).sheet
          NimbleLedger::Card::TraceEvidence.new(sheet, Jobs::Marks.new(shop).fold(@job).state)
        end
      end
    end
  end
end
