# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # What a move would do to every promise, before it is made.
      class Preview
        LEAST = 0.005 # a chance that moves by less than this is said to stay

        # @param board [Board]
        def initialize(board)
          @board = board
        end

        # @param id [String] of an entry
        # @param person [Integer]
        # @param place [Integer] in that person's list without it
        # @return [Hash] see the contract, DayPreview
        def of(id, person, place)
          before = rows(@board.request)
          after = rows(@board.request(jobs: @board.placed(@board.with_moved(id, person: person, place: place))))
          {
            "ready" => after.fetch(id)["ready"],
            "changes" =>
              before.filter_map do |job, row|
                next unless row.key?("chance")

                now = after.fetch(job)["chance"]
                moved = (now - row["chance"]).abs >= LEAST
                { "job" => job, "before" => row["chance"], "after" => now } if moved
              end
          }
        end

        private

        def rows(request) = NimbleLedger::Day::Request.build(request).answer["jobs"].to_h { |row| [row["id"], row] }
      end
    end
  end
end
