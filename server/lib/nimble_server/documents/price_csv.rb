# frozen_string_literal: true

require "csv"

module NimbleServer
  module Documents
    # A price list as CSV (RFC 4180): a row for each offer, or for an item nobody offers. Cells a spreadsheet would take
    # for a formula are written with an apostrophe before them, and read without it.
    #
    #   PriceCSV.print(catalog, exponent: 2)   #=> "part,description,...\r\nPLG-0412,..."
    #   PriceCSV.rows("part,cost\nPLG-1,9.20") #=> [{"line" => 2, "part" => "PLG-1", "cost" => "9.20"}]
    module PriceCSV
      COLUMNS = NimbleLedger::Parts::PriceUpdate::COLUMNS
      FORMULA = /\A'*[=+\-@\t\r]/

      module_function

      # @param catalog [Hash] as formats.md has it
      # @param exponent [Integer] decimals of the currency
      def print(catalog, exponent:, decimal: ".")
        offers = (catalog["offers"] || []).group_by { |offer| offer["part"] }
        items =
          (catalog["items"] || []) +
            (offers.keys - (catalog["items"] || []).map { |item| item["part"] }).map { |part| { "part" => part } }
        CSV.generate(row_sep: "\r\n") do |csv|
          csv << COLUMNS
          items.each do |item|
            (offers[item["part"]] || [{}]).each do |offer|
              csv << cells(item, offer, ->(cents) { cents && plain_amount(cents, exponent, decimal) })
            end
          end
        end
      end

      # @return [Array<Hash>] text by column, with the line each row ends in
      # @raise [NimbleLedger::InvalidInput] invalid_csv: no CSV, or columns that are not known
      def rows(text)
        table =
          CSV.new(text.delete_prefix("\uFEFF"), col_sep: separator(text), skip_blanks: true, liberal_parsing: false)
        head = columns(table.shift || [])
        table.map { |cells| { "line" => table.lineno }.merge(head.zip(cells.map { |cell| plain(cell) }).to_h) }
      rescue CSV::MalformedCSVError => e
        refuse("line #{e.line_number} is no CSV: #{e.message.sub(/ in line \d+\.?\z/, "")}", "/csv/#{e.line_number}")
      end

      def separator(text) = text.lines.first.to_s.then { |head| head.include?(";") && !head.include?(",") ? ";" : "," }

      def columns(cells)
        head = cells.map { |cell| cell.to_s.strip.downcase }
        unknown = head - COLUMNS
        if unknown.any?
          refuse(
            "has a column #{unknown.first.inspect}, which is not known; columns are #{COLUMNS.join(", ")}",
            "/csv/1"
          )
        end
        refuse("has no column part", "/csv/1") unless head.include?("part")
        refuse("has the column #{head.tally.key(2)} twice", "/csv/1") if head.uniq.size < head.size
        head
      end

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
        ].map { |cell| cell.is_a?(String) && cell.match?(FORMULA) ? "'#{cell}" : cell }
      end

      # No groups, and the shop's own mark before decimals: what a spreadsheet there reads as a number.
      def plain_amount(cents, exponent, decimal) =
        exponent.zero? ? cents.to_s : format("%d#{decimal}%0#{exponent}d", *cents.divmod(10**exponent))

      def plain(cell) = cell.to_s.match?(/\A'+[=+\-@\t\r]/) ? cell.delete_prefix("'") : cell.to_s

      def refuse(message, path) =
        raise(
          NimbleLedger::InvalidInput.new(
            "The price list #{message}.",
            code: "invalid_csv",
            details: [{ "path" => path, "message" => message }]
          )
        )
    end
  end
end
