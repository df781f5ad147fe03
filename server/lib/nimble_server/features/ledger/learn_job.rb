# frozen_string_literal: true

module NimbleServer
  module Features
    module Ledger
      # Learns what a shop's ledger teaches, in the background. Done twice it changes nothing: what was learned from the
      # same jobs is the same.
      class LearnJob < Que::Job
        # Soon it is tried again, then ever later.
        self.retry_interval = ->(count) { (count**3) + 5 }

        # @param shop_id [String]
        def run(shop_id)
          db = Background.db
          Database.within_shop(db, shop_id) { Learned.new(Shop.new(db, shop_id, actor: Actor.system("learner"))).learn }
        end
      end
    end
  end
end
