# frozen_string_literal: true

module NimbleServer
  module Features
    module Workshop
      # Engines under the pencil: drafts, sketches, comparison, archives.
      Feature =
        NimbleServer::Feature.define(:workshop) do
          depends :engines, :house_rules
          routes { [Routes] }
        end
    end
  end
end
