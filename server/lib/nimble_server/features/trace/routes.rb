# frozen_string_literal: true

module NimbleServer
  module Features
    module Trace
      # Finding the fault. Adds: the trace of a quote, keeping what is known, reading codes.
      module Routes
        def self.registered(app)
          app.helpers { define_method(:tracing) { Desk.new(shop, effort: -> { effort }) } }

          app.api(:get, "/api/quotes/:id/trace", role: :technician) { tracing.open(uuid(params["id"], "quote")) }

          app.api(:put, "/api/quotes/:id/trace", role: :technician, body: "StoreTrace") do
            tracing.store(uuid(params["id"], "quote"), body_json["version"].to_i, body_json["content"])
          end

          app.api(:post, "/api/quotes/:id/trace/codes", role: :technician) { tracing.scan(uuid(params["id"], "quote")) }
        end
      end
    end
  end
end
