# frozen_string_literal: true

module NimbleServer
  module Features
    # Quotes. Needs: QuoteDesk. Adds: list, start, open, the working copy, save, one revision.
    module Quotes
      def self.registered(app)
        app.api(:get, "/api/quotes", role: :technician) do
          { "quotes" => QuoteDesk.new(shop).list(params["search"]) }
        end

        app.api(:post, "/api/quotes", role: :advisor) do
          once(201) do
            desk = QuoteDesk.new(shop)
            desk.open(desk.start(uuid(body_json["vehicle_id"], "vehicle")))
          end
        end

        app.api(:get, "/api/quotes/:id", role: :technician) do
          QuoteDesk.new(shop).open(uuid(params["id"], "quote"))
        end

        app.api(:post, "/api/quotes/:id/engine", role: :advisor) do
          QuoteDesk.new(shop).renew_engine(uuid(params["id"], "quote"))
        end

        working_copy(app)
        revisions(app)
      end

      def self.working_copy(app)
        app.api(:put, "/api/quotes/:id/draft", role: :advisor) do
          QuoteDesk.new(shop).store_draft(uuid(params["id"], "quote"), body_json["version"], body_json["content"], body_json["base_revision"],
                                          body_json["panel"])
        end
      end

      def self.revisions(app)
        app.api(:post, "/api/quotes/:id/revisions", role: :advisor) do
          once(201) { QuoteDesk.new(shop).save(uuid(params["id"], "quote"), body_json["version"]) }
        end

        app.api(:get, "/api/quotes/:id/revisions/:number", role: :technician) do
          number = params["number"].to_s.match?(/\A\d{1,6}\z/) ? params["number"].to_i : raise(Refusal.not_found("revision"))
          QuoteDesk.new(shop).revision(uuid(params["id"], "quote"), number)
        end
      end
    end
  end
end
