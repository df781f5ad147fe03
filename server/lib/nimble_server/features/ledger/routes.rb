# frozen_string_literal: true

module NimbleServer
  module Features
    module Ledger
      # The ledger. Adds: promise against truth, the jobs behind a figure, the
      # history out and in, also as a table, entries against entries, lessons taken and taken back.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/ledger", role: :technician) { Page.new(shop, account).to_h }
          app.api(:get, "/api/ledger/jobs", role: :technician) { Page.new(shop, account).jobs(params) }
          app.api(:get, "/api/ledger/export", role: :owner, beside: "long") do
            content_type "application/json"
            headers "content-disposition" => "attachment; filename=\"history.json\""
            JSON.generate(Posting.new(shop).history)
          end

          app.api(:get, "/api/ledger/table", role: :owner, beside: "long") do
            content_type "text/csv"
            headers "content-disposition" => "attachment; filename=\"history.csv\""
            Past.table(Posting.new(shop).rows)
          end

          writing(app)
        end

        def self.writing(app)
          past(app)

          app.api(:post, "/api/ledger/lessons", role: :owner, body: "LedgerLesson") do
            Lessons.new(shop).act(body_json)
            Page.new(shop, account).to_h
          end

          app.api(:post, "/api/ledger/entries/:id/corrections", role: :owner, body: "CorrectEntry") do
            changes = body_json.slice("actual_minutes", "trouble_minutes", "technician")
            Posting.new(shop).correct(uuid(params["id"], "entry"), changes, body_json["why"])
            Page.new(shop, account).jobs({})
          end
        end

        def self.past(app)
          app.api(:post, "/api/ledger/import", role: :owner, body: :document, beside: "long") do
            NimbleLedger::Ledger::History.build(body_json)
            FinishDay.check!(body_json["jobs"], now: shop.now)
            once(201) { Posting.new(shop).import(body_json["jobs"]) }
          end

          app.api(:post, "/api/ledger/past/report", role: :owner, body: "LedgerPast", beside: "long") do
            Past.new(shop, body_json["text"], progress: progress).report
          end

          app.api(:post, "/api/ledger/past", role: :owner, body: "LedgerPast", beside: "long") do
            once(201) { Past.new(shop, body_json["text"], progress: progress).keep }
          end
        end
      end
    end
  end
end
