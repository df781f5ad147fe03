# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # Jobs in the bay: cards, marks, pictures, what is found, the hand-over.
      Feature =
        NimbleServer::Feature.define(:jobs) do
          depends :house_rules, :offers, :quotes, :record, :vehicles
          publishes :handed_over, :card_shown, :finished
          on(:agreed) { |shop, **agreed| Opening.new(shop).from_yes(**agreed) }
          on(:striking) { |shop, **struck| Opening.new(shop).refuse_strike(**struck) }
          on(:struck) { |shop, **struck| CallingOff.new(shop).after_strike(**struck) }
          routes { [Routes, Papers] }
        end
    end
  end
end
