# frozen_string_literal: true

module NimbleServer
  module Features
    module Customers
      # People. Needs: Directory. Adds: GET and PUT /api/customers/:id, POST /api/customers/:id/merge.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/customers/:id", role: :technician) do
            Directory.new(shop).page(uuid(params["id"], "customer"))
          end

          app.api(:put, "/api/customers/:id", role: :advisor, body: "Customer") do
            Directory.new(shop).change(uuid(params["id"], "customer"), body_json)
          end

          app.api(:post, "/api/customers/:id/merge", role: :advisor, body: "MergeCustomer") do
            Directory.new(shop).merge(uuid(params["id"], "customer"), uuid(body_json["double"], "customer"))
          end
        end
      end
    end
  end
end
