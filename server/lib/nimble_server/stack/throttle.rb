# frozen_string_literal: true

require "rack/attack"

module NimbleServer
  # rack-attack with the limit for sign-in, and whatever else takes a secret, by address; the counts hold across
  # processes (Counters).
  class Throttle
    SIGN_INS_PER_MINUTE = Integer(ENV.fetch("SIGN_INS_PER_MINUTE", "30"))

    GUARDED = %w[/api/account/login /api/setup /api/join /api/join/look].freeze

    REFUSED = {
      "error" => {
        "code" => "throttled",
        "message" => "Too many tries from here. Wait a minute, then try again.",
        "details" => []
      }
    }.freeze

    # rack-attack keeps one store for a whole process; this one is whichever belongs to the application that asks.
    module Store
      KEY = :nimble_counters
      %i[increment read write delete].each do |name|
        define_singleton_method(name) { |*arguments, **rest| Thread.current[KEY].public_send(name, *arguments, **rest) }
      end
    end

    Rack::Attack.cache.store = Store
    Rack::Attack.throttle("sign-in by address", limit: SIGN_INS_PER_MINUTE, period: 60) do |request|
      request.env["REMOTE_ADDR"] if request.post? && GUARDED.include?(request.path)
    end
    LINK_VISITS = ->(_request) { Integer(ENV.fetch("LINK_VISITS_PER_MINUTE", "60")) }
    Rack::Attack.throttle("links by address", limit: LINK_VISITS, period: 60) do |request|
      request.env["REMOTE_ADDR"] if request.path.start_with?("/y/", "/calendar/")
    end
    Rack::Attack.throttled_responder = ->(request) do
      next Features::CustomerPage::PageRoutes.busy(request.env) if request.path.start_with?("/y/")

      [429, { "content-type" => "application/json", "retry-after" => "60" }, [JSON.generate(REFUSED)]]
    end

    # @param counters [Counters]
    def initialize(app, counters)
      @counters = counters
      @attack = Rack::Attack.new(app)
    end

    def call(env)
      Thread.current[Store::KEY] = @counters
      @attack.call(env)
    end
  end
end
