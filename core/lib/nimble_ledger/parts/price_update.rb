# frozen_string_literal: true

require "set"

module NimbleLedger
  module Parts
    # What rows of a price list change against the catalog in force (model.md section 6, formats.md "Catalog"): a row is
    # one offer of one supplier, or an item alone. Rows name what they change; what no row names stays, kits and shelf
    # stock included. An empty cell changes nothing; the word none takes a cost (the supplier's offer) or a list price
    # away.
    #
    #   read = [{ "line" => 2, "part" => "PLG-1", "supplier" => "Quay", "cost" => "9.20" }]
    #   update = Parts::PriceUpdate.new(catalog, read)
    #   update.rows.first
    #   #=> {"line" => 2, "part" => "PLG-1", "status" => "changed", "changes" => ["cost at Quay 8.80 → 9.20"], ...}
    #   update.catalog     #=> the next revision
    class PriceUpdate
      COLUMNS = %w[part description kind unit supplier cost on_hand lead_days list].freeze
      LONGEST = { "part" => 60, "description" => 200, "kind" => 40, "unit" => 20, "supplier" => 80 }.freeze
      MOST_CENTS = 100_000_000
      NONE = "none"
      MOST_ROWS = 20_000

      # @return [Array<Hash>] line, part, status ("added", "changed", "same", "rejected"), description, changes, reason
      attr_reader :rows

      # @param catalog [Hash] as formats.md has it
      # @param rows [Array<Hash>] text by column, and the line it stands in
      # @param exponent [Integer] decimals of the currency
      # @param decimal [String] the mark before decimals where the shop is at home; the other one groups thousands
      # @param progress [Proc] told (rows done, of) every hundred rows
      # @raise [InvalidInput] for more rows than MOST_ROWS, or a catalog that would grow too large
      def initialize(catalog, rows, exponent: 2, decimal: ".", progress: ->(_done, _of) {})
        refuse_length(rows)
        @exponent = exponent
        @decimal = decimal
        @amount = amount_pattern(decimal)
        @before = catalog
        @items = (catalog["items"] || []).to_h { |item| [item["part"], item] }
        @offers = (catalog["offers"] || []).dup
        @place = {}
        @offers.each_with_index { |offer, i| @place[offer.values_at("part", "supplier")] ||= i }
        @known = @items.keys.to_set.merge(@offers.map { |offer| offer["part"] })
        @seen = {}
        @rows = take_all(rows, progress)
        Catalog.build(self.catalog)
      end

      # @return [Hash] the catalog with every row that was not rejected
      def catalog = @before.merge("items" => @items.values, "offers" => @offers.compact)

      def count(status) = @rows.count { |row| row["status"] == status }

      def changes? = @rows.any? { |row| %w[added changed].include?(row["status"]) }

      private

      def refuse_length(rows)
        return if rows.size <= MOST_ROWS

        raise InvalidInput.new(
                "The price list has #{rows.size} rows; at most #{MOST_ROWS} are allowed.",
                code: "too_many_rows"
              )
      end

      def take_all(rows, progress)
        rows.each_with_index.map do |row, i|
          progress.call(i, rows.size) if (i % 100).zero?
          take(row.transform_values { |cell| cell.is_a?(String) ? cell.strip : cell })
        end
      end

      def take(row)
        reason = fault(row)
        return answer(row, "rejected", reason: reason) if reason

        @seen[[row["part"], row["supplier"]]] = row["line"]
        fresh = @known.add?(row["part"])
        changes = item_changes(row) + offer_changes(row)
        status =
          if changes.empty?
            "same"
          else
            fresh ? "added" : "changed"
          end
        answer(row, status, changes: fresh ? [] : changes)
      end

      def answer(row, status, changes: [], reason: nil)
        part = row["part"].to_s[0, LONGEST["part"]]
        {
          "line" => row["line"],
          "part" => part,
          "status" => status,
          "description" => (@items[part] || {})["description"].to_s,
          "changes" => changes,
          "reason" => reason
        }
      end

      # @return [String, nil] why a row cannot be taken, in words that say what to do
      def fault(row)
        return "names no part" if row["part"].to_s.empty?

        long = LONGEST.find { |name, most| row[name].to_s.length > most }
        return "#{long[0]} is longer than #{long[1]} characters" if long
        return "holds a control character" if row.values.grep(String).any? { |cell| Shape::Text.fault(cell) }

        offer_fault(row) || number_fault(row) || double_fault(row)
      end

      def offer_fault(row)
        supplier, cost = row.values_at("supplier", "cost").map { |cell| cell.to_s.empty? ? nil : cell }
        return "names a cost but no supplier" if cost && !supplier
        if supplier && [nil, NONE].include?(cost) && !@place.key?([row["part"], supplier])
          return "names supplier #{supplier} but no cost"
        end

        stock = %w[on_hand lead_days].find { |name| !row[name].to_s.empty? }
        "names #{stock} but no supplier" if stock && !supplier
      end

      def number_fault(row)
        %w[cost list].each do |name|
          unless ["", NONE].include?(row[name].to_s) || cents(row[name])
            return "#{name} #{short(row[name])} is no amount like #{text(1250)}"
          end
        end
        return "on_hand #{short(row["on_hand"])} is no whole number up to 100000" unless whole?(row["on_hand"], 100_000)

        "lead_days #{short(row["lead_days"])} is no whole number up to 1000" unless whole?(row["lead_days"], 1000)
      end

      def double_fault(row)
        line = @seen[[row["part"], row["supplier"]]]
        "has the part and supplier of line #{line} again" if line
      end

      # What was sent is named, not echoed at length.
      def short(cell) = cell.length > 24 ? "#{cell[0, 24]}…" : cell

      def whole?(cell, most) = cell.to_s.empty? || (cell.match?(/\A\d{1,6}\z/) && cell.to_i <= most)

      # Groups of three by the shop's own mark, then its decimals; or digits alone and decimals after either mark,
      # unless that could be a group. "1,250.00", "1250.00" and "1250,00" are alike where the point is the decimal mark.
      def amount_pattern(decimal)
        group = decimal == "," ? "[.\u00a0\u202f ’]" : "[,\u00a0\u202f ’]"
        own = Regexp.escape(decimal)
        most = [@exponent, 1].max
        either = most < 3 ? "[.,]" : own
        /\A(?:(?<groups>[1-9]\d{0,2}(?:#{group}\d{3}){1,2})(?:#{own}(?<cents>\d{1,#{most}}))?|
             (?<digits>\d{1,9})(?:#{either}(?<parts>\d{1,#{most}}))?)\z/x
      end

      # @return [Integer, nil] nil for what is no amount of this currency
      def cents(cell)
        found = @amount.match(cell) or return nil
        decimals = found[:cents] || found[:parts]
        return nil if decimals && @exponent.zero?

        whole = (found[:groups] || found[:digits]).gsub(/\D/, "").to_i
        amount = (whole * (10**@exponent)) + decimals.to_s.ljust(@exponent, "0").to_i
        amount <= MOST_CENTS ? amount : nil
      end

      def text(cents) =
        cents && (@exponent.zero? ? cents.to_s : format("%d#{@decimal}%0#{@exponent}d", *cents.divmod(10**@exponent)))

      def item_changes(row)
        item = @items[row["part"]] || { "part" => row["part"] }
        changed = item_cells(row).reject { |name, value| item[name] == value }
        @items[row["part"]] = item.merge(changed).compact
        changed.map do |name, value|
          name == "list_cents" ? change("list", text(item[name]), text(value)) : change(name, item[name], value)
        end
      end

      # What a row says of the item itself.
      def item_cells(row)
        given = row.slice("description", "kind", "unit").reject { |_, cell| cell.to_s.empty? }
        given["list_cents"] = row["list"] == NONE ? nil : cents(row["list"]) unless row["list"].to_s.empty?
        given
      end

      def offer_changes(row)
        return [] if row["supplier"].to_s.empty?

        key = row.values_at("part", "supplier")
        at = (@place[key] ||= @offers.size)
        offer = @offers[at] || { "supplier" => key[1], "part" => key[0] }
        return withdraw(at, offer) if row["cost"] == NONE

        changed = offer_cells(row).reject { |name, value| offer[name] == value }
        @offers[at] = offer.merge(changed)
        changed.map { |name, value| offer_change(offer, name, value) }
      end

      # What a row says of its supplier's offer.
      def offer_cells(row)
        given = row["cost"].to_s.empty? ? {} : { "cost_cents" => cents(row["cost"]) }
        %w[on_hand lead_days].each { |name| given[name] = row[name].to_i unless row[name].to_s.empty? }
        given
      end

      def offer_change(offer, name, value)
        at = "at #{offer["supplier"]}"
        return change("cost #{at}", text(offer[name]), text(value)) if name == "cost_cents"

        change("#{name.tr("_", " ")} #{at}", offer[name], value)
      end

      def withdraw(at, offer)
        @offers[at] = nil
        [change("cost at #{offer["supplier"]}", text(offer["cost_cents"]), nil)]
      end

      def change(what, before, after) =
        "#{what} #{[before, after].map { |value| value.to_s.empty? ? NONE : value }.join(" → ")}"
    end
  end
end
