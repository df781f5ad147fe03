# frozen_string_literal: true

module NimbleServer
  module Features
    module Outbox
      # Carries what waits in the outbox, one message at a time, in a process of its own (server/post.rb). What does not
      # get through is tried again some times; what was being carried when the process was stopped is taken up where it
      # stood, and given up after as many tries. Whatever goes wrong with one message is that message's alone.
      class Post
        CHANNEL = "nimble_post"
        TRIES = 3
        PAUSE = 4 # seconds before another try, more each time
        STUCK = 30 # seconds after which a message that is being carried belongs to nobody
        UNKNOWN = "It could not be carried: something went wrong with this message. Call, or send it another way."
        LEFT = "It was tried #{TRIES} times, and the carrier stopped each time. Call, or send it another way.".freeze

        # @param db [Sequel::Database] of the role nimble_post
        # @param carrier [StandIns::Carrier]
        def initialize(db, carrier, clock: Time)
          @db = db
          @carrier = carrier
          @clock = clock
        end

        # For ever; a database that was away is found again.
        def run
          loop do
            nil while carry_one
            @db.listen(CHANNEL, timeout: 1)
          rescue Sequel::Error
            sleep 1
          end
        end

        # @return [Boolean] whether there was one
        def carry_one
          message = claim or return false
          message[:tries] > TRIES ? finish(message, "failed", LEFT) : carry(message)
          true
        end

        private

        def now = @clock.now

        # Takes the next one, so that no other process takes it too.
        # @return [Hash, nil]
        def claim
          @db.transaction do
            row = due.order(:next_try_at, :id).for_update.skip_locked.first or return nil
            values = { state: "sending", tries: row[:tries] + 1, updated_at: now }
            of(row).update(values)
            row.merge(values)
          end
        end

        def due
          waiting = Sequel.&({ state: "queued" }, Sequel[:next_try_at] <= now)
          stuck = Sequel.&({ state: "sending" }, Sequel[:updated_at] < now - STUCK)
          @db[:messages].where(Sequel.|(waiting, stuck))
        end

        def of(row) = @db[:messages].where(shop_id: row[:shop_id], id: row[:id])

        def carry(message)
          @carrier.carry(message, LinkPlace.fill(message[:body], CustomerToken.url(message[:offer_id])))
          finish(message, "delivered")
        rescue StandIns::Carrier::Bounced => e
          finish(message, "bounced", e.message)
        rescue StandIns::Carrier::Failed => e
          later(message, e.message)
        rescue Sequel::DatabaseDisconnectError, Sequel::DatabaseConnectionError
          raise
        rescue StandardError => e
          ErrorFallback.log(e)
          later(message, UNKNOWN)
        end

        def later(message, problem) = finish(message, message[:tries] < TRIES ? "queued" : "failed", problem)

        def finish(message, state, problem = "")
          wait = state == "queued" ? PAUSE * message[:tries] : 0
          of(message).update(state: state, problem: problem, next_try_at: now + wait, updated_at: now)
          @db.notify(Live::CHANNEL, payload: "#{message[:shop_id]} quotes")
        end
      end
    end
  end
end
