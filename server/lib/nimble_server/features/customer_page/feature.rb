# frozen_string_literal: true

module NimbleServer
  module Features
    module CustomerPage
      # The page behind the customer's secret link.
      Feature =
        NimbleServer::Feature.define(:customer_page) do
          depends :calendar_files, :house_rules, :jobs, :offers, :record, :vehicles
        end
    end
  end
end
