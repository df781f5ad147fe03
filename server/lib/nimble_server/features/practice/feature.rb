# frozen_string_literal: true

module NimbleServer
  module Features
    module Practice
      # Made-up cars from the shop's own engines.
      Feature =
        NimbleServer::Feature.define(:practice) do
          depends :engines, :house_rules
          routes { [Routes] }
        end
    end
  end
end
