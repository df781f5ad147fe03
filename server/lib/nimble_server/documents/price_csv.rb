# frozen_string_literal: true

module NimbleServer
  module Documents
    # A price list as CSV: a row for each offer, or for an item nobody offers.
    #
    #   PriceCSV.print(catalog, exponent: 2)   #=> "part,description,...\r\nPLG-0412,..."
    #   PriceCSV.rows("part,cost\nPLG-1,9.20") #=> [{"line" => 2, "part" => "PLG-1", "cost" => "9.20"}]
    module PriceCSV
      TABLE = CsvTable.new("price list", NimbleLedger::Parts::PriceUpdate::COLUMNS, needed: "part")

      module_function

      # @param catalog [Hash] as formats.md has it
      # @param exponent [Integer] decimals of the currency
      def print(catalog, exponent:, decimal: ".")
        offers = (catalog["offers"] || []).group_by { |offer| offer["part"] }
        items =
          (catalog["items"] || []) +
            (offers.keys - (catalog["items"] || []).map { |item| item["part"] }).map { |part| { "part" => part } }
        money = ->(cents) { cents && plain_amount(cents, exponent, decimal) }
        TABLE.print(items.flat_map { |item| (offers[item["part"]] || [{}]).map { |offer| cells(item, offer, money) } })
      end

      # @return [Array<Hash>] see CsvTable#rows
      def rows(text) = TABLE.rows(text)

      def cells(item, offer, money)
        [
          item["part"],
          item["description"],
          item["kind"],
          item["unit"],
          offer["supplier"],
          money.call(offer["cost_cents"]),
          offer["on_hand"],
          offer["lead_days"],
          money.call(item["list_cents"])
        ]
      end

      # No groups, and the shop's own mark before decimals: what a spreadsheet there reads as a number.
      def plain_amount(cents, exponent, decimal) =
        exponent.zero? ? cents.to_s : format("%d#{decimal}%0#{exponent}d", *cents.divmod(10**exponent))
    end
  end
end
