# frozen_string_literal: true

module NimbleServer
  module Features
    module Progress
      # How far long work has come. Adds: the helper `progress`, and
      # GET /api/progress/:id for whoever sent the work with that id in X-Progress.
      module Routes
        SECONDS = 600
        STEP = 5 # percent

        # For the routes of other features.
        module Helpers
          # @return [Proc] to be told (done, of) now and then; lets others run in between, and gives up when nobody
          # waits
          def progress
            id = env["HTTP_X_PROGRESS"].to_s
            patience = Patience.new(env)
            told = -STEP
            lambda do |done, of|
              patience.tick
              percent = of.zero? ? 100 : done * 100 / of
              next if id.empty? || percent < told + STEP

              settings.counters.write("progress:#{account[:id]}:#{id}", told = percent, expires_in: SECONDS)
            end
          end
        end

        def self.registered(app)
          app.helpers(Helpers)
          app.api(:get, "/api/progress/:id", role: :technician) do
            { "percent" => settings.counters.read("progress:#{account[:id]}:#{params["id"]}") }
          end
        end
      end
    end
  end
end
