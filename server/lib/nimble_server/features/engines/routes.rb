# frozen_string_literal: true

module NimbleServer
  module Features
    module Engines
      # The engine library. Adds: list, one engine, export, import and its report.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/engines", role: :technician) do
            { "engines" => EngineLibrary.new(shop).list(params["search"]) }
          end

          app.api(:get, "/api/engines/:code", role: :technician) do
            EngineLibrary.new(shop).page(params["code"], work: params["work"], revision: Routes.revision(params))
          end

          app.api(:get, "/api/engines/:code/export", role: :technician) do
            engine = EngineLibrary.new(shop).engine(params["code"], Routes.revision(params))
            content_type "application/json"
            headers "content-disposition" =>
                      "attachment; filename=\"#{engine.code.downcase.gsub(/[^a-z0-9.-]+/, "-")}.engine.json\""
            JSON.pretty_generate(engine.document)
          end

          importing(app)
        end

        def self.importing(app)
          app.api(:get, "/api/patterns", role: :technician) { { "patterns" => Patterns.list } }
          app.api(:post, "/api/engines/report", role: :advisor, body: :document, beside: "papers") do
            EngineLibrary.new(shop, effort: -> { effort }).report(body_json)
          end

          app.api(:post, "/api/engines", role: :owner, body: :document) do
            once(201) { EngineLibrary.new(shop, effort: -> { effort }).import(body_json) }
          end
        end

        def self.revision(params) = params["revision"].to_s.match?(/\A\d{1,6}\z/) ? params["revision"].to_i : nil
      end
    end
  end
end
