# frozen_string_literal: true

require "roda"
require "rodauth"

module NimbleServer
  module Features
    module Accounts
      # Sign-in, mounted in front of the API: rodauth with argon2. Sessions are kept on the server and end there: by
      # signing out (here or everywhere), by a change of password, by closing the account, by age. Everything is JSON
      # under
      # /api/account.
      # The signed-in account, if any, stands in env["nimble.account"].
      class SignIn < Roda
        PASSWORD_LENGTH = 10
        PASSWORD_BYTES = 200
        INACTIVE_SECONDS = 3 * 86_400
        LIFETIME_SECONDS = 14 * 86_400

        plugin :middleware
        plugin :cookies

        # Where and how accounts are kept.
        KEEPING =
          proc do
            enable :login, :logout, :argon2, :json, :active_sessions, :change_password
            prefix "/api/account"
            require_bcrypt? false
            require_password_confirmation? false
            account_password_hash_column :password_hash
            skip_status_checks? false
            account_status_column :status_id
            account_unverified_status_value 1
            account_open_status_value 2
            login_column :email
            login_param "email"
            hmac_secret ENV.fetch("SESSION_SECRET")
            session_inactivity_deadline INACTIVE_SECONDS
            session_lifetime_deadline LIFETIME_SECONDS
            password_minimum_length PASSWORD_LENGTH
            password_maximum_bytes PASSWORD_BYTES
          end

        # What happens around a sign-in, and the words.
        MANNERS =
          proc do
            already_logged_in { nil }
            domain { request.host }
            login_error_flash "That did not sign you in: check the e-mail and the password."
            change_password_error_flash "The password was not changed."
            before_login_route { refuse_more_tries }
            after_no_matching_login { spend_as_much }
            after_login_failure { tries.failed(address, given_mail, browser: browser) }
            before_login_attempt { closed_like_unknown }
            after_login { tries.succeeded(account_id, address, given_mail, browser: mark_browser) }
            password_meets_requirements? do |password|
              demo_password?(password) ? refuse_demo_password : super(password)
            end
            json_response_body { |body| said(body).to_json }
            auth_class_eval { include RodauthSettings }
          end

        # @param database [Sequel::Database] of the role nimble_door
        # @param demo_passwords [Array<String>] never taken for a password of one's own
        def self.on(database, clock: Time, demo_passwords: [])
          Class.new(self) do
            opts.merge!(tries: SignInTries.new(database, clock: clock), clock: clock, demo_passwords: demo_passwords)
            plugin :json_parser, content_type_regexp: %r{\Aapplication/json\b}i
            plugin :rodauth, json: :only do
              db database
              instance_exec(&KEEPING)
              instance_exec(&MANNERS)
            end

            route do |r|
              env["nimble.account"] = rodauth.logged_in? ? rodauth.open_session : nil
              rodauth.clear_session if rodauth.logged_in? && env["nimble.account"].nil?
              r.on("api", "account") { r.rodauth }
            end
          end
        end
      end
    end
  end
end
