# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # The yes of the customer: what is offered, the link, the answers, the words.
      Feature =
        NimbleServer::Feature.define(:offers) do
          depends :house_rules, :outbox, :quotes, :record, :vehicles
          publishes :agreed, :striking, :struck, :time_asked
          on(:putting_away) { |shop, quote:| Reading.new(shop).refuse_open(quote) }
        end
    end
  end
end
