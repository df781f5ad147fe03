# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # When? The shop's calendar, its board of booked jobs, offers of a time, promises of one.
      Feature =
        NimbleServer::Feature.define(:day) do
          depends :house_rules, :jobs, :offers, :quotes, :record, :vehicles
          publishes :time_given, :promised
          on(:agreed) { |shop, offer:, **| BookingDesk.new(shop).agreed(offer.quote[:id]) }
          on(:time_asked) { |shop, quote_id:| Promises.booked(shop, quote_id) }
          routes { [Routes] }
        end
    end
  end
end
