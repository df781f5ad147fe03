# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # Jobs something is agreed to on: not those that were called off before any work.
      module AgreedJobs
        # @param jobs [Sequel::Dataset] of the table or joined with it
        # @return [Sequel::Dataset]
        def self.of(jobs) =
          jobs.where(Sequel.|({ Sequel[:jobs][:called_off_at] => nil }, Sequel.~(Sequel[:jobs][:started_at] => nil)))

        # Those that are of concern to the bay and the counter: not handed over.
        # @return [Sequel::Dataset]
        def self.in_hand(jobs) = of(jobs).where(handed_over_at: nil)
      end
    end
  end
end
