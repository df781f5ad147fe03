# frozen_string_literal: true

module NimbleServer
  module Features
    module TheYes
      # The page of The yes as the advisor works it: what is offered and answered, and the job that came of it.
      Feature =
        NimbleServer::Feature.define(:the_yes) do
          depends :counter, :customer_page, :house_rules, :jobs, :offers, :outbox, :quotes, :record, :vehicles
          routes { [Routes, Papers] }
        end
    end
  end
end
