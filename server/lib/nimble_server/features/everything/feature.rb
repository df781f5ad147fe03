# frozen_string_literal: true

module NimbleServer
  module Features
    module Everything
      # All a shop owns, in one archive of open files.
      Feature =
        NimbleServer::Feature.define(:everything) do
          depends :customers, :ledger, :record
          routes { [Routes] }
        end
    end
  end
end
