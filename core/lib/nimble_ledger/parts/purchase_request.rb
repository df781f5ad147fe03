# frozen_string_literal: true

module NimbleLedger
  module Parts
    # A purchase request (formats.md): what jobs wait for, answered with the exact order, what is short and from when,
    # what stays over, and what waiting would save.
    class PurchaseRequest
      FORMAT = "nimble-ledger.purchase-request"
      MOST_SUPPLIERS = 12
      MOST_OFFERS = 400

      instant = Shape.string(max: 16, pattern: WallClock::INSTANT)
      part = Shape.string(max: 60)
      SHAPE =
        Shape.object(
          required: {
            "format" => Shape.const(FORMAT),
            "version" => Shape.const(1),
            "now" => instant,
            "catalog" => Shape.either(Shape.open_object, Shape.string(max: 1000), say: "a path or an inline object"),
            "needs" =>
              Shape.list(
                Shape.object(
                  required: {
                    "part" => part,
                    "quantity" => Shape.integer(min: 1, max: 1000),
                    "by" => instant
                  },
                  optional: {
                    "for" => Shape.string(max: 200)
                  }
                ),
                max: 200
              )
          },
          optional: {
            "coming" =>
              Shape.list(
                Shape.object(
                  required: {
                    "part" => part,
                    "quantity" => Shape.integer(min: 1, max: 1000),
                    "counts_from" => instant
                  }
                ),
                max: 2_000
              ),
            "closed" => Shape.list(Shape.string(max: 10, pattern: WallClock::DATE), max: 400),
            "sure" => Shape.number(max: 1),
            "also_by" => Shape.list(instant, max: 6)
          }
        )

      # @param hash [Hash] parsed JSON
      # @param documents [Documents] where the catalog comes from
      # @raise [InvalidInput] with the path of every fault
      def self.build(hash, documents:, **)
        SHAPE.check!(hash, what: "request", code: "invalid_request")
        new(hash, documents.catalog(hash["catalog"], "/catalog"))
      end

      # @param catalog [Catalog]
      def initialize(hash, catalog)
        @hash = hash
        @catalog = catalog
        refuse_days
        @clock = WallClock.new(hash["now"])
        refuse_suppliers
        refuse_kits
        @runs = SupplierRuns.new(@clock, catalog.source["suppliers"] || {}, hash["closed"], hash.fetch("sure", 0.9))
        @needs = needs
        @offers = offers
        @drives = @offers.group_by(&:supplier).to_h { |name, own| [name, @runs.of(name, own.map(&:lead).uniq)] }
        refuse_many
        freeze
      end

      # @return [Hash] see formats.md
      # @raise [IntegerProgram::Missing] where there is no solver
      def answer(**)
        waiting = waiting(@needs)
        purchase = purchase(waiting)
        orders = orders(purchase)
        charges = orders.sum { |order| order["charge_cents"] }
        goods = orders.sum { |order| order["goods_cents"] }
        answer = {
          "format" => "nimble-ledger.purchase",
          "version" => 1,
          "orders" => orders,
          "goods_cents" => goods,
          "charges_cents" => charges,
          "core_cents" => orders.sum { |order| order["core_cents"] },
          "total_cents" => goods + charges,
          "suppliers" => orders.map { |order| order["supplier"] }.uniq.size,
          "runs" => orders.size,
          "short" => short(waiting, purchase),
          "left_over" => left_over(waiting, purchase),
          "waiting" => (@hash["also_by"] || []).map { |text| waited(text) },
          "proven" => purchase.proven?
        }
        answer["gap_cents"] = purchase.gap unless purchase.proven?
        answer
      end

      private

      def waiting(needs) = WaitingParts.new(needs, @catalog, coming)

      def purchase(waiting, goals: 5) = Purchase.new(waiting, @offers, matter, goals: goals)

      # Days that can matter, by supplier.
      def matter
        leads = @offers.group_by(&:supplier).transform_values { |own| own.map(&:lead).uniq }
        @drives.to_h { |name, drives| [name, SupplierRuns.that_matter(drives, leads.fetch(name))] }
      end

      def needs
        @hash["needs"].each_with_index.map do |row, i|
          by = [@clock.minutes(row["by"]), 0].max
          WaitingParts::Need.new(row["part"], row["quantity"].to_i, by, row["for"], i)
        end
      end

      def coming
        (@hash["coming"] || []).map do |row|
          WaitingParts::Coming.new(row["part"], row["quantity"].to_i, @clock.minutes(row["counts_from"]))
        end
      end

      # Offers of items that are or hold a needed part.
      def offers
        opened = WaitingParts.new(@needs, @catalog, [])
        wanted = opened.parts
        (@catalog.source["offers"] || []).each_with_index.filter_map do |row, i|
          pack = (@catalog.item(row["part"]) || {})["pack"]&.to_i || 1
          holds = opened.contents(row["part"], pack).to_h
          offer(row, i, pack, holds) if (holds.keys & wanted).any?
        end
      end

      def offer(row, place, pack, holds)
        Purchase::Offer.new(
          place: place,
          supplier: row["supplier"],
          item: row["part"],
          cost: row["cost_cents"].to_i,
          packs: row["on_hand"] && (row["on_hand"].to_i / pack),
          pack: pack,
          lead: row["lead_days"]&.ceil,
          holds: holds
        )
      end

      def orders(purchase)
        charges = purchase.charges
        purchase
          .lines
          .group_by(&:run)
          .sort_by { |run, _lines| [run.ordered, run.supplier, run.id.to_s, run.lead || 0] }
          .map { |run, lines| order(run, lines.sort_by { |line| line.offer.place }, charges.fetch(run)) }
      end

      def order(run, lines, charge)
        {
          "supplier" => run.supplier,
          "run" => run.id,
          "ordered" => @clock.text(run.ordered),
          "arrives" => @clock.text(run.arrives),
          "counts_from" => @clock.text(run.counts_from),
          "goods_cents" => lines.sum(&:cents),
          "charge_cents" => charge,
          "core_cents" => lines.sum { |line| core(line) },
          "lines" => lines.map { |line| { "part" => line.offer.item, "pieces" => line.pieces, "cents" => line.cents } }
        }
      end

      def core(line) = line.pieces * (@catalog.item(line.offer.item) || {})["core_cents"].to_i

      # Pieces of each part that the order brings, and from when they count.
      def bought(purchase)
        stock = Hash.new { |all, part| all[part] = [] }
        purchase.lines.each do |line|
          line.offer.holds.each do |part, held|
            stock[part] << WaitingParts::Stock.new(line.run.counts_from, held * line.packs)
          end
        end
        stock
      end

      def short(waiting, purchase)
        stock = bought(purchase)
        rows = waiting.parts.flat_map { |part| waiting.serve(part, stock[part]).short.to_a }
        rows
          .group_by { |need, _left| [need.by, need.part] }
          .sort_by { |(by, part), _same| [by, part] }
          .map do |(by, part), same|
            from = from(part, by, purchase)
            {
              "part" => part,
              "quantity" => same.sum { |_need, left| left },
              "by" => @clock.text(by),
              "for" => same.sort_by { |need, _left| need.place }.filter_map { |need, _left| need.for }.uniq,
              "from" => from && @clock.text(from)
            }
          end
      end

      # The first that it could be there after all: on a run that takes an offer of it of which a pack is left, and
      # whose minimum can be reached with what is left then.
      def from(part, by, purchase)
        left = left_of(purchase)
        goods = purchase.lines.group_by(&:run).transform_values { |lines| lines.sum(&:cents) }
        later(part, by, left).select { |run| reaches?(run, left, goods.fetch(run, 0)) }.map(&:counts_from).min
      end

      # Packs of each offer that this order leaves; nil: no limit is known.
      def left_of(purchase)
        ordered = purchase.lines.group_by(&:offer).transform_values { |lines| lines.sum(&:packs) }
        @offers.to_h { |offer| [offer, offer.packs && (offer.packs - ordered.fetch(offer, 0))] }
      end

      # Drives after an instant that could still bring a part.
      def later(part, by, left)
        @offers
          .select { |offer| offer.holds.key?(part) && left[offer] != 0 }
          .flat_map { |offer| @drives.fetch(offer.supplier).select { |run| run.takes?(offer.lead) } }
          .select { |run| run.counts_from && run.counts_from > by }
      end

      def reaches?(run, left, goods)
        return true if goods >= run.minimum

        own = @offers.select { |offer| offer.supplier == run.supplier && run.takes?(offer.lead) && left[offer] != 0 }
        return true if own.any? { |offer| left[offer].nil? && offer.cost.positive? }

        goods + own.sum { |offer| left[offer].to_i * offer.pack * offer.cost } >= run.minimum
      end

      def left_over(waiting, purchase)
        bought(purchase)
          .map { |part, stock| [part, stock.sum(&:quantity) - waiting.serve(part, stock).taken] }
          .select { |_part, count| count.positive? }
          .sort
          .map { |part, count| { "part" => part, "quantity" => count } }
      end

      def waited(text)
        moved = WaitingParts.moved(@needs, @clock.minutes(text))
        found = purchase(waiting(moved), goals: 2)
        { "by" => text, "total_cents" => found.cents, "short" => found.short }
      end

      # ---- what cannot be

      def fault(path, message) = raise(InvalidInput.at(path, message))

      def refuse_days
        day = ->(text, path) { WallClock.date(text) || fault(path, "is a day that is not in the calendar") }
        day.call(@hash["now"], "/now")
        @hash["needs"].each_with_index { |row, i| day.call(row["by"], "/needs/#{i}/by") }
        (@hash["coming"] || []).each_with_index { |row, i| day.call(row["counts_from"], "/coming/#{i}/counts_from") }
        (@hash["closed"] || []).each_with_index { |text, i| day.call(text, "/closed/#{i}") }
        clock = WallClock.new(@hash["now"])
        (@hash["also_by"] || []).each_with_index do |text, i|
          day.call(text, "/also_by/#{i}")
          fault("/also_by/#{i}", "lies before now") if clock.minutes(text).negative?
        end
      end

      def refuse_suppliers
        (@catalog.source["suppliers"] || {}).each do |name, known|
          path = "/catalog/suppliers/#{Shape.key(name)}"
          (known["closed"] || []).each_with_index do |text, i|
            WallClock.date(text) || fault("#{path}/closed/#{i}", "is a day that is not in the calendar")
          end
          seen = []
          (known["runs"] || []).each_with_index do |run, i|
            fault("#{path}/runs/#{i}/id", "repeats #{run["id"]}") if seen.include?(run["id"])
            seen << run["id"]
            refuse_backward(run, "#{path}/runs/#{i}/arrives")
          end
        end
      end

      def refuse_backward(run, path)
        took = (run["days"] * WallClock::MINUTES_A_DAY) + WallClock.of_day(run["arrives"])
        fault(path, "is not after it is ordered") if took <= WallClock.of_day(run["order_by"])
      end

      def refuse_kits
        (@catalog.source["items"] || []).each_with_index do |item, i|
          (item["contains"] || []).each_with_index do |held, j|
            next unless (@catalog.item(held["part"]) || {})["contains"]

            fault("/catalog/items/#{i}/contains/#{j}/part", "is a kit: a kit holds no kits")
          end
        end
      end

      def refuse_many
        suppliers = @offers.map(&:supplier).uniq.size
        if suppliers > MOST_SUPPLIERS
          fault(
            "/catalog/offers",
            "names #{suppliers} suppliers of needed parts; at most #{MOST_SUPPLIERS} are weighed"
          )
        end
        return if @offers.size <= MOST_OFFERS

        fault("/catalog/offers", "has #{@offers.size} offers of needed parts; at most #{MOST_OFFERS} are weighed")
      end
    end
  end
end
