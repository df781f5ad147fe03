# frozen_string_literal: true

module NimbleServer
  module Features
    module Vehicles
      # The person a car belongs to.
      module Owner
        # The customer of that name and telephone, or a new one: two of one name without a number are two people.
        # @param given [Hash{Symbol=>String}] name, phone, email, wishes
        # @return [String] id
        def self.known_or_new(shop, given)
          given = given.transform_values { |text| text.to_s.strip }.reject { |_name, text| text.empty? }
          same = given[:phone] && shop[:customers].where(merged_into: nil, **given.slice(:name, :phone)).get(:id)
          same || shop.insert(:customers, given)
        end
      end
    end
  end
end
