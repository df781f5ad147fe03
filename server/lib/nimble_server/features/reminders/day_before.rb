# frozen_string_literal: true

require "tzinfo"

module NimbleServer
  module Features
    module Reminders
      # The reminder of the day before: put off until then, and looked at anew when it is due. A car that was moved to
      # another time, given back or called off meanwhile is not reminded of.
      class DayBefore < Que::Job
        # The process that works off what takes long holds the keys of the record, which every letter goes into.
        QUEUE = "papers"
        AHEAD = 24 * 3600 # seconds before the car is to come
        LEAST = 4 * 3600 # seconds: nobody is reminded of what they were told just now

        self.retry_interval = ->(count) { (count**3) + 30 }

        # @param arrives [String] local instant
        def self.plan(shop, quote_id, arrives)
          due = instant(shop, arrives) - AHEAD
          return if due - shop.now < LEAST

          Background.on(shop.db) { enqueue(shop.id, quote_id, arrives, job_options: { queue: QUEUE, run_at: due }) }
        end

        # @return [Time]
        def self.instant(shop, local) =
          WallTime.utc(TZInfo::Timezone.get(shop.profile[:time_zone]), ::Time.iso8601("#{local}:00Z"))

        # @param shop_id [String]
        # @param arrives [String] local instant, as it stood when this was planned
        def run(shop_id, quote_id, arrives)
          db = Background.db
          Database.within_shop(db, shop_id) do
            DayBefore.tell(Shop.new(db, shop_id, actor: Actor.system("reminders")), quote_id, arrives)
          end
        end

        # @return [Boolean] whether it goes out
        def self.tell(shop, quote_id, arrives)
          return false unless Day::Promises.booked(shop, quote_id)&.arrives == arrives

          shop.transaction { Letter.new(shop).tell(quote_id, "reminder", nth: arrives[0, 10].delete("-").to_i) }
        end
      end
    end
  end
end
