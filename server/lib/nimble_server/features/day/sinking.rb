# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # Promises that will hold less often than the house's share, and whose customers nobody has called yet: rows for
      # the Counter, the one to call first on top.
      module Sinking
        # @return [Array<Hash>] see the contract, SinkingPromise
        def self.of(shop)
          board = Board.new(shop)
          return [] if board.promises.none? { |_booking, row| row[:pick_up] }

          rows = DayPage.new(shop, board: board).to_h["jobs"].select { |row| row["call_by"] && row["called"].nil? }
          rows
            .sort_by { |row| row["call_by"] }
            .map do |row|
              row.slice(
                "id",
                "quote_id",
                "number",
                "plate",
                "customer",
                "phone",
                "title",
                "promise",
                "chance",
                "ready",
                "call_by"
              )
            end
        end
      end
    end
  end
end
