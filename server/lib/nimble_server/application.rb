# frozen_string_literal: true

require "rack"
require "rack/attack"
require "rack/protection"
require "rack/session"

module NimbleServer
  # The whole stack of one web process. It holds no state of its own: sessions are in the cookie, everything else in
  # the database.
  module Application
    module_function

    # @param db [Sequel::Database]
    # @param log [IO, nil] where request lines go; nil for none
    # @param secure [Boolean] whether cookies are for HTTPS only
    def build(db, log: $stdout, secure: ENV["SECURE_COOKIES"] == "1", clock: Time)
      api = Class.new(API) do
        set :db, db
        set :clock, clock
      end
      accounts = Accounts.on(db)
      secret = ENV.fetch("SESSION_SECRET")
      Rack::Builder.app do
        use RequestLog, out: log if log
        use LastResort
        use Throttle.middleware
        use SecurityHeaders
        use Pages
        use JsonBody
        use Rack::Session::Cookie, key: "nimble", secret: secret, same_site: :lax, httponly: true, secure: secure, expire_after: 14 * 86_400
        use CsrfGuard
        use ContractCheck::Middleware
        use accounts
        run api
      end
    end
  end
end
