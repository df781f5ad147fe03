# frozen_string_literal: true

module NimbleServer
  module Features
    module HouseRules
      # The shop's settings and equipment, revision by revision.
      Feature = NimbleServer::Feature.define(:house_rules) { routes { [Routes] } }
    end
  end
end
