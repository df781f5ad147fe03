# frozen_string_literal: true

module NimbleServer
  # Writes must carry the session's token (GET /api/session) in the header X-CSRF-Token, and nowhere else;
  # rack-protection compares it.
  class CsrfGuard < Rack::Protection::AuthenticityToken
    def accepts?(env)
      session = session(env)
      set_token(session)
      safe?(env) || valid_token?(env, env["HTTP_X_CSRF_TOKEN"])
    end

    def deny(_env)
      body = {
        "error" => {
          "code" => "csrf",
          "message" => "This page is out of date. Reload it; your working copy is kept on the server.",
          "details" => []
        }
      }
      [403, { "content-type" => "application/json" }, [JSON.generate(body)]]
    end

    def react(env) = deny(env)
  end
end
