# frozen_string_literal: true

require "tzinfo"

module NimbleServer
  module Features
    module ShopDetails
      # How a shop is called, where it is and how it writes: name, locale, unit of distance, time zone, paper. What was
      # saved and printed before stays as it was.
      class Details
        NAMES = %w[name locale distance_unit time_zone paper].freeze

        # @param place [Hash] {"time_zone" => ...}
        # @param path [String] where it stands in the request
        # @return [Array<Hash>] faults, each with path and message
        def self.faults(place, path:)
          return [] if TZInfo::Timezone.all_identifiers.include?(place["time_zone"])

          [{ "path" => "#{path}/time_zone", "message" => "is no time zone; one is like Europe/London" }]
        end

        def initialize(shop)
          @shop = shop
        end

        # @return [Hash] see the contract, ShopDetails
        def to_h = NAMES.to_h { |name| [name, @shop.profile[name.to_sym]] }

        # @param given [Hash] see the contract, ShopDetails
        # @raise [Refusal] 422 for a time zone there is not, with its path
        def keep(given)
          faults = Details.faults(given, path: "")
          if faults.any?
            said = "#{faults.first["path"]} #{faults.first["message"]}."
            raise Refusal.new(422, "invalid_shop", said, details: faults)
          end
          @shop.describe(given.slice(*NAMES).merge("name" => given["name"].strip))
        end
      end
    end
  end
end
