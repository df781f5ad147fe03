# frozen_string_literal: true

require "argon2"

module NimbleServer
  module Features
    module Accounts
      # Passwords made outside sign-in: the first owner's, and those of people who were invited. The same rules as for
      # a changed one (SignIn).
      module Password
        module_function

        # @return [Array<Hash>] path, message, and the sentence to say
        def faults(text, path:)
          message = fault(text.to_s) or return []
          [{ "path" => path, "message" => message, "said" => "The password #{message}." }]
        end

        def hash(text) = Argon2::Password.new(t_cost: 2, m_cost: 16).create(text)

        def fault(text)
          return "has fewer than #{SignIn::PASSWORD_LENGTH} characters" if text.length < SignIn::PASSWORD_LENGTH
          return "is longer than #{SignIn::PASSWORD_BYTES} bytes" if text.bytesize > SignIn::PASSWORD_BYTES

          "is the demo's, which everybody knows" if Demo.passwords.include?(text)
        end
        private_class_method :fault
      end
    end
  end
end
