# frozen_string_literal: true

module NimbleServer
  module Features
    module Outbox
      # Messages that wait, and the post that carries them.
      Feature = NimbleServer::Feature.define(:outbox)
    end
  end
end
