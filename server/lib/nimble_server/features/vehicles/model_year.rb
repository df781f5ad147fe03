# frozen_string_literal: true

module NimbleServer
  module Features
    module Vehicles
      # The model year of a car: next year's are sold already, later ones are slips of the hand.
      module ModelYear
        # @param year [Integer, nil]
        # @param now [Time]
        # @return [String, nil] what is wrong with it
        def self.fault(year, now) = year && year > now.year + 1 ? "is still to come" : nil

        # @raise [Refusal] 422 with its path
        def self.check(year, now)
          fault = fault(year, now) or return
          raise Refusal.new(
                  422,
                  "invalid_year",
                  "The model year #{year} #{fault}.",
                  details: [{ "path" => "/year", "message" => fault }]
                )
        end
      end
    end
  end
end
