# frozen_string_literal: true

module NimbleServer
  module Features
    module Counter
      # How far a job in the bay has come, as the Counter draws it: by the marks on its card.
      class InBay
        NOTHING = { "done_minutes" => nil, "found" => 0, "paused" => nil }.freeze

        # @param job [Hash] row
        def initialize(shop, job)
          @shop = shop
          @job = job
        end

        # @return [Hash] done_minutes along the descent, found: how many findings, paused: why it stands still
        def to_h
          return NOTHING unless @job[:started_at]

          state = Jobs::Marks.new(@shop).fold(@job).state
          done = pieces.select { |piece| state["done"].key?(piece["id"]) }
          {
            "done_minutes" => done.sum { |piece| piece["minutes"] },
            "found" => state["found"].size,
            "paused" => state["paused"]&.fetch("why")
          }
        end

        private

        def pieces
          newest = @shop[:job_cards].where(job_id: @job[:id]).order(Sequel.desc(:revision)).get(:sheet)
          newest.to_h["pieces"].to_a
        end
      end
    end
  end
end
