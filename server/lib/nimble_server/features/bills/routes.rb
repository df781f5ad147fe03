# frozen_string_literal: true

module NimbleServer
  module Features
    module Bills
      # Bills. Adds: of a job GET its bill, POST it and its payments; POST the credit of a bill and
      # GET its paper; GET /api/bills/journal.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/jobs/:id/bill", role: :advisor) { Desk.new(shop).page(uuid(params["id"], "job")) }

          app.api(:post, "/api/jobs/:id/bill", role: :advisor, body: "IssueBill") do
            once(201) { Desk.new(shop).issue(uuid(params["id"], "job"), body_json) }
          end

          app.api(:post, "/api/jobs/:id/payments", role: :advisor, body: "NewPayment") do
            once(201) { Desk.new(shop).pay(uuid(params["id"], "job"), body_json) }
          end

          app.api(:post, "/api/bills/:id/credit", role: :advisor, body: "CreditBill") do
            once(201) { Desk.new(shop).credit(uuid(params["id"], "bill"), body_json["reason"]) }
          end
          papers(app)
        end

        def self.papers(app)
          app.api(:get, "/api/bills/:id/bill.pdf", role: :advisor, beside: "papers") do
            desk = Desk.new(shop)
            bill = desk.bill(uuid(params["id"], "bill"))
            content_type "application/pdf"
            Paper.of(shop, desk, bill).render
          end

          app.api(:get, "/api/bills/journal", role: :owner) do
            content_type "text/csv"
            attachment "journal.csv"
            Books.new(shop).csv
          end
        end
      end
    end
  end
end
