# frozen_string_literal: true

require "json"
require "que"
require "securerandom"
require "sequel"
require "zeitwerk"
require_relative "../../core/lib/nimble_ledger"

# The server of Nimble Ledger: API, accounts, storage, documents. It asks the core and decides nothing of the trade.
module NimbleServer
  ROOT = File.expand_path("../..", __dir__)

  loader = Zeitwerk::Loader.for_gem
  loader.inflector.inflect(
    "api" => "API",
    "quote_pdf" => "QuotePDF",
    "bill_pdf" => "BillPDF",
    "hand_over_pdf" => "HandOverPDF",
    "bay_card_pdf" => "BayCardPDF",
    "authorization_pdf" => "AuthorizationPDF",
    "descent_svg" => "DescentSVG",
    "price_csv" => "PriceCSV"
  )
  loader.collapse("#{__dir__}/nimble_server/stack")
  loader.setup
end
