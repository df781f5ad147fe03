# frozen_string_literal: true

module NimbleServer
  module StandIns
    # In place of the companies that carry text messages and mail: takes some time, fails now and then, and sends back
    # what is addressed to nobody. It keeps one line for one message, so that none leaves twice, however often the
    # process before it was stopped.
    #
    # Numbers ending in 0198 get through at the second try, those ending in 0199 never; mail to .invalid comes back.
    class Carrier
      # It did not get through this time.
      class Failed < StandardError
      end

      # There is nobody at this address.
      class Bounced < StandardError
      end

      # @param db [Sequel::Database] with the table "carried"
      # @param delay [Float] seconds it takes
      def initialize(db, delay: Float(ENV.fetch("CARRIER_DELAY", "1")), clock: Time)
        @db = db
        @delay = delay
        @clock = clock
      end

      # @param message [Hash] id, address, tries (with this one)
      # @param text [String] as it goes out
      # @raise [Failed, Bounced]
      def carry(message, text)
        raise ArgumentError, "an empty message" if text.strip.empty?
        return if carried?(message)

        sleep @delay
        refuse(message)
        @db[:carried].insert_conflict.insert(message_id: message[:id], at: @clock.now)
      end

      def carried?(message) = !@db[:carried].where(message_id: message[:id]).empty?

      private

      def refuse(message)
        address = message[:address].downcase
        raise Bounced, "Nobody is at #{message[:address]}." if address.end_with?(".invalid")
        raise Failed, "The line was busy." if address.end_with?("0199")
        raise Failed, "The line was busy." if address.end_with?("0198") && message[:tries] < 2
      end
    end
  end
end
