# frozen_string_literal: true

module NimbleServer
  module Features
    module Engines
      # The shop's engine library: find, import, export, patterns.
      Feature =
        NimbleServer::Feature.define(:engines) do
          depends :house_rules, :ledger
          routes { [Routes] }
        end
    end
  end
end
