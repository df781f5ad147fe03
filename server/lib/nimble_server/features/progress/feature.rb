# frozen_string_literal: true

module NimbleServer
  module Features
    module Progress
      # How far work in the background has come.
      Feature = NimbleServer::Feature.define(:progress) { routes { [Routes] } }
    end
  end
end
