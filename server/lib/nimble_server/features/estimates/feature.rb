# frozen_string_literal: true

module NimbleServer
  module Features
    module Estimates
      # Open formats over HTTP: estimates and the other requests.
      Feature = NimbleServer::Feature.define(:estimates) { routes { [Routes] } }
    end
  end
end
