# frozen_string_literal: true

module NimbleServer
  module Features
    module Ledger
      # The ledger. Needs: Book, Page. Adds: promise against truth, the jobs behind a figure, the history out and in,
      # entries against entries.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/ledger", role: :technician) { Page.new(shop, account).to_h }
          app.api(:get, "/api/ledger/jobs", role: :technician) { Page.new(shop, account).jobs(params) }
          app.api(:get, "/api/ledger/export", role: :owner) do
            content_type "application/json"
            headers "content-disposition" => "attachment; filename=\"history.json\""
            JSON.generate(Book.new(shop).history)
          end

          writing(app)
        end

        def self.writing(app)
          app.api(:post, "/api/ledger/import", role: :owner, body: :document) do
            NimbleLedger::Ledger::History::SHAPE.check!(body_json, what: "history", code: "invalid_request")
            once(201) { Book.new(shop).import(body_json["jobs"]) }
          end

          app.api(:post, "/api/ledger/entries/:id/corrections", role: :owner, body: "CorrectEntry") do
            changes = body_json.slice("actual_minutes", "trouble_minutes", "technician")
            Book.new(shop).correct(uuid(params["id"], "entry"), changes, body_json["why"])
            Page.new(shop, account).jobs({})
          end
        end
      end
    end
  end
end
