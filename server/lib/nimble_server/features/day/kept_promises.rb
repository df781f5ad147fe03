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
          @shop[:promises]
            .join(:bookings, shop_id: Sequel[:promises][:shop_id], id: Sequel[:promises][:booking_id])
            .join(:jobs, shop_id: Sequel[:bookings][:shop_id], quote_id: Sequel[:bookings][:quote_id])
            .exclude(Sequel[:promises][:pick_up] => nil)
            .exclude(Sequel[:promises][:chance] => nil)
            .exclude(Sequel[:jobs][:finished_at] => nil)
            .where(Sequel[:promises][:created_at] <= Sequel[:jobs][:finished_at])
            .select(Sequel[:promises][:pick_up], Sequel[:promises][:chance], Sequel[:jobs][:finished_at])
            .all
        end
      end
    end
  end
end
