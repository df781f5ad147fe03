# frozen_string_literal: true

module NimbleServer
  module Features
    module Trace
      # Finding the fault of a quote's car, with what the bay marked.
      Feature =
        NimbleServer::Feature.define(:trace) do
          depends :engines, :jobs, :quotes, :vehicles
          on(:card_shown) { |shop, quote_id:| { "trace" => Desk.new(shop).on_card(quote_id) } }
          routes { [Routes] }
        end
    end
  end
end
