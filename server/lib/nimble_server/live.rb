# frozen_string_literal: true

module NimbleServer
  # Word that something of a shop has changed, to every web process (LISTEN/NOTIFY), at the end of the transaction that
  # changes it. It says what kind of thing, never what: whoever hears it asks.
  #
  #   Live.tell(shop, "quotes")
  module Live
    CHANNEL = "nimble_live"
    TOPICS = %w[quotes jobs ledger day].freeze

    module_function

    # @param shop [Shop]
    # @param topic [String] one of TOPICS
    def tell(shop, topic) = shop.db.notify(CHANNEL, payload: "#{shop.id} #{topic}")
  end
end
