# frozen_string_literal: true

module NimbleServer
  module Features
    module Customers
      # People. Adds: GET and PUT /api/customers/:id, POST
      # /api/customers/:id/merge; the garage as a file: export, what rows would change, keeping them.
      module Routes
        # Cars and owners as a file, out and in.
        def self.list(app)
          app.api(:get, "/api/garage/export", role: :advisor, beside: "long") do
            content_type "text/csv", charset: "utf-8"
            headers "content-disposition" => "attachment; filename=\"garage.csv\""
            GarageList.new(shop).csv
          end

          app.api(:post, "/api/garage/report", role: :advisor, body: "GarageRows", beside: "long") do
            GarageList.new(shop).report(body_json["csv"])
          end

          app.api(:post, "/api/garage", role: :owner, body: "GarageRows", beside: "long") do
            once(201) { GarageList.new(shop).keep(body_json["csv"]) }
          end
        end

        def self.registered(app)
          list(app)
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
