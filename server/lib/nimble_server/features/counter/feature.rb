# frozen_string_literal: true

module NimbleServer
  module Features
    module Counter
      # What needs me now, the search, follow-ups, cars that are due.
      Feature =
        NimbleServer::Feature.define(:counter) do
          depends :customers, :day, :house_rules, :jobs, :offers, :quotes, :vehicles
          routes { [Routes] }
        end
    end
  end
end
