# frozen_string_literal: true

require "mail"

module NimbleServer
  module Features
    module Offers
      # Where a message goes: one mailbox as the standard writes it (RFC 5322), or one telephone number. Nothing that a
      # carrier could take for two.
      #
      #   Address.fault("mail", "ines@harbor.example")           #=> nil
      #   Address.fault("text", "555 0101, 555 0102")            #=> "is no telephone number; one is like 555 0101"
      module Address
        NUMBER = %r{\A\+?[0-9][0-9 ()/.-]{1,28}\z}
        DIGITS = (3..20)
        HOST = /\A(?:[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z0-9-]{2,63}\z/i

        module_function

        # @param channel [String] "mail", "text"; others need none
        # @param text [String]
        # @return [String, nil] what is wrong with it
        def fault(channel, text)
          case channel
          when "mail"
            "is no mail address; one is like ines@harbor.example" unless mailbox?(text)
          when "text"
            "is no telephone number; one is like 555 0101" unless number?(text)
          end
        end

        def mailbox?(text)
          return false if text.match?(/[[:space:][:cntrl:],;<>]/)

          found = Mail::Address.new(text)
          found.address == text && found.local.to_s != "" && found.domain.to_s.match?(HOST)
        rescue Mail::Field::FieldError
          false
        end

        def number?(text) = text.match?(NUMBER) && DIGITS.cover?(text.count("0-9"))
      end
    end
  end
end
