# frozen_string_literal: true

module NimbleServer
  # Writes must carry the session's token (GET /api/session) in X-CSRF-Token; rack-protection compares it.
  class CsrfGuard < Rack::Protection::AuthenticityToken
    def deny(_env)
      body = { "error" => { "code" => "csrf", "message" => "This page is out of date. Reload it; your working copy is kept on the server.", "details" => [] } }
      [403, { "content-type" => "application/json" }, [JSON.generate(body)]]
    end

    def react(env) = deny(env)
  end
end
