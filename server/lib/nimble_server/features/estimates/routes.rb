# frozen_string_literal: true

module NimbleServer
  module Features
    module Estimates
      # The core over HTTP: the same requests as bin/answer, the same numbers. `engine` and `catalog` are inline objects
      # or ids of library revisions, never paths. Adds: POST /api/estimates, POST /api/answers, GET
      # /api/ping.
      module Routes
        # Engines and catalogs of the shop's own library, by revision id.
        class LibraryDocuments < NimbleLedger::Documents
          TABLES = { "engine" => :engine_profiles, "catalog" => :price_lists }.freeze

          def initialize(shop)
            super()
            @shop = shop
          end

          private

          def named(id, path, kind)
            known = id.match?(/\A\h{8}-(\h{4}-){3}\h{12}\z/) ? @shop[TABLES.fetch(kind)].where(id: id).get(:id) : nil
            return kind == "engine" ? Library.engine(@shop, known) : Library.catalog(@shop, known) if known

            message = "names no #{kind} revision of this shop; send a revision id or an inline object"
            raise NimbleLedger::InvalidInput.at(path, message)
          end
        end

        def self.registered(app)
          app.api(:post, "/api/estimates", role: :technician, body: :document) do
            NimbleLedger::Estimate::Request.build(body_json, documents: LibraryDocuments.new(shop)).answer(
              effort: effort
            )
          end

          app.api(:post, "/api/answers", role: :technician, body: :document, beside: "long") do
            NimbleLedger::Answers.to(body_json, documents: LibraryDocuments.new(shop), effort: effort)
          end

          # What the estimate endpoint is measured against: a round trip to the database and nothing else.
          app.api(:get, "/api/ping", role: :technician) { { "one" => db.get(1) } }
        end
      end
    end
  end
end
