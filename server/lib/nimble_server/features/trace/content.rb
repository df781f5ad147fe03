# frozen_string_literal: true

module NimbleServer
  module Features
    module Trace
      # What somebody has written down of a misfire, and the request it makes of the core together with what the bay
      # marked: what was read on the card comes before what was typed, in the order it was done.
      class Content
        # The first content of a trace: nothing known.
        def self.start = { "complaint" => "", "others" => "", "evidence" => [] }

        # @param hash [Hash] see the contract, TraceContent
        # @param bay [Bay]
        def initialize(hash, bay)
          @hash = hash
          @bay = bay
        end

        # @param estimate [Hash] what is known of the car, as an estimate request
        # @param house [HouseRules::House]
        # @return [Hash] a trace request (formats.md)
        def request(estimate, house)
          {
            "format" => "nimble-ledger.trace-request",
            "version" => 1,
            "engine" => {
            },
            **estimate.slice("equipment", "condition", "history", "variants", "pins"),
            "codes" => @hash["codes"] || @bay.codes,
            "lamp" => @hash["lamp"] || @bay.lamp,
            "when" => @hash["when"],
            "counters" => @hash["counters"],
            "sets" => @hash["sets"],
            "open" => @bay.open,
            "evidence" => @bay.evidence + (@hash["evidence"] || []).map { |one| one.slice(*EVIDENCE) },
            "diagnosis_rate_cents" => house.settings["diagnosis_rate_cents"]
          }.compact
        end

        # What finding out has taken so far, as it was written down.
        # @return [Numeric] minutes
        def minutes = (@hash["evidence"] || []).sum { |one| one["minutes"] || 0 }

        EVIDENCE = %w[test cylinder with outcome back run].freeze
        private_constant :EVIDENCE
      end
    end
  end
end
