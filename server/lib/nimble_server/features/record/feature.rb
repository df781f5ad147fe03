# frozen_string_literal: true

module NimbleServer
  module Features
    module Record
      # What binds somebody, sealed in the database and verified.
      Feature = NimbleServer::Feature.define(:record)
    end
  end
end
