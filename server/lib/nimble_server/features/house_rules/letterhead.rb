# frozen_string_literal: true

module NimbleServer
  module Features
    module HouseRules
      # Who we are, as it stands on every paper and on the customer's page.
      module Letterhead
        # @return [Hash] the shop's row, with :reached, how it is reached, :tax_number and :opening_line; "" where
        #   nothing is said
        def self.of(shop)
          house = House.new(shop).settings
          reached = %w[shop_address shop_phone shop_mail].map { |name| house[name] }.reject(&:empty?)
          shop.profile.merge(
            reached: reached.join("  ·  "),
            tax_number: house["tax_number"],
            opening_line: house["opening_line"]
          )
        end
      end
    end
  end
end
