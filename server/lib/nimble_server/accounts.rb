# frozen_string_literal: true

require "roda"
require "rodauth"

module NimbleServer
  # Sign-in, mounted in front of the API: rodauth with argon2, lockout after too many tries. Everything is JSON under
  # /api/account. The signed-in account stands in env["rodauth"].
  class Accounts < Roda
    plugin :middleware

    # @param db [Sequel::Database]
    def self.on(db)
      Class.new(self) do
        plugin :json_parser, content_type_regexp: %r{\Aapplication/json\b}i
        plugin :rodauth, json: :only do
          enable :login, :logout, :lockout, :argon2, :json
          db db
          prefix "/api/account"
          require_bcrypt? false
          require_mail? false
          account_password_hash_column :password_hash
          login_column :email
          login_param "email"
          hmac_secret ENV.fetch("SESSION_SECRET")
          max_invalid_logins 8
          account_lockouts_deadline_interval(minutes: 15)
          set_deadline_values? true
          already_logged_in { nil }
          domain { request.host }
          unlock_account_route nil
          unlock_account_request_route nil
          json_response_body do |body|
            if body["error"]
              # No word on which of the two was wrong: that would tell who has an account.
              body = { "error" => { "code" => "sign_in", "message" => body["error"], "details" => [] } }
            end
            body.to_json
          end
          login_error_flash "That did not sign you in: check the e-mail and the password."
          login_lockout_error_flash "Too many tries. This account is closed for 15 minutes."
        end

        route do |r|
          env["rodauth"] = rodauth
          r.on("api", "account") { r.rodauth }
        end
      end
    end
  end
end
