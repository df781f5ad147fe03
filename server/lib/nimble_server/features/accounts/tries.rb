# frozen_string_literal: true

module NimbleServer
  module Features
    module Accounts
      # Wrong sign-ins, counted by address and mail together, and by mail alone for addresses the account was never
      # signed in from. So nobody can lock another out: whoever signed in from an address before can do so again
      # whatever others try.
      class Tries
        FROM_ONE_ADDRESS = 8
        ONE_ADDRESS_SECONDS = 900
        FROM_ANYWHERE = 40
        ANYWHERE_SECONDS = 300
        KNOWN_DAYS = 90

        # @param db [Sequel::Database] of the role nimble_door
        def initialize(db, clock: Time)
          @db = db
          @clock = clock
          @counters = Counters.new(db, clock: clock)
        end

        # @return [Integer, nil] minutes to wait, nil when a try is welcome
        def wait(address, mail)
          return ONE_ADDRESS_SECONDS / 60 if (@counters.read(here(address, mail)) || 0) >= FROM_ONE_ADDRESS
          return nil if (@counters.read(anywhere(mail)) || 0) < FROM_ANYWHERE || known?(address, mail)

          ANYWHERE_SECONDS / 60
        end

        def failed(address, mail)
          @counters.increment(here(address, mail), 1, expires_in: ONE_ADDRESS_SECONDS)
          @counters.increment(anywhere(mail), 1, expires_in: ANYWHERE_SECONDS)
        end

        def succeeded(account_id, address, mail)
          @counters.delete(here(address, mail))
          row = { account_id: account_id, digest: digest(address), seen_at: @clock.now }
          @db[:account_known_addresses].insert_conflict(
            target: %i[account_id digest],
            update: {
              seen_at: row[:seen_at]
            }
          ).insert(row)
        end

        private

        def known?(address, mail)
          @db[:account_known_addresses]
            .where(digest: digest(address))
            .where(account_id: @db[:accounts].where(email: mail).select(:id))
            .where { seen_at > Time.now - (KNOWN_DAYS * 86_400) }
            .any?
        end

        def here(address, mail) = "tries:#{address}:#{mail}"
        def anywhere(mail) = "tries:#{mail}"
        def digest(address) = Digest::SHA256.hexdigest("#{ENV.fetch("SESSION_SECRET")}:#{address}")[0, 40]
      end
    end
  end
end
