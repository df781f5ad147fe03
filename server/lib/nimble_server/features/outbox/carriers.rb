# frozen_string_literal: true

module NimbleServer
  module Features
    module Outbox
      # Who carries a message: the shop's own mail server takes mail where one is set, the stand-in everything else, and
      # that in the demo alone.
      class Carriers
        # Whether a message of a channel leaves this shop, or seems to in the demo.
        # @param channel ["text", "mail", "phone", "paper"]
        def self.carry?(shop, channel)
          return false unless %w[text mail].include?(channel)

          shop.stand_ins? || (channel == "mail" && MailServer.set?)
        end

        # @param stand_in [StandIns::Carrier]
        # @param mail_server [MailServer, nil]
        def initialize(stand_in, mail_server)
          @stand_in = stand_in
          @mail_server = mail_server
        end

        # @param message [Hash] row of messages
        # @param text [String]
        # @raise [StandIns::Carrier::Failed, StandIns::Carrier::Bounced]
        def carry(message, text)
          by_mail = message[:channel] == "mail" && @mail_server
          (by_mail || @stand_in).carry(message, text)
        end
      end
    end
  end
end
