# frozen_string_literal: true

module NimbleLedger
  module Price
    # The priced lines of a job (model.md section 7): labor, parts, consumables, shop supplies, fees, discount, taxes.
    # Every line is whole cents, and the total is their sum.
    class Lines
      Line = Struct.new(:kind, :label, :quantity, :unit_cents, :cents, :part, :because, :basis)

      TAX_CLASS = { "labor" => "labor", "part" => "parts", "consumable" => "parts", "supplies" => "fees", "fee" => "fees" }.freeze

      attr_reader :list, :missing, :leftovers

      # @param tenths [Integer] quoted tenths of an hour
      # @param needed [Parts::Needed]
      # @param catalog [Parts::Catalog]
      # @param discount [Hash, nil] {"label", "cents"}
      def initialize(tenths, needed, catalog, house:, discount: nil)
        @house = house
        @catalog = catalog
        @missing = needed.unnamed.map { |target| { "part" => nil, "because" => [target] } }
        @leftovers = []
        @list = [labor(tenths)] + part_lines(needed.billed) + consumables(needed) + supplies(tenths) + fees
        @list += discount_line(discount)
        @list += taxes
        freeze
      end

      # A part without a price makes the total incomplete, never zero.
      def incomplete? = missing.any?

      # @return [Integer] cents
      def total_cents = list.sum(&:cents)

      # The total with other hours and more parts: what an outcome of the job would cost.
      # @param tenths [Integer]
      # @param extra_cents [Integer] selling price of the parts it takes, before tax
      # @return [Integer] cents
      def total_with(tenths, extra_cents)
        moved = { "labor" => labor(tenths).cents, "supplies" => supplies(tenths).sum(&:cents) }
        lines = list.reject { |line| line.kind == "tax" }.map { |line| [line.kind, moved[line.kind] || line.cents] }
        lines << ["supplies", moved["supplies"]] if list.none? { |line| line.kind == "supplies" }
        lines << ["part", extra_cents]
        lines.sum(&:last) + (@house["tax_inclusive"] ? 0 : @house["taxes"].sum { |tax| Money.round(taxable(lines, tax) * rate(tax)) })
      end

      # Tax contained in prices when the house quotes tax-inclusive; 0 otherwise.
      def included_tax_cents
        return 0 unless @house["tax_inclusive"]

        @house["taxes"].sum { |tax| Money.round(net(tax) * rate(tax) / (1 + rate(tax))) }
      end

      private

      def labor(tenths)
        Line.new("labor", "Labor", tenths / 10.0, @house["rate_cents"], Money.round(Rational(tenths * @house["rate_cents"], 10)))
      end

      def part_lines(rows)
        needs = rows.group_by(&:part).transform_values { |same| [same.sum(&:quantity), same.flat_map(&:because)] }
        kits = @house["kit_rule"] == "whole" ? kits_for(needs) : {}
        lines = kits.map { |part, count| part_line(part, count, use_kit(part, count, needs)) }
        lines + needs.filter_map { |part, (quantity, because)| part_line(part, quantity, because.uniq) if quantity.positive? }
      end

      def part_line(part, quantity, because)
        unit = @catalog.selling_price(part, @house["markup"])
        if unit.nil?
          @missing << { "part" => part, "because" => because }
          return nil
        end
        label = @catalog.description(part)
        basis = unit == @catalog.list_cents(part) ? "The selling price the price list sets." : "Standing cost with the house markup."
        Line.new("part", label.empty? ? part : label, quantity, unit, unit * quantity, part, because, basis)
      end

      # How many of each kit to buy: the least cost that covers the need, singles for the rest. Exact over all counts.
      def kits_for(needs)
        kits = @catalog.kits_with(needs.keys).first(4)
        return {} if kits.empty?

        ranges = kits.map { |kit| (0..most_useful(kit, needs)).to_a }
        counts = ranges.first.product(*ranges.drop(1)).min_by { |tried| [purchase_cost(kits, tried, needs), tried] }
        kits.map { |kit| kit["part"] }.zip(counts).to_h.select { |_part, count| count.positive? }
      end

      def most_useful(kit, needs)
        most = kit["contains"].map { |c| ((needs[c["part"]] || [0]).first / c["quantity"].to_r).ceil }.max
        [most, 8].min
      end

      # [parts nobody sells singly and no kit covers, cost]
      def purchase_cost(kits, counts, needs)
        left = needs.transform_values(&:first)
        kits.zip(counts).each { |kit, n| kit["contains"].each { |c| left[c["part"]] -= n * c["quantity"].to_i if left[c["part"]] } }
        open = left.select { |_part, quantity| quantity.positive? }
        lost = open.reject { |part, _quantity| @catalog.priced?(part) }.sum(&:last)
        [lost, kits.zip(counts).sum { |kit, n| n * @catalog.cost(kit["part"]) } + open.sum { |part, q| q * (@catalog.cost(part) || 0) }]
      end

      # Takes a kit's contents off the needs; what is not needed stays in stock.
      def use_kit(part, count, needs)
        @catalog.item(part)["contains"].flat_map do |content|
          need = needs[content["part"]]
          have = content["quantity"].to_i * count
          used = [need ? need[0] : 0, have].min
          need[0] -= used if need
          @leftovers << { "part" => content["part"], "quantity" => have - used } if have > used
          used.positive? ? need[1] : []
        end.uniq
      end

      def consumables(needed)
        needed.consumables.map do |label, quantity, cents|
          Line.new("consumable", label, quantity, cents, Money.round(ThreePoints.exact(quantity) * cents))
        end
      end

      def supplies(tenths)
        share = Rational(tenths * @house["rate_cents"], 10) * ThreePoints.exact(@house["supplies_percent"]) / 100
        cents = [Money.round(share), @house["supplies_cap_cents"]].min
        cents.positive? ? [Line.new("supplies", "Shop supplies", 1, cents, cents, nil, nil, supplies_basis)] : []
      end

      def supplies_basis = "#{@house["supplies_percent"]} % of labor, up to the house cap."

      def fees = @house["fees"].map { |fee| Line.new("fee", fee["label"], 1, fee["cents"], fee["cents"]) }

      def discount_line(discount)
        return [] unless discount && discount["cents"].positive?

        cents = [discount["cents"].to_i, list.sum(&:cents)].min
        [Line.new("discount", discount["label"] || "Discount", 1, -cents, -cents)]
      end

      def taxes
        return [] if @house["tax_inclusive"]

        @house["taxes"].filter_map do |tax|
          cents = Money.round(net(tax) * rate(tax))
          Line.new("tax", tax["label"], 1, cents, cents, nil, nil, "#{tax["percent"]} % of #{tax["on"].join(", ")} after discount.") if cents.positive?
        end
      end

      def rate(tax) = ThreePoints.exact(tax["percent"]) / 100

      def net(tax) = taxable(list.map { |line| [line.kind, line.cents] }, tax)

      # What a tax is taken on: the lines of its classes, less their share of the discount.
      # @param lines [Array<[String, Integer]>] kind and cents
      def taxable(lines, tax)
        taxed = lines.select { |kind, _cents| TAX_CLASS.key?(kind) }
        off = -lines.sum { |kind, cents| kind == "discount" ? cents : 0 }
        shares = off.positive? ? Money.spread(off, taxed.map(&:last)) : []
        taxed.each_with_index.sum { |(kind, cents), i| tax["on"].include?(TAX_CLASS[kind]) ? cents - (shares[i] || 0) : 0 }
      end
    end
  end
end
