# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # The bay. Adds: GET /api/jobs, GET and PUT /api/jobs/:id, POST /api/jobs/:id/marks,
      # pictures, scan, proposals, ways on, hand-over.
      module Routes
        # What routes call the bay's desk by.
        module Helpers
          def bay = Desk.new(shop)
        end

        def self.registered(app)
          cards(app)
          ends(app)
          pictures(app)
          app.helpers(Helpers)
        end

        def self.cards(app)
          app.api(:get, "/api/jobs", role: :technician) { { "jobs" => bay.list } }
          app.api(:get, "/api/jobs/:id", role: :technician) { bay.card(uuid(params["id"], "job")) }
          app.api(:put, "/api/jobs/:id", role: :technician, body: "GiveJob") do
            bay.give(uuid(params["id"], "job"), body_json)
          end

          app.api(:post, "/api/jobs/:id/marks", role: :technician, body: "Marks") do
            bay.hand_in(uuid(params["id"], "job"), body_json["device"], body_json["marks"])
          end

          app.api(:post, "/api/jobs/:id/scan", role: :technician) { bay.scan(uuid(params["id"], "job")) }
        end

        def self.ends(app)
          app.api(:post, "/api/jobs/:id/proposals", role: :advisor, body: "ProposeFound") do
            bay.propose(uuid(params["id"], "job"), body_json["mark"])
          end

          app.api(:post, "/api/jobs/:id/ways-on", role: :advisor) { bay.ask_ways(uuid(params["id"], "job")) }

          app.api(:post, "/api/jobs/:id/hand-over", role: :advisor, body: "HandOver") do
            bay.hand_over(uuid(params["id"], "job"), body_json["odometer_km"]&.to_i)
          end
        end

        def self.pictures(app)
          app.api(:post, "/api/jobs/:id/pictures", role: :technician, body: "NewPicture") do
            status 201
            job = Cards.new(shop).job(uuid(params["id"], "job"))
            Pictures.new(shop).keep(job, body_json["data"], body_json["id"])
          end

          app.api(:get, "/api/jobs/:id/pictures/:picture", role: :technician) do
            job = Cards.new(shop).job(uuid(params["id"], "job"))
            found = Pictures.new(shop).find(job, uuid(params["picture"], "picture"))
            content_type found[:type]
            headers "content-security-policy" => "sandbox; default-src 'none'", "x-content-type-options" => "nosniff"
            found[:bytes].to_s
          end
        end
      end
    end
  end
end
