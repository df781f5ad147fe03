# frozen_string_literal: true

module NimbleServer
  module Features
    module Accounts
      # Wrong sign-ins, counted by address and mail together, and by mail alone for addresses the account was never
      # signed in from. So nobody can lock another out: a browser that was signed in to the account before (it carries
      # a mark of its own) is counted by itself, and an address it was signed in from has many more tries.
      class SignInTries
        FROM_ONE_ADDRESS = 8
        FROM_KNOWN_ADDRESS = 60
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
        # @param browser [String, nil] the mark of one that was signed in before
        def wait(address, mail, browser: nil)
          return browser_wait(browser, mail) if browser && known?(browser, mail)

          known = known?(address, mail)
          most = known ? FROM_KNOWN_ADDRESS : FROM_ONE_ADDRESS
          return ONE_ADDRESS_SECONDS / 60 if (@counters.read(here(address, mail)) || 0) >= most
          return nil if known || (@counters.read(anywhere(mail)) || 0) < FROM_ANYWHERE

          ANYWHERE_SECONDS / 60
        end

        def failed(address, mail, browser: nil)
          if browser && known?(browser, mail)
            return @counters.increment(here(browser, mail), 1, expires_in: ONE_ADDRESS_SECONDS)
          end

          @counters.increment(here(address, mail), 1, expires_in: ONE_ADDRESS_SECONDS)
          @counters.increment(anywhere(mail), 1, expires_in: ANYWHERE_SECONDS)
        end

        # @param browser [String] the mark it carries from now on
        def succeeded(account_id, address, mail, browser:)
          @counters.delete(here(address, mail))
          @counters.delete(here(browser, mail))
          rows = [address, browser].map { |from| { account_id: account_id, digest: digest(from), seen_at: @clock.now } }
          @db[:account_known_addresses].insert_conflict(
            target: %i[account_id digest],
            update: {
              seen_at: Sequel[:excluded][:seen_at]
            }
          ).multi_insert(rows)
        end

        private

        def browser_wait(browser, mail)
          (@counters.read(here(browser, mail)) || 0) >= FROM_ONE_ADDRESS ? ONE_ADDRESS_SECONDS / 60 : nil
        end

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
