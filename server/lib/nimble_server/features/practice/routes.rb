# frozen_string_literal: true

module NimbleServer
  module Features
    module Practice
      # Practice. Adds: a made-up car by its number, tests on it, the truth and how it went.
      # Nothing is kept.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/practice/:seed", role: :technician) do
            PracticeCars.of(shop, params["seed"], effort: -> { effort }).car
          end

          app.api(:post, "/api/practice/:seed/tests", role: :technician, body: "PracticeTests") do
            PracticeCars.of(shop, params["seed"], effort: -> { effort }).looked(
              body_json["tests"],
              body_json["targets"] || []
            )
          end

          app.api(:post, "/api/practice/:seed/end", role: :technician, body: "PracticeDone") do
            given = body_json.values_at("tests", "targets", "words")
            PracticeCars.of(shop, params["seed"], effort: -> { effort }).ended(*given)
          end
        end
      end
    end
  end
end
