# frozen_string_literal: true

module NimbleLedger
  module Time
    # How long an engine takes to be cold enough, by its mass and how it arrives (model.md section 5, "Ready time").
    #
    #   Time::Cooling.minutes(engine, "hot", house)   #=> 150.0
    module Cooling
      MASS = { "small" => 0.6, "medium" => 1.0, "large" => 1.25 }.freeze

      # @param engine [Profile::Engine]
      # @param arrival ["cold", "warm", "hot"]
      # @param house [House::Settings]
      # @return [Float] minutes
      def self.minutes(engine, arrival, house) = house["cool_minutes"].fetch(arrival) * MASS.fetch(engine.thermal_mass)
    end
  end
end
