# frozen_string_literal: true

module NimbleServer
  module Features
    module Accounts
      # Sign-in, passwords, wrong tries.
      Feature = NimbleServer::Feature.define(:accounts)
    end
  end
end
