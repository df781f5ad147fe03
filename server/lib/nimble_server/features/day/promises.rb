# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # What was promised to customers: the newest of a booking is in force, those before it stay where they are.
      module Promises
        # @param bookings [Array<String>] ids
        # @return [Hash{String=>Hash}] by booking, the row in force: "pick_up" is nil where it was taken back
        def self.of(shop, bookings) = shop[:promises].where(booking_id: bookings).order(:serial).as_hash(:booking_id)
      end
    end
  end
end
