# frozen_string_literal: true

module NimbleServer
  module Features
    module People
      # Accounts of a shop, invitations, roles.
      Feature =
        NimbleServer::Feature.define(:people) do
          depends :accounts
          routes { [Routes] }
        end
    end
  end
end
