# frozen_string_literal: true

module NimbleLedger
  module Price
    # The priced lines of a job (model.md section 7): labor, parts, consumables, shop supplies, fees, discount, taxes.
    # Every line is whole cents, and the total is their sum. What the shop owes under its warranty is a line of nothing.
    class Lines
      # tax_class: of a line by hand; others are taxed by their kind.
      Line = Struct.new(:kind, :label, :quantity, :unit_cents, :cents, :part, :because, :basis, :tax_class)

      # @param hand [HandLine]
      # @return [Line]
      def self.by_hand(hand) =
        Line.new(
          "by-hand",
          hand.label,
          hand.quantity,
          hand.each_cents,
          hand.cents,
          nil,
          nil,
          "Set by hand.",
          hand.tax_class
        )

      attr_reader :list, :missing, :leftovers

      # @param tenths [Integer] quoted tenths of an hour
      # @param needed [Parts::Needed]
      # @param catalog [Parts::Catalog]
      # @param house [House::Settings] resolved for the job
      # @param discount [Hash, nil] {"label", "cents"}
      # @param diagnosis [Diagnosis, nil]
      # @param owed [Array<Profile::Target>] done for nothing: neither in the hours nor in what is needed
      # @param by_hand [Array<HandLine>] other work and free parts
      def initialize(
        tenths,
        needed,
        catalog,
        house:,
        discount: nil,
        diagnosis: nil,
        owed: [],
        by_hand: [],
        used_parts_as_singles: false
      )
        @house = house
        @catalog = catalog
        @discount = discount
        @tax = Tax.new(house)
        @supplies_share = ThreePoints.exact(house["supplies_percent"]) / 100
        @missing = needed.unnamed.map { |target| { "part" => nil, "because" => [target] } }
        @leftovers = []
        @owed = owed.map { |target| owed_line(target) }
        @billed = !needed.equal?(Parts::Nothing)
        @singles = used_parts_as_singles && house["kit_rule"] == "used-parts"
        @material = material(needed, by_hand)
        @fees = fees
        @sold, @credited = diagnosis&.credited? ? [[], diagnosis_lines(diagnosis)] : [diagnosis_lines(diagnosis), []]
        @staying = Taxed.of(@sold + @material + @fees)
        price(tenths)
        freeze
      end

      # A part without a price makes the total incomplete, never zero.
      def incomplete? = missing.any?

      # @return [Integer] cents
      def total_cents = list.sum(&:cents)

      # The total with other hours and more parts: what an outcome of the job would cost. Of cents alone, without lines:
      # some thousands of outcomes are priced while a soak is chosen.
      # @param tenths [Integer]
      # @param extra_cents [Integer] selling price of the parts it takes, before tax
      # @return [Integer] cents
      def total_with(tenths, extra_cents)
        labor = labor_cents(tenths)
        changing = [labor, extra_cents, supplies_cents(labor)]
        return sums(changing + @staying.cents, OF_HOURS + @staying.classes).total if @discount

        by_class = @staying.by_class.dup
        OF_HOURS.zip(changing) { |name, cents| by_class[name] += cents }
        changing.sum + @staying.total + @tax.added_cents(by_class)
      end

      # Tax contained in prices when the house quotes tax-inclusive; 0 otherwise.
      def included_tax_cents = @tax.included_cents(@sums.by_class)

      # Cents at least a share above the total, rounded half up: below it no customer needs a call.
      # @param margin [Numeric]
      def above(margin) = Money.round(total_cents * (1 + ThreePoints.exact(margin)))

      private

      # What the hours decide of an outcome: labor, parts, supplies.
      def material(needed, by_hand) =
        part_lines(needed.billed) + by_hand.map { |hand| Lines.by_hand(hand) } + consumables(needed.consumables)

      OF_HOURS = %w[labor parts fees].freeze
      private_constant :OF_HOURS

      # Cents and tax classes of lines, and what they come to together.
      class Taxed
        attr_reader :cents, :classes, :by_class, :total

        def self.of(lines) = new(lines.map(&:cents), lines.map { |line| line.tax_class || Tax.class_of(line.kind) })

        def initialize(cents, classes)
          @cents = cents
          @classes = classes
          @total = cents.sum
          @by_class = Hash.new(0)
          classes.zip(cents) { |name, each| @by_class[name] += each }
          freeze
        end
      end
      private_constant :Taxed

      # before_tax: cents, off: the discount in cents, by_class: cents after it, tax: what is added.
      Sums = Struct.new(:before_tax, :off, :by_class, :tax) { def total = before_tax - off + tax }
      private_constant :Sums

      def price(tenths)
        before_tax = (@billed ? [labor(tenths)] : []) + @sold + @material + supplies(labor_cents(tenths)) + @fees
        @sums = Taxed.of(before_tax).then { |lines| sums(lines.cents, lines.classes) }
        @list = @owed + before_tax + @credited + discount_line + tax_lines
      end

      # @param gross [Array<Integer>] cents of each line before tax
      # @param classes [Array<String>] tax class of each
      # @return [Sums]
      def sums(gross, classes)
        off = @discount ? Discount.amount(@discount["cents"].to_i, gross) : 0
        by_class = Hash.new(0)
        classes.zip(Discount.net(off, gross)) { |name, cents| by_class[name] += cents }
        Sums.new(gross.sum, off, by_class, @tax.added_cents(by_class))
      end

      def owed_line(target) =
        Line.new(
          "warranty",
          target.label,
          1,
          0,
          0,
          nil,
          [target.id],
          "We fitted it, and it is still under our warranty."
        )

      def labor(tenths) = Line.new("labor", "Labor", tenths / 10.0, @house["rate_cents"], labor_cents(tenths))

      def labor_cents(tenths) = Money.round(Rational(tenths * @house["rate_cents"], 10))

      def part_lines(rows)
        needs =
          rows.group_by(&:part).transform_values { |same| Need.new(same.sum(&:quantity), same.flat_map(&:because)) }
        kits = @singles ? {} : Parts::KitsOrSingles.new(@catalog, needs.transform_values(&:quantity)).counts
        lines = kits.flat_map { |part, count| kit_lines(part, count, use_kit(part, count, needs)) }
        lines +
          needs.filter_map { |part, need| part_line(part, need.quantity, need.because.uniq) if need.quantity.positive? }
      end

      def part_line(part, quantity, because)
        unit = selling_price(part)
        if unit.nil?
          @missing << { "part" => part, "because" => because }
          return nil
        end
        basis =
          (
            if unit == @catalog.list_cents(part)
              "The selling price the price list sets."
            else
              "Standing cost with the house markup."
            end
          )
        Line.new("part", label(part), quantity, unit, unit * quantity, part, because, basis)
      end

      def selling_price(part) =
        if @singles
          Selling.used_price(@catalog, part, @house["markup"])
        else
          Selling.price(@catalog, part, @house["markup"])
        end

      def label(part) = @catalog.description(part).then { |text| text.empty? ? part : text }

      # A kit as the house sells it: whole, or as its used parts, which share its price.
      # @param used [Array<Used>]
      def kit_lines(part, count, used)
        whole = part_line(part, count, used.flat_map(&:because).uniq)
        return [whole] if @house["kit_rule"] == "whole" || used.empty?

        shares = Money.spread(whole.cents, weights(used))
        used
          .zip(shares)
          .map do |one, cents|
            Line.new(
              "part",
              label(one.part),
              one.quantity,
              Money.round(Rational(cents, one.quantity)),
              cents,
              one.part,
              one.because.uniq,
              "Its share of #{label(part)}, which is bought for it."
            )
          end
      end

      # In proportion to standing costs where all of them are known, else by pieces.
      def weights(used)
        costs = used.map { |one| @catalog.cost(one.part) }
        known = costs.all? && costs.sum.positive?
        used.zip(costs).map { |one, cost| known ? one.quantity * cost : one.quantity }
      end

      # A part of a kit the job uses, how many of it, and for what.
      Used = Struct.new(:part, :quantity, :because)

      # What is still to be bought of a part, and for what; kits take from it.
      Need = Struct.new(:quantity, :because)

      # Takes a kit's contents off the needs; what is not needed stays in stock.
      # @return [Array<Used>]
      def use_kit(part, count, needs)
        @catalog.item(part)["contains"].filter_map do |content|
          need = needs[content["part"]]
          have = content["quantity"].to_i * count
          used = [need ? need.quantity : 0, have].min
          need.quantity -= used if need
          @leftovers << { "part" => content["part"], "quantity" => have - used } if have > used
          Used.new(content["part"], used, need.because) if used.positive?
        end
      end

      def consumables(rows)
        free = @house["consumables"] == "in-supplies"
        rows.map do |row|
          next Line.new("consumable", row.label, row.quantity, 0, 0, nil, nil, "In the shop supplies.") if free

          Line.new(
            "consumable",
            row.label,
            row.quantity,
            row.unit_cents,
            Money.round(ThreePoints.exact(row.quantity) * row.unit_cents)
          )
        end
      end

      def supplies(labor_cents)
        cents = supplies_cents(labor_cents)
        cents.positive? ? [Line.new("supplies", "Shop supplies", 1, cents, cents, nil, nil, supplies_basis)] : []
      end

      # A share of the labor line as it was rounded, before discount, up to the house cap.
      def supplies_cents(labor_cents) = [Money.round(labor_cents * @supplies_share), @house["supplies_cap_cents"]].min

      def supplies_basis = "#{@house["supplies_percent"]} % of labor, up to the house cap."

      # Finding out; where the house credits it, with what takes it off again: the two come to nothing.
      def diagnosis_lines(diagnosis)
        return [] unless diagnosis

        line = Line.new("diagnosis", "Diagnosis, at most", diagnosis.hours, diagnosis.rate_cents, diagnosis.cents)
        return [line] unless diagnosis.credited?

        [line, Line.new("diagnosis", "Diagnosis, credited with the repair", 1, -diagnosis.cents, -diagnosis.cents)]
      end

      def fees =
        (@billed ? @house["fees"] : []).map { |fee| Line.new("fee", fee["label"], 1, fee["cents"], fee["cents"]) }

      def discount_line
        off = @sums.off
        off.positive? ? [Line.new("discount", @discount["label"] || "Discount", 1, -off, -off)] : []
      end

      def tax_lines
        @tax
          .added(@sums.by_class)
          .map do |tax|
            Line.new(
              "tax",
              tax.label,
              1,
              tax.cents,
              tax.cents,
              nil,
              nil,
              "#{tax.percent} % of #{tax.on.join(", ")} after discount."
            )
          end
      end
    end
  end
end
