# frozen_string_literal: true

module NimbleServer
  module Features
    module Quotes
      # Quotes. Adds: list, start, open, put away and bring back, the working copy, save, one
      # revision.
      module Routes
        def self.registered(app)
          app.helpers do
            define_method(:desk) do
              Desk.new(
                shop,
                effort: -> { NimbleLedger::Access::NodeBudget.new(tick: Patience.new(env).method(:tick).to_proc) }
              )
            end
          end

          opening(app)
          working_copy(app)
          panels(app)
          revisions(app)
        end

        def self.opening(app)
          app.api(:get, "/api/quotes", role: :technician) { { "quotes" => desk.list(params["search"]) } }

          app.api(:post, "/api/quotes", role: :advisor, body: "NewQuote") do
            once(201) { desk.open(desk.start(uuid(body_json["vehicle_id"], "vehicle"))) }
          end

          app.api(:get, "/api/quotes/:id", role: :technician) { desk.open(uuid(params["id"], "quote")) }

          app.api(:post, "/api/quotes/:id/put-away", role: :advisor) { desk.put_away(uuid(params["id"], "quote")) }
          app.api(:post, "/api/quotes/:id/bring-back", role: :advisor) { desk.bring_back(uuid(params["id"], "quote")) }

          app.api(:post, "/api/quotes/:id/engine", role: :advisor) { desk.renew_engine(uuid(params["id"], "quote")) }
        end

        def self.working_copy(app)
          app.api(:put, "/api/quotes/:id/draft", role: :advisor, body: "StoreDraft") do
            stored =
              desk.store_draft(
                uuid(params["id"], "quote"),
                body_json["version"].to_i,
                body_json["content"],
                body_json["base_revision"]&.to_i
              )
            InTwoParts.new(stored.at_once, socket: env["puma.socket"], &stored.later)
          end
        end

        # Figures that only a panel shows, of the working copy as it is stored.
        def self.panels(app)
          app.api(:get, "/api/quotes/:id/panels/:panel", role: :technician) do
            raise Refusal.not_found("panel") unless Desk::PANELS.include?(params["panel"])

            desk.panel(uuid(params["id"], "quote"), params["panel"])
          end
        end

        def self.revisions(app)
          app.api(:post, "/api/quotes/:id/revisions", role: :advisor, body: "SaveQuote") do
            once(201) { desk.save(uuid(params["id"], "quote"), body_json["version"].to_i, body_json["priced_with"]) }
          end

          app.api(:get, "/api/quotes/:id/revisions/:number", role: :technician) do
            number =
              params["number"].to_s.match?(/\A\d{1,6}\z/) ? params["number"].to_i : raise(Refusal.not_found("revision"))
            desk.revision(uuid(params["id"], "quote"), number)
          end
        end
      end
    end
  end
end
