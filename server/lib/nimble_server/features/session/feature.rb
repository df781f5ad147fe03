# frozen_string_literal: true

module NimbleServer
  module Features
    module Session
      # Who is signed in, and what the front end may know of them.
      Feature =
        NimbleServer::Feature.define(:session) do
          depends :house_rules, :outbox, :setup
          routes { [Routes] }
        end
    end
  end
end
