# frozen_string_literal: true

module NimbleServer
  module Features
    module Accounts
      # What rodauth is taught beyond its features: tries that are counted, mails that cannot be told apart, sessions
      # looked up in one query. Included into the class rodauth makes (see Accounts).
      module RodauthSettings
        SHOWN = %i[id shop_id email name role].freeze
        REST_NOTED_SECONDS = 600
        # Costs as much to compare as a real one, so that an unknown mail takes as long as a wrong password.
        NOBODY = "$argon2id$v=19$m=65536,t=2,p=1$bm9ib2R5LWlzLWhlcmUtMDA$4G6c3cJm8aWm3l2qJQwUo1q1M0bE8yVb1Fh8Xl2v5tE"

        # The account of a session that is still open, in one look.
        # @return [Hash, nil] SHOWN
        def open_session
          key = session[session_id_session_key] or return nil
          now = setting(:clock).now
          row = session_rows(compute_hmac(key), now).first or return nil
          session_row(compute_hmac(key)).update(last_use: now) if row[:last_use] < now - REST_NOTED_SECONDS
          row.slice(*SHOWN)
        end

        private

        def setting(name) = scope.class.opts.fetch(name)
        def tries = setting(:tries)
        def address = request.env["REMOTE_ADDR"]

        # The mark of a browser that was signed in before; it says nothing else.
        BROWSER = "nimble_browser"
        BROWSER_SECONDS = 90 * 86_400

        def browser = request.cookies[BROWSER].to_s[/\A[\w-]{32,64}\z/]

        def mark_browser
          mark = browser || SecureRandom.urlsafe_base64(32)
          secure = request.env["rack.url_scheme"] == "https"
          cookie = { value: mark, path: "/api/account", httponly: true, secure: secure, same_site: :lax }
          response.set_cookie(BROWSER, cookie.merge(max_age: BROWSER_SECONDS))
          mark
        end

        def given_mail = param(login_param).to_s.downcase[0, 200]

        def session_row(digest) = db[:account_active_session_keys].where(account_id: session_value, session_id: digest)

        def session_rows(digest, now)
          keys = Sequel[:account_active_session_keys]
          session_row(digest)
            .join(:accounts, id: :account_id)
            .where(status_id: account_open_status_value)
            .where(keys[:last_use] > now - session_inactivity_deadline)
            .where(keys[:created_at] > now - session_lifetime_deadline)
            .select(*SHOWN.map { |name| Sequel[:accounts][name] }, :last_use)
        end

        def refuse_more_tries
          minutes = tries.wait(address, given_mail, browser: browser) or return
          error = {
            "code" => "throttled",
            "message" => "Too many wrong tries for this account from here. Wait #{minutes} minutes, then try again.",
            "details" => []
          }
          request.halt(
            [
              429,
              { "content-type" => "application/json", "retry-after" => (minutes * 60).to_s },
              [JSON.generate("error" => error)]
            ]
          )
        end

        def spend_as_much
          ::Argon2::Password.verify_password(param(password_param).to_s, NOBODY)
          tries.failed(address, given_mail, browser: browser)
        end

        # A closed account answers like one that never was.
        def closed_like_unknown
          return if open_account?

          spend_as_much
          throw_error_reason(:no_matching_login, login_error_status, login_param, no_matching_login_message)
        end

        def demo_password?(password) = setting(:demo_passwords).include?(password)

        def refuse_demo_password
          set_password_requirement_error_message(:demo_password, "this is the demo's password, which everybody knows")
          false
        end

        # No word on which of the two was wrong at sign-in: that would tell who has an account.
        def said(body)
          return body unless body["error"] || body["reason"]

          place, message = body["field-error"]
          code = request.path.end_with?("change-password") ? "password" : "sign_in"
          details = code == "password" && message ? [{ "path" => "/#{place}", "message" => message }] : []
          {
            "error" => {
              "code" => code,
              "message" => [body["error"], *details.map { |row| "#{row["message"].capitalize}." }].join(" "),
              "details" => details
            }
          }
        end
      end
    end
  end
end
