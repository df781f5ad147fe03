# frozen_string_literal: true

module NimbleServer
  # The session's cookie is for HTTPS only whenever the request came by HTTPS.
  class SecureSession
    def initialize(app)
      @app = app
    end

    def call(env)
      env["rack.session.options"][:secure] = true if env["rack.url_scheme"] == "https"
      @app.call(env)
    end
  end
end
