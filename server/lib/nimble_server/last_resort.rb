# frozen_string_literal: true

module NimbleServer
  # Whatever goes wrong outside the API's own error handling still gets a plain answer, and no trace of Ruby.
  class LastResort
    BODY = JSON.generate("error" => { "code" => "internal", "message" => "Something went wrong here, not with your input. It has been logged.", "details" => [] })

    def initialize(app)
      @app = app
    end

    def call(env)
      @app.call(env)
    rescue Sequel::DatabaseError, Sequel::PoolTimeout => e
      warn "#{e.class}: #{e.message.lines.first}"
      body = { "error" => { "code" => "database_away", "message" => "The database does not answer. Nothing was lost; try again in a moment.", "details" => [] } }
      [503, { "content-type" => "application/json" }, [JSON.generate(body)]]
    rescue StandardError => e
      warn "#{e.class}: #{e.message}\n#{e.backtrace.first(8).join("\n")}"
      [500, { "content-type" => "application/json" }, [BODY]]
    end
  end
end
