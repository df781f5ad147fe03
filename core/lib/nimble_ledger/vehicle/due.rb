# frozen_string_literal: true

module NimbleLedger
  module Vehicle
    # When plugs are due again: by the distance and the months their engine's profile gives, whichever comes first.
    #
    #   due = Due.new({ "interval_km" => 120_000, "interval_months" => 96 })
    #   due.km(181_000)            #=> 301000
    #   due.on(Date.new(2026, 11, 26))  #=> 2034-11-26
    class Due
      # @param plug [Hash, nil] of a profile
      def initialize(plug)
        @km = plug && plug["interval_km"]
        @months = plug && plug["interval_months"]
        freeze
      end

      def known? = !(@km.nil? && @months.nil?)

      # @param changed_km [Numeric, nil] odometer at the change
      # @return [Numeric, nil] odometer when they are due; nil where either is not known
      def km(changed_km) = changed_km && @km && (changed_km + @km)

      # @param changed_on [Date, nil]
      # @return [Date, nil]
      def on(changed_on) = changed_on && @months && (changed_on >> @months)

      # @param odometer_km [Numeric, nil] now
      # @return [Numeric, nil] distance past due, negative before; nil where it is not known
      def over_km(changed_km, odometer_km)
        at = km(changed_km)
        at && odometer_km && (odometer_km - at)
      end
    end
  end
end
