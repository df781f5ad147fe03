# frozen_string_literal: true

module NimbleServer
  # Whatever goes wrong outside the API's own error handling still gets a plain answer, and no trace of Ruby. What is
  # logged names the kind of fault and the place, never what was sent.
  class ErrorFallback
    BODY =
      JSON.generate(
        "error" => {
          "code" => "internal",
          "message" => "Something went wrong here, not with your input. It has been logged.",
          "details" => []
        }
      )
    AWAY =
      JSON.generate(
        "error" => {
          "code" => "database_away",
          "message" => "The database does not answer. Nothing was lost; try again in a moment.",
          "details" => []
        }
      )

    def initialize(app)
      @app = app
    end

    def call(env)
      @app.call(env)
    rescue Sequel::DatabaseError, Sequel::PoolTimeout => e
      ErrorFallback.log(e)
      return Features::CustomerPage::PageRoutes.away(env) if env["PATH_INFO"].to_s.start_with?("/y/")

      [503, { "content-type" => "application/json" }, [AWAY]]
    rescue StandardError => e
      ErrorFallback.log(e)
      [500, { "content-type" => "application/json" }, [BODY]]
    end

    # Messages of the database hold values of rows: the kind and the place are enough.
    def self.log(error) = warn("#{error.class}\n#{(error.backtrace || []).first(8).join("\n")}")
  end
end
