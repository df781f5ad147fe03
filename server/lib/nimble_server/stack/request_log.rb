# frozen_string_literal: true

module NimbleServer
  # One structured line per request: route pattern, status, milliseconds. No customer data, no query text.
  class RequestLog
    def initialize(app, out: $stdout)
      @app = app
      @out = out
    end

    def call(env)
      started = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      status, headers, body = @app.call(env)
      body.is_a?(InTwoParts) ? body.when_done { write(env, status, started) } : write(env, status, started)
      [status, headers, body]
    end

    private

    def write(env, status, started)
      return if env["PATH_INFO"].start_with?("/assets/")

      ms = ((Process.clock_gettime(Process::CLOCK_MONOTONIC) - started) * 1000).round(1)
      route = env["sinatra.route"]&.split&.last || "-"
      @out.puts JSON.generate(
                  at: Time.now.utc.strftime("%FT%T.%LZ"),
                  method: env["REQUEST_METHOD"],
                  route: route,
                  status: status,
                  ms: ms,
                  shop: env["nimble.shop"],
                  account: env.dig("nimble.account", :id)
                )
    end
  end
end
