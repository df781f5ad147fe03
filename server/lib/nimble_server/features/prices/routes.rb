# frozen_string_literal: true

module NimbleServer
  module Features
    module Prices
      # The price list. Adds: list, export, what rows would change, keeping them.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/prices", role: :technician) { PriceList.new(shop).page(params["search"]) }

          app.api(:get, "/api/prices/export", role: :advisor) do
            content_type "text/csv", charset: "utf-8"
            headers "content-disposition" => "attachment; filename=\"prices.csv\""
            PriceList.new(shop).csv
          end

          app.api(:post, "/api/prices/report", role: :advisor, body: "PriceRows", beside: "papers") do
            PriceList.new(shop, progress: progress, typed: !body_json["csv"]).report(Routes.rows(body_json))
          end

          app.api(:post, "/api/prices", role: :owner, body: "KeepPrices") do
            list = PriceList.new(shop, progress: progress, typed: !body_json["csv"])
            once(201) { list.keep(Routes.rows(body_json), body_json["revision"]) }
          end
        end

        # Rows as a file or as they were typed.
        def self.rows(body)
          return NimbleServer::Documents::PriceCSV.rows(body["csv"]) if body["csv"]

          (body["rows"] || []).each_with_index.map { |row, i| row.merge("line" => i + 1) }
        end
      end
    end
  end
end
