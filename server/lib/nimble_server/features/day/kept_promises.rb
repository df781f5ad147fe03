# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # Whether promises of a time were kept, over all that were made of jobs that are finished now: one that was
      # replaced by another counts like the one that came after it.
      class KeptPromises
        def initialize(shop)
          @shop = shop
          @board = Board.new(shop)
        end

        # @return [Hash] see the contract, KeptPromises: how many, the mean of the chances they were given at, the share
        #   that was kept with its Wilson 95 % interval (model.md section 12)
        def to_h
          rows = made
          kept = rows.count { |row| @board.local(row[:finished_at]) <= row[:pick_up] }
          said = rows.any? ? rows.sum { |row| row[:chance] } / (100.0 * rows.size) : nil
          { "promises" => rows.size, "said" => said, **NimbleLedger::Ledger::Coverage.interval(kept, rows.size) }
        end

        private

        def made
          promises, bookings, jobs = %i[promises bookings jobs].map { |table| Sequel[table] }
          @shop[:promises]
            .join(:bookings, shop_id: promises[:shop_id], id: promises[:booking_id])
            .join(:jobs, shop_id: bookings[:shop_id], quote_id: bookings[:quote_id])
            .exclude(promises[:pick_up] => nil)
            .exclude(promises[:chance] => nil)
            .where(promises[:created_at] <= jobs[:finished_at]) # none where the job is not finished
            .select(promises[:pick_up], promises[:chance], jobs[:finished_at])
            .all
        end
      end
    end
  end
end
