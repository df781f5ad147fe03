# frozen_string_literal: true

module NimbleLedger
  module Vehicle
    # Until when a part the shop fitted is under its warranty (model.md section 7): house months and distance, whichever
    # ends first.
    class Warranty
      # Targets whose part the shop fitted itself, on every cylinder they serve, and still owes.
      # @param fittings [Array<Hash>] "work", "cylinder", "on" (Date), "km" or nil: what the shop fitted
      # @param on [Date] today
      # @param km [Numeric, nil] odometer now
      # @return [Array<Profile::Target>]
      def self.owed(targets, fittings, house:, on:, km:)
        held = fittings.select { |one| new(house, fitted_on: one["on"], fitted_km: one["km"]).holds?(on: on, km: km) }
        covered = held.group_by { |one| one["work"] }.transform_values { |same| same.map { |one| one["cylinder"] } }
        targets.select { |target| target.cylinders.any? && (target.cylinders - covered.fetch(target.work, [])).empty? }
      end

      # @param house [House::Settings]
      # @param fitted_on [Date]
      # @param fitted_km [Numeric, nil] odometer then
      def initialize(house, fitted_on:, fitted_km:)
        @until = fitted_on >> house["warranty_months"]
        @until_km = fitted_km && (fitted_km + house["warranty_km"])
        freeze
      end

      # @return [Date] last day
      attr_reader :until

      # @return [Numeric, nil] last odometer reading, nil where the one at fitting is not known
      attr_reader :until_km

      # @param on [Date]
      # @param km [Numeric, nil] odometer now; nil: by the day alone
      def holds?(on:, km:) = on <= @until && (km.nil? || @until_km.nil? || km <= @until_km)
    end
  end
end
