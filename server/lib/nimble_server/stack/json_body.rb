# frozen_string_literal: true

module NimbleServer
  # Reads JSON bodies once, within limits, before anything else sees them: too large, not UTF-8, too deep and not JSON
  # are refused with the error form of formats.md. Strangers may send a few kilobytes, to sign in.
  class JsonBody
    LIMIT = NimbleLedger::Document::MAX_BYTES
    STRANGERS = 4_000
    # Bytes of a body after which what it left in memory is looked for at once: a web process collects seldom, so that
    # no click waits for it (bin/support/setup.sh, fast_ruby), and some dozens of them would outweigh the program.
    LARGE = 100_000
    # Addresses strangers may write to.
    OPEN = %w[/api/account/ /api/setup /api/join].freeze

    # @param limit [Integer] bytes
    # @param paths [Array<String>] prefixes of the addresses it reads for
    def initialize(app, limit: LIMIT, paths: ["/api/"])
      @app = app
      @limit = limit
      @paths = paths
    end

    def call(env)
      if env["nimble.body"] || !env["PATH_INFO"].start_with?(*@paths) ||
           !%w[POST PUT PATCH DELETE].include?(env["REQUEST_METHOD"])
        return @app.call(env)
      end
      return refuse(413, "too_large", "The request is larger than #{said}.") if env["CONTENT_LENGTH"].to_i > @limit

      text = env["rack.input"]&.read(@limit + 1).to_s
      return refuse(413, "too_large", "The request is larger than #{said}.") if text.bytesize > @limit

      with_body(env, text)
    rescue NimbleLedger::InvalidInput => e
      refuse(400, e.code, e.message, e.details)
    end

    private

    def with_body(env, text)
      env["nimble.body"] = text.empty? ? {} : NimbleLedger::Document.parse(text, what: "request")
      env["rack.input"] = StringIO.new(text)
      @app.call(env).tap { GC.start(full_mark: false) if text.bytesize > LARGE }
    end

    def said = @limit >= 1_000_000 ? "#{@limit / 1_000_000} MB" : "#{@limit / 1_000} kB"

    def refuse(status, code, message, details = [{ "path" => "", "message" => message }])
      body = JSON.generate("error" => { "code" => code, "message" => message, "details" => details })
      [status, { "content-type" => "application/json" }, [body]]
    end
  end
end
