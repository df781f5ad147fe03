# frozen_string_literal: true

module NimbleLedger
  module Parts
    # An order over all jobs that wait for parts, exactly (model.md section 6, "Purchase"): how many packs of which
    # offer
    # in which run, so that first the fewest pieces are short, then the least is spent, then the fewest suppliers, runs
    # and pieces are needed.
    #
    #   Purchase.new(waiting, offers, runs).lines  #=> [Line, …]
    class Purchase
      # What can be bought: its place in the catalog, supplier, item, cents a piece, packs there are (nil: no limit is
      # known), pieces a pack, lead days, and what a pack holds, by part.
      Offer = Struct.new(:place, :supplier, :item, :cost, :packs, :pack, :lead, :holds, keyword_init: true)

      # Packs of an offer in a run.
      Line =
        Struct.new(:offer, :run, :packs) do
          def pieces = packs * offer.pack
          def cents = pieces * offer.cost
        end

      # short: pieces; cents: goods and charges.
      attr_reader :lines, :short, :cents, :gap

      # @param waiting [WaitingParts]
      # @param offers [Array<Offer>]
      # @param runs [Hash{String=>Array<SupplierRuns::Run>}] by supplier: those that matter
      # @param goals [Integer] how many of the five are sought: two say what waiting would save
      def initialize(waiting, offers, runs, goals: 5)
        @waiting = waiting
        @offers = offers
        @runs = runs.transform_values { |list| list.select(&:counts_from) }
        @program = IntegerProgram.new
        @carried = {}
        build
        @proven = true
        @gap = 0
        solve(goals)
        freeze
      end

      def proven? = @proven

      # What each run that is used charges: nothing from a sum of goods on; a supplier without runs once, on the order
      # that arrives first.
      # @return [Hash{SupplierRuns::Run=>Integer}] cents
      def charges
        goods = lines.group_by(&:run).transform_values { |same| same.sum(&:cents) }
        first = goods.keys.select(&:lead).group_by(&:supplier).transform_values { |runs| runs.min_by(&:arrives) }
        goods.to_h do |run, cents|
          free = run.free_from && cents >= run.free_from
          [run, free || (run.lead && first[run.supplier] != run) ? 0 : run.charge]
        end
      end

      private

      # A run's columns: used; delivered free, where it can be.
      Drive = Struct.new(:used, :free)
      private_constant :Drive

      def build
        @drives = {}
        @offers.each { |offer| carry(offer) }
        @carried.group_by { |(_offer, run), _column| run }.each { |run, carried| drive(run, carried) }
        stocks
        suppliers
        shortness
      end

      # How many packs of an offer can be of use at all: for the needs, and for a threshold.
      def most(offer, run)
        needed = offer.holds.map { |part, held| (wanted(part).to_f / held).ceil }.max
        threshold = [run.minimum, run.free_from || 0].max
        worth = offer.cost * offer.pack
        filling = worth.positive? ? (threshold.to_f / worth).ceil : 0
        [needed + filling, offer.packs].compact.min
      end

      def wanted(part) = @waiting.needs.fetch(part, []).sum(&:quantity)

      def carry(offer)
        @runs
          .fetch(offer.supplier, [])
          .each do |run|
            next unless run.takes?(offer.lead)

            packs = most(offer, run)
            @carried[[offer, run]] = @program.column(0, packs) if packs.positive?
          end
      end

      def drive(run, carried)
        free = run.charge.positive? && run.free_from ? @program.column(0, 1) : nil
        used = @program.column(0, 1)
        @drives[run] = Drive.new(used, free)
        carried.each { |(offer, _run), column| @program.row({ column => 1, used => -most(offer, run) }, nil, 0) }
        # a drive that carries nothing is none
        @program.row({ used => 1 }.merge(carried.to_h { |_key, column| [column, -1] }), nil, 0)
        goods = carried.to_h { |(offer, _run), column| [column, offer.cost * offer.pack] }
        @program.row(goods.merge(used => -run.minimum), 0, nil) if run.minimum.positive?
        return unless free

        @program.row({ free => 1, used => -1 }, nil, 0)
        @program.row(goods.merge(free => -run.free_from), 0, nil)
      end

      def stocks
        @carried
          .group_by { |(offer, _run), _column| offer }
          .each do |offer, carried|
            if offer.packs && carried.size > 1
              @program.row(carried.to_h { |_key, column| [column, 1] }, nil, offer.packs)
            end
          end
      end

      # A supplier without runs charges delivery once, however many days its offers take.
      def suppliers
        @suppliers =
          @drives
            .group_by { |run, _drive| run.supplier }
            .to_h do |name, drives|
              used = @program.column(0, 1)
              drives.each { |_run, drive| @program.row({ drive.used => 1, used => -1 }, nil, 0) }
              [name, used]
            end
      end

      # Needs in the order they are served: what they get together is never more than what is there by then.
      def shortness
        @short_columns = []
        @waiting.needs.each do |part, needs|
          before = {}
          sum = 0
          needs.each do |need|
            sum += need.quantity
            column = @program.column(0, need.quantity)
            @short_columns << column
            before[column] = 1
            bought =
              @carried
                .select { |(offer, run), _column| offer.holds.key?(part) && run.counts_from <= need.by }
                .to_h { |(offer, _run), place| [place, offer.holds.fetch(part)] }
            @program.row(before.merge(bought), sum - @waiting.there(part, need.by), nil)
          end
        end
      end

      def solve(goals)
        last = nil
        all = [short_goal, cents_goal, suppliers_goal, runs_goal, pieces_goal].first(goals)
        all.each_with_index do |goal, i|
          found = @program.least(goal)
          break @proven = false if found.nil?

          last = found
          unless found.proven
            @proven = false
            @gap = [@gap, found.gap].max if i == 1
          end
          @program.keep(goal, found.objective) if i < goals - 1
        end
        read(last)
      end

      def read(solution)
        values = solution ? solution.values : []
        @short = @short_columns.sum { |column| values[column] || 0 }
        @lines =
          @carried.filter_map do |(offer, run), column|
            packs = values[column] || 0
            Line.new(offer, run, packs) if packs.positive?
          end
        @cents = @lines.sum(&:cents) + charges.values.sum
      end

      def short_goal = @short_columns.to_h { |column| [column, 1] }

      def cents_goal
        goal = @carried.to_h { |(offer, _run), column| [column, offer.cost * offer.pack] }
        @drives.each do |run, drive|
          next if run.charge.zero? || run.lead

          goal[drive.used] = run.charge
          goal[drive.free] = -run.charge if drive.free
        end
        @suppliers.each do |name, used|
          charge = @runs.fetch(name).find(&:lead)&.charge
          goal[used] = charge if charge&.positive?
        end
        goal
      end

      def suppliers_goal = @suppliers.values.to_h { |column| [column, 1] }
      def runs_goal = @drives.values.to_h { |drive| [drive.used, 1] }
      def pieces_goal = @carried.to_h { |(offer, _run), column| [column, offer.pack] }
    end
  end
end
