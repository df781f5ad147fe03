# frozen_string_literal: true

module NimbleServer
  # Headers on every answer: a strict Content-Security-Policy with a fresh nonce for the styles the page adds, no
  # framing, no sniffing, nothing of the address given to others. API answers are never cached.
  class SecurityHeaders
    def initialize(app)
      @app = app
    end

    def call(env)
      nonce = SecureRandom.base64(16)
      env["nimble.nonce"] = nonce
      status, headers, body = @app.call(env)
      headers["content-security-policy"] ||= policy(nonce)
      headers["x-content-type-options"] = "nosniff"
      headers["x-frame-options"] = "DENY"
      headers["referrer-policy"] = "no-referrer"
      headers["permissions-policy"] = "camera=(), microphone=(), geolocation=()"
      headers["cache-control"] ||= "no-store"
      [status, headers, body]
    end

    private

    def policy(nonce)
      "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-#{nonce}'; font-src 'self'; img-src 'self' " \
        "data:; connect-src 'self'; worker-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'self'; " \
        "frame-ancestors 'none'"
    end
  end
end
