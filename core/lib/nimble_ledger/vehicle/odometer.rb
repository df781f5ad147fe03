# frozen_string_literal: true

module NimbleLedger
  module Vehicle
    # Readings of an odometer: they never fall without a reason (another instrument, a slip mended).
    module Odometer
      module_function

      # @param km [Numeric] read now
      # @param last_km [Numeric, nil] read before
      # @param reason [String, nil]
      # @return [Boolean] whether it can be believed as it stands
      def believable?(km, last_km, reason: nil) = last_km.nil? || km >= last_km || !reason.to_s.strip.empty?
    end
  end
end
