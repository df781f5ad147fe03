# frozen_string_literal: true

module NimbleLedger
  module Parts
    # The shop's price list (formats.md, "Catalog"): items and kits, offers of suppliers, what lies on the shelf.
    class Catalog
      part = Shape.string(max: 60)
      cents = Shape.integer(max: 100_000_000)
      count = Shape.integer(max: 100_000)
      item =
        Shape.object(
          required: {
            "part" => part
          },
          optional: {
            "description" => Shape.string(max: 200, empty: true),
            "kind" => Shape.string(max: 40),
            "unit" => Shape.string(max: 20),
            "list_cents" => Shape.nullable(cents),
            "tax_class" => Shape.string(max: 40),
            "life_km" => Shape.number(max: 10_000_000),
            "pack" => Shape.integer(min: 1, max: 1000),
            "core_cents" => cents,
            "equivalents" => Shape.list(part, max: 20),
            "plug" =>
              Shape.object(
                optional: {
                  "construction" => Shape.one_of("one-piece", "one-piece-long-reach", "multi-piece"),
                  "grade" => Shape.one_of("nickel", "platinum", "iridium"),
                  "interval_km" => Shape.number(above: 0, max: 10_000_000)
                }
              ),
            "contains" =>
              Shape.list(
                Shape.object(required: { "part" => part, "quantity" => Shape.integer(min: 1, max: 1000) }),
                min: 1,
                max: 60
              )
          }
        )
      offer =
        Shape.object(
          required: {
            "supplier" => Shape.string(max: 80),
            "part" => part,
            "cost_cents" => cents
          },
          optional: {
            "on_hand" => count,
            "lead_days" => Shape.number(max: 1000)
          }
        )
      date = Shape.string(max: 10, pattern: WallClock::DATE)
      time = Shape.string(max: 5, pattern: WallClock::TIME)
      run =
        Shape.object(
          required: {
            "id" => Shape.string(max: 60),
            "order_by" => time,
            "arrives" => time,
            "days" => Shape.integer(max: 30),
            "on" => Shape.list(Shape.one_of(*WallClock::WEEKDAYS), min: 1, max: 7, unique: true)
          },
          optional: {
            "charge_cents" => cents,
            "free_from_cents" => Shape.nullable(cents),
            "minimum_cents" => cents,
            "late" => Shape.number(max: 1)
          }
        )
      supplier =
        Shape.object(
          optional: {
            "closed" => Shape.list(date, max: 400),
            "delivery_cents" => cents,
            "runs" => Shape.list(run, max: 12)
          }
        )
      shelf = Shape.object(required: { "part" => part, "quantity" => count, "cost_cents" => cents })

      SHAPE =
        Shape.object(
          optional: {
            "format" => Shape.const("nimble-ledger.catalog"),
            "version" => Shape.const(1),
            "name" => Shape.string(max: 120),
            "items" => Shape.list(item, max: 25_000),
            "offers" => Shape.list(offer, max: 50_000),
            "shelf" => Shape.list(shelf, max: 25_000),
            "suppliers" => Shape.map(supplier, max: 400)
          }
        )

      # @raise [InvalidInput] invalid_catalog, with paths
      def self.build(hash, path: "")
        SHAPE.check!(hash, what: "catalog", code: "invalid_catalog", path: path)
        new(hash, path)
      end

      def initialize(hash, path)
        @source = hash
        @items = {}
        (hash["items"] || []).each_with_index { |item, i| add(item, "#{path}/items/#{i}") }
        @costs = standing_costs(hash)
        @place = @items.keys.each_with_index.to_h
        @kits = kits_by_part
        freeze
      end
      private_class_method :new

      # @return [Hash, nil] the item as the catalog states it
      def item(part) = @items[part]

      # Parts that name this one as an equivalent.
      # @return [Array<String>]
      def equivalent_to(part) =
        @items.values.select { |item| item["equivalents"].to_a.include?(part) }.map { |i| i["part"] }

      def description(part) = (item(part) || {})["description"].to_s

      # The standing cost of one, in cents: the lowest offer, else what the shelf stock cost; nil when unknown.
      def cost(part) = @costs[part]

      # Whether it can be bought by itself.
      def priced?(part) = @costs.key?(part)

      # What one counts as when it is sold, in cents: its standing cost; a part sold only inside a kit its share of the
      # cheapest such kit; nil when neither is known.
      def unit_cost(part)
        return cost(part) if priced?(part)

        kit = kits_with([part]).min_by { |item| cost(item["part"]) } or return nil
        Money.round(Rational(cost(kit["part"]), kit["contains"].sum { |held| held["quantity"].to_i }))
      end

      # What one sells for at most, in cents; nil when the list sets no such price.
      # @return [Integer, Rational, nil] cents: its own standing cost, else the least share of a kit that holds it
      def exact_unit_cost(part) =
        cost(part) ||
          kits_with([part])
            .map { |kit| Rational(cost(kit["part"]), kit["contains"].sum { |held| held["quantity"].to_i }) }
            .min

      def list_cents(part) = (item(part) || {})["list_cents"]

      # Kits that hold any of these parts, with a known cost, in the order of the list.
      def kits_with(parts)
        parts
          .flat_map { |part| @kits.fetch(part, []) }
          .uniq
          .select { |item| priced?(item["part"]) }
          .sort_by { |item| @place[item["part"]] }
      end

      # @return [Hash] the whole catalog as formats.md has it
      attr_reader :source

      # The catalog cut down to some parts and the kits that hold them, for a revision that must recompute.
      # @return [Hash] catalog as formats.md has it
      def only(parts)
        wanted = parts | kits_with(parts).flat_map { |kit| [kit["part"], *kit["contains"].map { |c| c["part"] }] }
        %w[items offers shelf].to_h { |key| [key, (@source[key] || []).select { |row| wanted.include?(row["part"]) }] }
      end

      private

      def add(item, path)
        if @items.key?(item["part"])
          raise InvalidInput.new(
                  "The catalog lists #{item["part"]} twice.",
                  code: "invalid_catalog",
                  details: [{ "path" => "#{path}/part", "message" => "#{item["part"]} stands twice" }]
                )
        end
        @items[item["part"]] = item
      end

      def kits_by_part
        @items
          .each_value
          .with_object({}) { |item, kits| (item["contains"] || []).each { |held| (kits[held["part"]] ||= []) << item } }
      end

      def standing_costs(hash)
        offers = (hash["offers"] || []).group_by { |offer| offer["part"] }
        costs = offers.transform_values { |list| list.map { |offer| offer["cost_cents"].to_i }.min }
        (hash["shelf"] || []).each { |row| costs[row["part"]] ||= row["cost_cents"].to_i }
        costs
      end
    end
  end
end
