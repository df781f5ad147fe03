# frozen_string_literal: true

module NimbleServer
  # The built front end: hashed assets cached for ever, and one page for every address that is not the API's, with the
  # nonce of this answer in it.
  class Pages
    DIST = File.join(ROOT, "web/dist")
    MISSING =
      "<!doctype html><title>Nimble Ledger</title><p>The pages are not built yet. Run bin/start, which builds them."

    # The few lines a customer's page runs, if it may.
    CUSTOMER_SCRIPT = File.read(File.join(ROOT, "server/views/customer.js"))

    # Files of fixed names, asked for anew each time: what the bay's tablets keep the program by.
    FRESH = %w[/sw.js /bay.webmanifest].freeze

    def initialize(app)
      @app = app
      @files = Rack::Files.new(DIST)
      @page = File.exist?("#{DIST}/index.html") ? File.read("#{DIST}/index.html") : MISSING
    end

    def call(env)
      path = env["PATH_INFO"]
      return @app.call(env) if path.start_with?("/api/")
      unless %w[GET HEAD].include?(env["REQUEST_METHOD"])
        return 405, { "content-type" => "text/plain" }, ["Only GET here."]
      end
      return asset(env) if path.start_with?("/assets/") || path == "/favicon.svg"
      return 200, { "content-type" => "text/javascript" }, [CUSTOMER_SCRIPT] if path == "/customer.js"
      return fresh(env) if FRESH.include?(path)

      [200, { "content-type" => "text/html; charset=utf-8" }, [@page.gsub("__NONCE__", env["nimble.nonce"])]]
    end

    private

    def fresh(env)
      status, headers, body = @files.call(env)
      headers["cache-control"] = "no-cache"
      [status, headers, body]
    end

    def asset(env)
      status, headers, body = @files.call(env)
      headers["cache-control"] = "public, max-age=31536000, immutable" if status == 200
      [status, headers, body]
    end
  end
end
