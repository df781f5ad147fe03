# frozen_string_literal: true

module NimbleServer
  module Features
    module Bills
      # What is charged: the bill of a job, credit notes, payments, the journal.
      Feature =
        NimbleServer::Feature.define(:bills) do
          depends :house_rules, :jobs, :record, :vehicles
          routes { [Routes] }
        end
    end
  end
end
