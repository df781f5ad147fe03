# frozen_string_literal: true

module NimbleServer
  module Features
    # The core over HTTP: the same request as bin/estimate, the same numbers. `engine` and `catalog` are inline objects
    # or ids of library revisions, never paths. Needs: Library. Adds: POST /api/estimates, GET /api/ping.
    module Estimates
      def self.registered(app)
        app.api(:post, "/api/estimates", role: :technician, body: :document) do
          request = body_json
          NimbleLedger::Estimate::Request::SHAPE.check!(request, what: "request", code: "invalid_request")
          engine = Estimates.from_library(shop, request, "engine", :engine_profiles) { |id| Library.engine(shop, id) }
          catalog = Estimates.from_library(shop, request, "catalog", :price_lists) { |id| Library.catalog(shop, id) }
          NimbleLedger::Estimate::Answer.new(NimbleLedger::Estimate::Request.build(request, engine: engine, catalog: catalog), effort: effort).to_h
        end

        # What the estimate endpoint is measured against: a round trip to the database and nothing else.
        app.api(:get, "/api/ping", role: :technician) { { "one" => db.get(1) } }
      end

      def self.from_library(shop, request, key, table)
        id = request[key]
        return nil unless id.is_a?(String)

        known = id.match?(/\A\h{8}-(\h{4}-){3}\h{12}\z/) ? shop[table].where(id: id).get(:id) : nil
        return yield(known) if known

        message = "names no #{key} revision of this shop; send a revision id or an inline object"
        raise NimbleLedger::InvalidInput.new("The request has a fault: /#{key} #{message}.", code: "invalid_request",
                                                                                            details: [{ "path" => "/#{key}", "message" => message }])
      end
    end
  end
end
