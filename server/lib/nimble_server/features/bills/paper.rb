# frozen_string_literal: true

module NimbleServer
  module Features
    module Bills
      # A bill on paper.
      module Paper
        # @return [NimbleServer::Documents::BillPDF]
        def self.of(shop, desk, bill)
          job = Jobs::Cards.new(shop).job(bill[:job_id])
          NimbleServer::Documents::BillPDF.new(
            HouseRules::Letterhead.of(shop),
            bill.merge(
              credits: bill[:credits_id] && desk.bill(bill[:credits_id]),
              paid_cents: desk.live(desk.bills(job))&.fetch(:id) == bill[:id] ? desk.paid_cents(job) : 0,
              job: job
            ),
            desk.vehicle(job),
            NimbleServer::Documents::Texts.of(shop.profile[:locale]),
            head: Record::ActLog.new(shop).head
          )
        end
      end
    end
  end
end
