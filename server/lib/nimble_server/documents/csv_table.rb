# frozen_string_literal: true

require "csv"

module NimbleServer
  module Documents
    # Tables as CSV (RFC 4180) with known columns, to be written and read back. Cells a spreadsheet would take for a
    # formula are written with an apostrophe before them, and read without it.
    #
    #   table = CsvTable.new("garage list", %w[plate name], needed: "plate")
    #   table.rows("plate;name\n4-TRE-1M;Ines")  #=> [{"line" => 2, "plate" => "4-TRE-1M", "name" => "Ines"}]
    class CsvTable
      FORMULA = /\A'*[=+\-@\t\r]/

      # @param name [String] what it is called in a fault
      # @param columns [Array<String>]
      # @param needed [String] a column no file goes without
      def initialize(name, columns, needed:)
        @name = name
        @columns = columns
        @needed = needed
      end

      # @param rows [Array<Array>] cells in the order of the columns
      # @return [String]
      def print(rows)
        CSV.generate(row_sep: "\r\n") do |csv|
          csv << @columns
          rows.each { |cells| csv << cells.map { |cell| neutral(cell) } }
        end
      end

      # @return [Array<Hash>] text by column, with the line each row ends in
      # @raise [NimbleLedger::InvalidInput] invalid_csv: no CSV, or columns that are not known
      def rows(text)
        table =
          CSV.new(text.delete_prefix("\uFEFF"), col_sep: separator(text), skip_blanks: true, liberal_parsing: false)
        head = head(table.shift || [])
        table.map { |cells| { "line" => table.lineno }.merge(head.zip(cells.map { |cell| plain(cell) }).to_h) }
      rescue CSV::MalformedCSVError => e
        refuse("line #{e.line_number} is no CSV: #{e.message.sub(/ in line \d+\.?\z/, "")}", "/csv/#{e.line_number}")
      end

      private

      def neutral(cell) = cell.is_a?(String) && cell.match?(FORMULA) ? "'#{cell}" : cell

      def plain(cell) = cell.to_s.match?(/\A'+[=+\-@\t\r]/) ? cell.delete_prefix("'") : cell.to_s

      def separator(text) = text.lines.first.to_s.then { |head| head.include?(";") && !head.include?(",") ? ";" : "," }

      def head(cells)
        head = cells.map { |cell| cell.to_s.strip.downcase }
        unknown = (head - @columns).first
        if unknown
          refuse("has a column #{unknown.inspect}, which is not known; columns are #{@columns.join(", ")}", "/csv/1")
        end
        refuse("has no column #{@needed}", "/csv/1") unless head.include?(@needed)
        refuse("has the column #{head.tally.key(2)} twice", "/csv/1") if head.uniq.size < head.size
        head
      end

      def refuse(message, path) =
        raise(
          NimbleLedger::InvalidInput.new(
            "The #{@name} #{message}.",
            code: "invalid_csv",
            details: [{ "path" => path, "message" => message }]
          )
        )
    end
  end
end
