# frozen_string_literal: true

module NimbleServer
  module Features
    module Workshop
      # Entering engines. Adds: drafts of
      # engines (begin, open, keep as typed, act on the drawing, keep as a revision, throw away), sketches, two profiles
      # side by side, a whole library out and in.
      module Routes
        def self.registered(app)
          app.helpers do
            define_method(:drafts) { Drafts.new(shop) }
            define_method(:library) { Engines::EngineLibrary.new(shop, effort: -> { effort }) }
          end
          drafts(app)
          one_draft(app)
          sketches(app)
          archives(app)
        end

        def self.drafts(app)
          app.api(:get, "/api/workshop", role: :technician) { { "drafts" => drafts.list } }
          app.api(:post, "/api/workshop", role: :advisor, body: "BeginDraft") { once(201) { drafts.begin(body_json) } }
          app.api(:post, "/api/workshop/acts", role: :advisor, body: "WorkshopAct") do
            drafts.act(body_json["profile"], body_json["act"])
          end
        end

        def self.one_draft(app)
          app.api(:get, "/api/workshop/:code", role: :technician) { drafts.page(params["code"]) }

          app.api(:put, "/api/workshop/:code", role: :advisor, body: "StoreEngine") do
            drafts.store(params["code"], body_json["version"].to_i, body_json["profile"])
          end

          app.api(:delete, "/api/workshop/:code", role: :advisor) { drafts.throw_away(params["code"]) }

          app.api(:post, "/api/workshop/:code/revisions", role: :owner, body: "KeepEngine") do
            once(201) do
              drafts.keep(params["code"], body_json["version"].to_i, body_json["why"].strip, library: library)
            end
          end
        end

        def self.sketches(app)
          app.api(:post, "/api/sketches", role: :advisor, body: "NewSketch") do
            once(201) { Sketches.new(shop, library: library).keep(body_json) }
          end

          app.api(:post, "/api/sketches/offered", role: :advisor, body: "HowBuilt") do
            json("layers" => NimbleLedger::Workshop::Sketch.offered(body_json))
          end

          app.api(:get, "/api/comparisons", role: :technician) do
            sides = %w[a b].map { |side| [params[side].to_s, params["#{side}_revision"]] }
            Comparison.new(shop, library: library).of(*sides)
          end
        end

        def self.archives(app)
          app.api(:get, "/api/library", role: :advisor, beside: "long") do
            content_type "application/zip"
            headers "content-disposition" => "attachment; filename=\"engines.zip\""
            Archive.new(shop, library: library).write
          end

          app.api(:post, "/api/library/report", role: :owner, body: "LibraryArchive", beside: "long") do
            Archive.new(shop, library: library).report(Routes.bytes(body_json))
          end

          app.api(:post, "/api/library", role: :owner, body: "KeepArchive", beside: "long") do
            once(201) { Archive.new(shop, library: library).keep(Routes.bytes(body_json), body_json["rows"]) }
          end
        end

        # An archive as it travels in JSON.
        def self.bytes(body)
          body["archive"].unpack1("m0")
        rescue ArgumentError
          raise NimbleLedger::InvalidInput.at("/archive", "is not base64", what: "request", code: "invalid_body")
        end
      end
    end
  end
end
