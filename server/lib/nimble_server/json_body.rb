# frozen_string_literal: true

module NimbleServer
  # Reads JSON bodies once, within limits, before anything else sees them: too large, not UTF-8, too deep and not JSON
  # are refused with the error form of formats.md.
  class JsonBody
    LIMIT = NimbleLedger::Document::MAX_BYTES

    def initialize(app)
      @app = app
    end

    def call(env)
      return @app.call(env) unless %w[POST PUT PATCH DELETE].include?(env["REQUEST_METHOD"]) && env["PATH_INFO"].start_with?("/api/")
      return refuse(413, "too_large", "The request is larger than #{LIMIT / 1_000_000} MB.") if env["CONTENT_LENGTH"].to_i > LIMIT

      text = env["rack.input"]&.read(LIMIT + 1).to_s
      env["nimble.body"] = text.empty? ? {} : NimbleLedger::Document.parse(text, what: "request")
      env["rack.input"] = StringIO.new(text)
      @app.call(env)
    rescue NimbleLedger::InvalidInput => e
      refuse(e.code == "too_large" ? 413 : 400, e.code, e.message)
    end

    private

    def refuse(status, code, message)
      body = JSON.generate("error" => { "code" => code, "message" => message, "details" => [{ "path" => "", "message" => message }] })
      [status, { "content-type" => "application/json" }, [body]]
    end
  end
end
