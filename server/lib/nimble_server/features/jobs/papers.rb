# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # Paper. Adds: GET /api/jobs/:id/card.pdf, the card for shops that work from paper;
      # GET /api/jobs/:id/hand-over.pdf, what the customer takes along.
      module Papers
        def self.registered(app)
          app.api(:get, "/api/jobs/:id/card.pdf", role: :technician, beside: "papers") do
            content_type "application/pdf"
            Papers.card(shop, Cards.new(shop).job(uuid(params["id"], "job"))).render
          end

          app.api(:get, "/api/jobs/:id/hand-over.pdf", role: :technician, beside: "papers") do
            job = Cards.new(shop).job(uuid(params["id"], "job"))
            raise Refusal.new(409, "not_finished", "This job is not handed over yet.") unless job[:handed_over_at]

            content_type "application/pdf"
            Papers.hand_over(shop, job).render
          end
        end

        def self.card(shop, job)
          texts = NimbleServer::Documents::Texts.new("en")
          NimbleServer::Documents::BayCardPDF.new(
            shop.profile,
            job,
            Cards.new(shop).of(job).sheet,
            car: HandOverWords.new(shop, job, texts).vehicle,
            head: Record::ActLog.new(shop).head
          )
        end

        def self.hand_over(shop, job)
          texts = NimbleServer::Documents::Texts.of(shop.profile[:locale])
          told = HandOverWords.new(shop, job, texts)
          NimbleServer::Documents::HandOverPDF.new(
            HouseRules::Letterhead.of(shop),
            told,
            texts,
            head: Record::ActLog.new(shop).head
          )
        end
      end
    end
  end
end
