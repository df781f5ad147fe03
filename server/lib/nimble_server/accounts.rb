# frozen_string_literal: true

require "roda"
require "rodauth"

module NimbleServer
  # Sign-in, mounted in front of the API: rodauth with argon2. Sessions are kept on the server and end there: by signing out
  # (here or everywhere), by a change of password, by closing the account, by age. Everything is JSON under /api/account.
  # The signed-in account, if any, stands in env["nimble.account"].
  class Accounts < Roda
    PASSWORD_LENGTH = 10
    INACTIVE_SECONDS = 3 * 86_400
    LIFETIME_SECONDS = 14 * 86_400
    SHOWN = %i[id shop_id email name role].freeze
    # Costs as much to compare as a real one, so that an unknown mail takes as long as a wrong password.
    NOBODY = "$argon2id$v=19$m=65536,t=2,p=1$bm9ib2R5LWlzLWhlcmUtMDA$4G6c3cJm8aWm3l2qJQwUo1q1M0bE8yVb1Fh8Xl2v5tE"

    plugin :middleware

    # @param db [Sequel::Database] of the role nimble_door
    # @param demo_passwords [Array<String>] never taken for a password of one's own
    def self.on(db, clock: Time, demo_passwords: [])
      tries = Tries.new(db, clock: clock)
      Class.new(self) do
        plugin :json_parser, content_type_regexp: %r{\Aapplication/json\b}i
        plugin :rodauth, json: :only do
          enable :login, :logout, :argon2, :json, :active_sessions, :change_password
          db db
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
          password_maximum_bytes 200
          already_logged_in { nil }
          domain { request.host }
          login_error_flash "That did not sign you in: check the e-mail and the password."
          change_password_error_flash "The password was not changed."

          before_login_route { refuse_more_tries }
          after_no_matching_login { spend_as_much }
          after_login_failure { tries.failed(request.env["REMOTE_ADDR"], given_mail) }
          before_login_attempt { closed_like_unknown }
          after_login { tries.succeeded(account_id, request.env["REMOTE_ADDR"], given_mail) }
          password_meets_requirements? { |password| demo_passwords.include?(password) ? refuse_demo_password : super(password) }
          json_response_body { |body| said(body).to_json }

          auth_class_eval do
            define_method(:given_mail) { param(login_param).to_s.downcase[0, 200] }

            define_method(:refuse_more_tries) do
              minutes = tries.wait(request.env["REMOTE_ADDR"], given_mail) or return
              error = { "code" => "throttled", "message" => "Too many wrong tries for this account from here. Wait #{minutes} minutes, then try again.", "details" => [] }
              request.halt([429, { "content-type" => "application/json", "retry-after" => (minutes * 60).to_s }, [JSON.generate("error" => error)]])
            end

            define_method(:spend_as_much) do
              ::Argon2::Password.verify_password(param(password_param).to_s, NOBODY)
              tries.failed(request.env["REMOTE_ADDR"], given_mail)
            end

            # A closed account answers like one that never was.
            define_method(:closed_like_unknown) do
              return if open_account?

              spend_as_much
              throw_error_reason(:no_matching_login, login_error_status, login_param, no_matching_login_message)
            end

            define_method(:refuse_demo_password) do
              set_password_requirement_error_message(:demo_password, "this is the demo's password, which everybody knows")
              false
            end

            # No word on which of the two was wrong at sign-in: that would tell who has an account.
            define_method(:said) do |body|
              return body unless body["error"] || body["reason"]

              place, message = body["field-error"]
              code = request.path.end_with?("change-password") ? "password" : "sign_in"
              details = code == "password" && message ? [{ "path" => "/#{place}", "message" => message }] : []
              { "error" => { "code" => code, "message" => [body["error"], *details.map { |row| "#{row["message"].capitalize}." }].join(" "), "details" => details } }
            end

            # The account of a session that is still open, in one look.
            define_method(:open_session) do
              key = session[session_id_session_key] or return nil
              now = clock.now
              row = db[:account_active_session_keys].join(:accounts, id: :account_id).where(session_id: compute_hmac(key), account_id: session_value, status_id: account_open_status_value)
                                                    .where { (last_use > now - INACTIVE_SECONDS) & (Sequel[:account_active_session_keys][:created_at] > now - LIFETIME_SECONDS) }
                                                    .select(*SHOWN.map { |name| Sequel[:accounts][name] }, :last_use).first
              still_used(row, key, now) if row && row[:last_use] < now - 600
              row&.slice(*SHOWN)
            end

            define_method(:still_used) do |row, key, now|
              db[:account_active_session_keys].where(account_id: row[:id], session_id: compute_hmac(key)).update(last_use: now)
            end
          end
        end

        route do |r|
          env["nimble.account"] = rodauth.logged_in? ? rodauth.send(:open_session) : nil
          rodauth.clear_session if rodauth.logged_in? && env["nimble.account"].nil?
          r.on("api", "account") { r.rodauth }
        end
      end
    end
  end
end
