# frozen_string_literal: true

module NimbleServer
  module Features
    module Quotes
      # Paper. Adds: GET /api/quotes/:id/print.pdf, the designed quote page of a saved revision.
      module Papers
        def self.registered(app)
          app.api(:get, "/api/quotes/:id/print.pdf", role: :technician, beside: "papers") do
            desk = Desk.new(shop)
            quote = desk.find(uuid(params["id"], "quote"))
            number = params["revision"].to_s.match?(/\A\d{1,6}\z/) ? params["revision"].to_i : quote[:latest_revision]
            frozen = desk.revision(quote[:id], number)
            vehicle = Vehicles::Garage.card(Vehicles::Garage.new(shop).find(quote[:vehicle_id]), shop.now)
            content_type "application/pdf"
            headers "content-disposition" => "inline; filename=\"quote-#{quote[:number]}-#{number}.pdf\""
            from = HouseRules::Letterhead.of(shop)
            head = Record::ActLog.new(shop).head
            NimbleServer::Documents::QuotePDF.new(from, quote, vehicle, frozen, head: head).render
          end
        end
      end
    end
  end
end
