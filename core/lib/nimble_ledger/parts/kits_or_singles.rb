# frozen_string_literal: true

module NimbleLedger
  module Parts
    # Which kits to buy for a need, singles for the rest (model.md section 6, "Purchase"): the least cost that covers
    # the need, exactly. Parts nobody sells singly weigh more than any cost, so that a kit that holds them is taken.
    class KitsOrSingles
      # @param catalog [Catalog]
      # @param needs [Hash{String=>Integer}] part to quantity
      def initialize(catalog, needs)
        @catalog = catalog
        @needs = needs.select { |_part, quantity| quantity.positive? }
        @kits = catalog.kits_with(@needs.keys)
        @contents =
          @kits.map do |kit|
            kit["contains"].each_with_object(Hash.new(0)) { |held, sums| sums[held["part"]] += held["quantity"].to_i }
          end
        @best = nil
        try(0, @needs, 0, []) unless @kits.empty?
        freeze
      end

      # @return [Hash{String=>Integer}] kits to buy, with how many of each; fewest of the earlier ones among equals
      def counts =
        @best ? @kits.map { |kit| kit["part"] }.zip(@best[:counts]).to_h.select { |_part, count| count.positive? } : {}

      private

      # Every useful number of each kit in turn; a branch ends where what is spent is no better than the best.
      def try(index, left, spent, counts)
        return if @best && ([0, spent] <=> @best[:cost]) == 1 && @best[:cost][0].zero?
        return keep(left, spent, counts) if index == @kits.size

        most = @contents[index].map { |part, held| (left.fetch(part, 0).to_r / held).ceil }.max
        (0..[most, 0].max).each do |count|
          try(
            index + 1,
            without(left, @contents[index], count),
            spent + (count * @catalog.cost(@kits[index]["part"])),
            counts + [count]
          )
        end
      end

      def keep(left, spent, counts)
        lost = left.sum { |part, quantity| @catalog.priced?(part) ? 0 : quantity }
        cost = [lost, spent + left.sum { |part, quantity| (@catalog.cost(part) || 0) * quantity }]
        @best = { cost: cost, counts: counts } if @best.nil? ||
          ([cost, counts] <=> [@best[:cost], @best[:counts]]) == -1
      end

      def without(left, contents, count)
        return left if count.zero?

        left.to_h { |part, quantity| [part, [quantity - (count * contents.fetch(part, 0)), 0].max] }
      end
    end
  end
end
