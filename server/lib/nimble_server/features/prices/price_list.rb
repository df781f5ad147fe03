# frozen_string_literal: true

module NimbleServer
  module Features
    module Prices
      # The shop's prices: look up, export, and change by rows, each change a new revision. Open quotes are priced by
      # the newest list, saved revisions carry what they were priced with.
      class PriceList
        LIMIT = 200

        # @param progress [Proc] told (rows done, of) while rows are compared
        # @param typed [Boolean] whether rows come from fields, which send a point before decimals; a file has the
        # shop's own mark
        def initialize(shop, progress: ->(_done, _of) {}, typed: false)
          @shop = shop
          @decimal = typed ? "." : Documents::ShopText.decimal_mark(shop.profile[:locale])
          @progress = progress
          @head = shop[:price_lists].order(Sequel.desc(:revision)).select(:id, :revision).first
          @house = HouseRules::House.new(shop)
        end

        # @param text [String] every word must occur in part, description, kind or supplier
        # @return [Hash] see the contract, Prices
        def page(text)
          words = text.to_s.downcase.split.first(6)
          found = parts.sort.select { |part| words.all? { |word| haystack(part).include?(word) } }
          {
            "revision" => @head[:revision],
            "count" => found.size,
            "parts" => found.first(LIMIT).map { |part| row(part) },
            "missing" => missing
          }
        end

        def csv = Documents::PriceCSV.print(catalog.source, exponent: exponent, decimal: @decimal)

        # What rows would change, without doing it.
        # @raise [NimbleLedger::InvalidInput]
        # @return [Hash] see the contract, PriceReport
        def report(rows) = shown(update(rows), @head[:revision] + 1)

        # Keeps every row that can be taken as the next revision.
        # @param base [Integer] the revision the rows were made from
        # @raise [Refusal] 409 when somebody changed the list meanwhile
        # @raise [NimbleLedger::InvalidInput] when no row changes anything, with the reason of each
        # @return [Hash] the report of what was done
        def keep(rows, base)
          @shop.transaction do
            @shop.alone("prices")
            newest = @shop[:price_lists].order(Sequel.desc(:revision)).first
            raise conflict unless newest[:revision] == base

            update = update(rows)
            refuse(update) unless update.changes?
            @shop.insert(:price_lists, revision: base + 1, catalog: Sequel.pg_jsonb(update.catalog))
            shown(update, base + 1)
          end
        rescue Sequel::UniqueConstraintViolation
          raise conflict
        end

        private

        def exponent = @house.settings["currency_exponent"]
        def catalog = @catalog ||= Library.catalog(@shop, @head[:id])
        def parts = @parts ||= (catalog.source["items"] || []).map { |item| item["part"] } | offers.keys
        def offers = @offers ||= (catalog.source["offers"] || []).group_by { |offer| offer["part"] }
        def shelf = @shelf ||= (catalog.source["shelf"] || []).group_by { |row| row["part"] }

        def update(rows) =
          NimbleLedger::Parts::PriceUpdate.new(
            catalog.source,
            rows,
            exponent: exponent,
            decimal: @decimal,
            progress: @progress
          )

        def haystack(part)
          item = catalog.item(part) || {}
          [part, item["description"], item["kind"], *(offers[part] || []).map { |offer| offer["supplier"] }].compact
            .join(" ")
            .downcase
        end

        def row(part)
          item = catalog.item(part) || {}
          {
            "part" => part,
            "description" => item["description"].to_s,
            "kind" => item["kind"].to_s,
            "cost_cents" => catalog.unit_cost(part),
            "list_cents" => item["list_cents"],
            "price_cents" => NimbleLedger::Price::Selling.price(catalog, part, @house.settings["markup"]),
            "offers" =>
              (offers[part] || [])
                .sort_by { |offer| offer["cost_cents"] }
                .map { |offer| offer.slice("supplier", "cost_cents", "on_hand", "lead_days") },
            "shelf" => (shelf[part] || []).sum { |stock| stock["quantity"] },
            "contains" => (item["contains"] || []).map { |held| "#{held["quantity"]} × #{held["part"]}" }
          }
        end

        # Parts the engines ask for that have no cost: totals with them are incomplete.
        def missing
          asked =
            Library
              .newest_of_each(@shop)
              .each_with_object({}) do |head, found|
                unpriced =
                  Library.worked_out(head[:id], @head[:id], "unpriced") do
                    NimbleLedger::Library::EnginePage.new(Library.engine(@shop, head[:id]), catalog: catalog).unpriced
                  end
                unpriced.each { |part| (found[part] ||= []) << head[:code] }
              end
          asked.sort.map do |part, engines|
            { "part" => part, "description" => catalog.description(part), "engines" => engines }
          end
        end

        def shown(update, revision)
          { "revision" => revision, "rows" => told(update), "changes" => update.changes? }.merge(
            %w[added changed same rejected].to_h { |status| [status, update.count(status)] }
          )
        end

        # Rows worth telling of, those that stay out before the others where there are many; in the order of the list.
        def told(update)
          rejected, others =
            update.rows.reject { |row| row["status"] == "same" }.partition { |row| row["status"] == "rejected" }
          (rejected + others).first(LIMIT).sort_by { |row| row["line"] }
        end

        def refuse(update)
          rejected = update.rows.select { |row| row["status"] == "rejected" }.first(25)
          details = rejected.map { |row| { "path" => "/rows/#{row["line"]}", "message" => row["reason"] } }
          say =
            (
              if rejected.empty?
                "Every row is as the list has it already"
              else
                "Nothing can be kept: #{rejected.first["part"]} #{rejected.first["reason"]}".squeeze(" ")
              end
            )
          raise NimbleLedger::InvalidInput.new("#{say}.", code: "nothing_to_keep", details: details)
        end

        def conflict =
          Refusal.new(
            409,
            "price_conflict",
            "The price list was changed meanwhile. Look at it again, then change yours."
          )
      end
    end
  end
end
