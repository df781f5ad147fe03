# frozen_string_literal: true

require "rack"
require "rack/protection"
require "rack/session"

module NimbleServer
  # The whole stack of one web process. It holds no state of its own: sessions, throttles and counts are in the
  # database.
  module Application
    module_function

    # @param db [Sequel::Database] of the role nimble_web
    # @param door [Sequel::Database] of the role nimble_door: accounts and sessions
    # @param log [IO, nil] where request lines go; nil for none
    # @param hosts [Array<String>] names the server answers under
    def build(db, door:, log: $stdout, clock: Time, hosts: nil)
      counters = Counters.new(door, clock: clock)
      api = api(db, door: door, clock: clock, counters: counters)
      accounts = Features::Accounts::SignIn.on(door, clock: clock, demo_passwords: Demo.passwords)
      sessions = {
        key: "nimble",
        secret: ENV.fetch("SESSION_SECRET"),
        same_site: :lax,
        httponly: true,
        expire_after: Features::Accounts::SignIn::LIFETIME_SECONDS
      }
      staff = staff_check(accounts, sessions)
      Rack::Builder.app do
        use RequestLog, out: log if log
        use SecurityHeaders
        use ErrorFallback
        hosts ? use(Origin, hosts: hosts) : use(Origin)
        use PlainBytes
        use Throttle, counters
        use Features::CustomerPage::PageRoutes, db: db, door: door, staff: staff, clock: clock
        use Features::CalendarFiles::FeedPage, db: db, door: door, clock: clock
        use Pages
        use JsonBody, limit: JsonBody::STRANGERS, paths: JsonBody::OPEN
        use Rack::Session::Cookie, **sessions
        use SecureSession
        use CsrfGuard
        use accounts
        use Admission
        use LiveUpdates, db: db
        use JsonBody
        use ContractCheck::Middleware
        run api
      end
    end

    # The API alone, for whoever has been let in already.
    # @return [Class]
    def api(db, door:, clock: Time, counters: Counters.new(door, clock: clock))
      Class.new(API) do
        set :db, db
        set :clock, clock
        set :counters, counters
        set :door, door
      end
    end

    # Whether a request comes from a browser in which somebody of a shop is signed in.
    # @return [#call] from Rack's environment
    def staff_check(accounts, sessions)
      check =
        Rack::Builder.app do
          use Rack::Session::Cookie, **sessions
          use accounts
          run ->(env) { [env["nimble.account"] ? 200 : 404, {}, []] }
        end
      ->(env) do
        env["HTTP_COOKIE"] && check.call(env.merge("PATH_INFO" => "/", "REQUEST_METHOD" => "GET")).first == 200
      end
    end
    private_class_method :staff_check
  end
end
