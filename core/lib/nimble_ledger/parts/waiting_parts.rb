# frozen_string_literal: true

module NimbleLedger
  module Parts
    # What jobs wait for and what is there for them already: needs by part in the order they are served, the shelf, and
    # what was ordered before (model.md section 6, "Purchase"). Kits count as what they hold. Minutes after now.
    class WaitingParts
      # Ordered before; from: the instant from which it counts.
      Coming = Struct.new(:part, :quantity, :from)

      # One need of one part. by: not before now; for: whom, in words.
      Need = Struct.new(:part, :quantity, :by, :for, :place)

      # Pieces that are there from an instant on.
      Stock = Struct.new(:from, :quantity)

      # What a part's needs do not get, and how many pieces they take of what is bought.
      Served = Struct.new(:short, :taken)

      # @return [Hash{String=>Array<Need>}] by part, in the order they are served
      attr_reader :needs

      # @param needs [Array<Need>]
      # @param catalog [Catalog]
      # @param coming [Array<Array(String, Integer, Numeric)>] part, quantity, counts from
      def initialize(needs, catalog, coming)
        @catalog = catalog
        @needs =
          needs
            .flat_map { |need| contents(need.part, need.quantity).map { |part, count| part_of(need, part, count) } }
            .group_by(&:part)
            .transform_values { |same| same.sort_by { |need| [need.by, need.place] } }
        @stock = Hash.new { |all, part| all[part] = [] }
        fill(coming)
      end

      # The same with every need that is due before an instant moved to it.
      # @return [Array<Need>]
      def self.moved(needs, instant) =
        needs.map { |need| need.by < instant ? need.dup.tap { |one| one.by = instant } : need }

      def parts = needs.keys

      # What one of an item is: itself, or the parts a kit holds.
      # @return [Array<Array(String, Integer)>] part, pieces
      def contents(item, count = 1)
        held = (@catalog.item(item) || {})["contains"] or return [[item, count]]
        held.group_by { |one| one["part"] }.map { |part, same| [part, same.sum { |one| one["quantity"].to_i } * count] }
      end

      # Pieces that are there by an instant, ordered before or on the shelf.
      def there(part, by) = @stock[part].sum { |stock| stock.from <= by ? stock.quantity : 0 }

      # Needs take what is in the house by their instant: the shelf first, then what was ordered before, then what is
      # bought.
      # @param bought [Array<Stock>] pieces of the part that come, by when they count
      # @return [Served] short by need
      def serve(part, bought)
        stock = @stock[part].map(&:dup) + bought.sort_by(&:from).map(&:dup)
        own = @stock[part].size
        taken = 0
        short =
          needs
            .fetch(part, [])
            .to_h do |need|
              left = need.quantity
              stock.each_with_index do |one, i|
                next if one.from > need.by || left.zero?

                took = [left, one.quantity].min
                one.quantity -= took
                left -= took
                taken += took if i >= own
              end
              [need, left]
            end
        Served.new(short.reject { |_need, left| left.zero? }, taken)
      end

      private

      # The shelf first, then what was ordered before, by when it counts.
      def fill(coming)
        (@catalog.source["shelf"] || []).each { |row| add(row["part"], row["quantity"].to_i, -Float::INFINITY) }
        coming.sort_by(&:from).each { |one| add(one.part, one.quantity, one.from) }
      end

      def part_of(need, part, count) = Need.new(part, count, need.by, need.for, need.place)

      def add(item, count, from) = contents(item, count).each { |part, pieces| @stock[part] << Stock.new(from, pieces) }
    end
  end
end
