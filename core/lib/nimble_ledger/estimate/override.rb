# frozen_string_literal: true

module NimbleLedger
  module Estimate
    # Hours an advisor adds to the quoted ones, or takes off, with a reason; both figures are kept (model.md section 4).
    # Kept as a difference in tenths of an hour, so that a rustier car or another route still moves the hours.
    class Override
      SHAPE =
        Shape.object(required: { "by_hours" => Shape.number(min: -100, max: 100), "reason" => Shape.string(max: 120) })

      attr_reader :tenths, :reason

      # @param hash [Hash, nil] fitting SHAPE
      # @return [Override, nil]
      # @raise [InvalidInput] when the difference is not in whole tenths of an hour
      def self.from(hash, path: "/override") = hash && new(hash["by_hours"], hash["reason"], path)

      def initialize(by_hours, reason, path)
        exact = by_hours * 10.0
        @tenths = exact.round
        @reason = reason.strip
        if (exact - @tenths).abs > 1e-6
          raise InvalidInput.at("#{path}/by_hours", "must be in tenths of an hour", what: "override")
        end
        freeze
      end
      private_class_method :new
    end
  end
end
