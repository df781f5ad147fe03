# frozen_string_literal: true

module NimbleServer
  module Features
    module Reminders
      # What customers are told of their time by itself: the day before, when it is ready, when it will be later.
      Feature =
        NimbleServer::Feature.define(:reminders) do
          depends :day, :house_rules, :offers, :outbox
          on(:time_given) { |shop, quote_id:, arrives:| DayBefore.plan(shop, quote_id, arrives) }
          on(:promised) do |shop, quote_id:, serial:|
            Letter.new(shop).tell(quote_id, "late", nth: serial) if serial > 1
          end
          on(:finished) { |shop, quote_id:| Letter.new(shop).tell(quote_id, "ready") }
        end
    end
  end
end
