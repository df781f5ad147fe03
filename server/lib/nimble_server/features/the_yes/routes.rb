# frozen_string_literal: true

module NimbleServer
  module Features
    module TheYes
      # The yes. Adds: GET /api/quotes/:id/yes and its preview, POST
      # /api/quotes/:id/offers; of an offer POST its answers, the end of its link, another try of its message, the
      # striking of a yes, that its no was read; POST /api/questions/:id/settled; POST the calling off of a job.
      module Routes
        def self.registered(app)
          offering(app)
          after(app)
          answering(app)
          taking_back(app)
          calling_off(app)
        end

        def self.offering(app)
          app.api(:get, "/api/quotes/:id/yes", role: :technician) { Page.new(shop).of(uuid(params["id"], "quote")) }

          app.api(:get, "/api/quotes/:id/preview", role: :technician) do
            { "html" => Page.new(shop).preview(uuid(params["id"], "quote"), nonce: env["nimble.nonce"]) }
          end

          app.api(:post, "/api/quotes/:id/offers", role: :advisor, body: "NewOffer") do
            once(201) do
              offer = Offers::Sending.new(shop).offer(uuid(params["id"], "quote"), body_json)
              Page.new(shop).of(offer.quote[:id])
            end
          end
        end

        def self.taking_back(app)
          app.api(:post, "/api/offers/:id/strike", role: :advisor, body: "StrikeYes") do
            offer =
              Offers::Striking.new(shop).strike(uuid(params["id"], "offer"), *body_json.values_at("position", "reason"))
            Page.new(shop).of(offer.quote[:id])
          end

          app.api(:post, "/api/offers/:id/no-read", role: :advisor) do
            Offers::Answers.new(shop).read_no(uuid(params["id"], "offer"))
            Counter::Needs.new(shop).to_h
          end
        end

        def self.calling_off(app)
          app.api(:post, "/api/jobs/:id/call-off", role: :advisor, body: "CallOff") do
            Page.new(shop).of(Jobs::CallingOff.new(shop).call_off(uuid(params["id"], "job"), body_json["reason"]))
          end

          app.api(:post, "/api/jobs/:id/take-up", role: :advisor) do
            Page.new(shop).of(Jobs::CallingOff.new(shop).take_up(uuid(params["id"], "job")))
          end
        end

        def self.after(app)
          app.api(:post, "/api/offers/:id/revocation", role: :advisor) do
            offer = Offers::Sending.new(shop).revoke(uuid(params["id"], "offer"))
            Page.new(shop).of(offer.quote[:id])
          end

          app.api(:post, "/api/offers/:id/retry", role: :advisor) do
            offer = Offers::Reading.new(shop).find(uuid(params["id"], "offer"))
            Outbox::Letters.new(shop).again(offer.id)
            Page.new(shop).of(offer.quote[:id])
          end
        end

        def self.answering(app)
          app.api(:post, "/api/offers/:id/answers", role: :advisor, body: "OfferAnswer") do
            once(201) do
              said = Offers::Answers::Said.new(**body_json.transform_keys(&:to_sym))
              offer = Offers::Answers.new(shop).take(uuid(params["id"], "offer"), said)
              Page.new(shop).of(offer.quote[:id])
            end
          end

          app.api(:post, "/api/questions/:id/settled", role: :advisor) do
            offer = Offers::Answers.new(shop).settle_question(uuid(params["id"], "question"))
            Page.new(shop).of(offer.quote[:id])
          end
        end
      end
    end
  end
end
