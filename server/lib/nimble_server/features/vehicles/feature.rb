# frozen_string_literal: true

module NimbleServer
  module Features
    module Vehicles
      # Cars: readings, owners, what was found and fitted.
      Feature =
        NimbleServer::Feature.define(:vehicles) do
          depends :house_rules
          routes { [Routes] }
        end
    end
  end
end
