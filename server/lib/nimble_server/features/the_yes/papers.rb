# frozen_string_literal: true

module NimbleServer
  module Features
    module TheYes
      # Paper. Adds: GET /api/offers/:id/authorization.pdf, the page to sign, or
      # to keep; GET /api/quotes/:id/export, all of a quote as an open document.
      module Papers
        def self.registered(app)
          app.api(:get, "/api/offers/:id/authorization.pdf", role: :technician, beside: "papers") do
            offer = Offers::Reading.new(shop).find(uuid(params["id"], "offer"))
            content_type "application/pdf"
            name = "authorization-#{offer.quote[:number]}-#{offer.revision[:revision]}.pdf"
            headers "content-disposition" => "inline; filename=\"#{name}\""
            Papers.authorization(shop, offer).render
          end

          app.api(:get, "/api/quotes/:id/export", role: :advisor) { Export.new(shop).of(uuid(params["id"], "quote")) }
        end

        def self.authorization(shop, offer) =
          NimbleServer::Documents::AuthorizationPDF.new(
            HouseRules::Letterhead.of(shop),
            offer,
            Offers::Wording.new(shop, offer),
            link: offer.revoked? ? nil : CustomerToken.url(offer.id),
            head: Record::ActLog.new(shop).head
          )
      end
    end
  end
end
