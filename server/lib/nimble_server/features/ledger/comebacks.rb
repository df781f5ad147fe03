# frozen_string_literal: true

module NimbleServer
  module Features
    module Ledger
      # Cars that came back with work of ours under warranty, by the kind of work and the engine (model.md sections 7
      # and 12): jobs whose card holds work the shop owed.
      class Comebacks
        def initialize(shop)
          @shop = shop
        end

        # @return [Array<Hash>] work, engine, count; the most first
        def rows
          owed = cards.flat_map { |row| works(row[:request].to_h) }
          owed
            .tally
            .sort_by { |(work, engine), count| [-count, work, engine] }
            .map { |(work, engine), count| { "work" => work, "engine" => engine, "count" => count } }
        end

        private

        # The newest card of each job with something owed on it.
        def cards
          newest = @shop[:job_cards].distinct(:job_id).order(:job_id, Sequel.desc(:revision)).select(:job_id, :request)
          newest.from_self.where(Sequel.lit("jsonb_array_length(coalesce(request -> 'warranty', '[]')) > 0")).all
        end

        # Each kind of work once for each card.
        def works(request)
          targets = request["engine"]["targets"].select { |target| request["warranty"].include?(target["id"]) }
          targets.map { |target| [target["work"], request["engine"]["code"]] }.uniq
        end
      end
    end
  end
end
