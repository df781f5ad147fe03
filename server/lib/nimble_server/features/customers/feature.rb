# frozen_string_literal: true

module NimbleServer
  module Features
    module Customers
      # People and their cars, garage lists in and out.
      Feature =
        NimbleServer::Feature.define(:customers) do
          depends :record, :vehicles
          routes { [Routes] }
        end
    end
  end
end
