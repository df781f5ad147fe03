# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # What was promised to customers: the newest of a booking is in force, those before it stay where they are.
      module Promises
        # What a customer is told of a quote's time: local instants, pick_up nil where nothing is promised, and since
        # when that stands.
        Booked = Struct.new(:arrives, :pick_up, :since)

        # @return [Booked, nil]
        def self.booked(shop, quote_id)
          row = shop[:bookings].where(quote_id: quote_id, ended_at: nil).first or return nil
          return nil if row[:hold_until] && row[:hold_until] <= shop.now

          promise = of(shop, [row[:id]])[row[:id]] || {}
          Booked.new(row[:arrives], promise[:pick_up], promise[:created_at] || row[:created_at])
        end

        # @param bookings [Array<String>] ids
        # @return [Hash{String=>Hash}] by booking, the row in force: "pick_up" is nil where it was taken back
        def self.of(shop, bookings) = shop[:promises].where(booking_id: bookings).order(:serial).as_hash(:booking_id)
      end
    end
  end
end
