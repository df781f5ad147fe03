# frozen_string_literal: true

module NimbleLedger
  module Risk
    # What trouble would cost, agreed beforehand (model.md section 5): "1 plug breaks: +h, +$", and the total not to be
    # exceeded without calling. Stubborn plugs are never billed extra.
    class Allowance
      # A job the shop owes altogether: no trouble on it costs the customer anything.
      class Owed
        # @param price [Price::Lines]
        def initialize(price, house:)
          @price = price
          @house = house
          freeze
        end

        def rows = []
        def not_above_cents = @price.above(@house["call_margin"])
        def likely_cents = @price.total_cents
        def expected_cents = @price.total_cents.to_f
        def expected_of(_outcomes) = expected_cents
        def price_of(_outcome) = @price.total_cents
        def extra_tenths(_outcome) = 0
      end

      Row = Struct.new(:broken, :chance, :extra_tenths, :extra_cents, :cure_minutes, :mean_minutes)
      COVER = 0.99

      # @param plan [Access::Plan]
      # @param billed [OutcomeSpace] what may happen, as far as it is billed
      # @param only_broken [Proc] number of broken plugs to the outcomes in which nothing else happens
      # @param broken_counts [Array<Float>] exact
      # @param price [Price::Lines]
      # @param by_tenths [Integer] what the advisor's override adds to every figure of hours
      # @param multi_piece [Boolean] whether a broken plug leaves a shell to be filled and left to cure
      def initialize(plan, billed, broken_counts, price, house:, only_broken:, by_tenths: 0, multi_piece: false)
        @multi_piece = multi_piece
        @plan = plan
        @billed = billed
        @only_broken = only_broken
        @broken_counts = broken_counts
        @price = price
        @house = house
        @by_tenths = by_tenths
        @quoted_hours = Time::QuotedHours.new(house)
        @totals = {}
      end

      # One row for each number of broken plugs, up to the count covering 99 of 100 jobs.
      # @return [Array<Row>] cents and tenths beyond the quote
      def rows
        covered = @broken_counts.first
        (1...@broken_counts.size).each_with_object([]) do |broken, list|
          break list if covered >= COVER && list.any?

          covered += @broken_counts[broken]
          list << row(broken) if @broken_counts[broken].positive?
        end
      end

      # @return [Integer] cents: outcomes ranked by price, the first whose cumulative chance reaches the house share,
      # and
      #   never less than the house margin above the quote
      def not_above_cents
        [ranked_at(@house["call_share"]), @price.above(@house["call_margin"])].max
      end

      # @return [Integer] cents: outcomes ranked by price, the first whose cumulative chance reaches one half
      def likely_cents = ranked_at(0.5)

      # @return [Float] cents: what the job costs on average, troubles included
      def expected_cents = expected_of(@billed.likely)

      # @param outcomes [Array<OutcomeState>] all that may happen
      # @return [Float] cents: what the job costs on average
      def expected_of(outcomes) = outcomes.sum(0.0) { |outcome| outcome.chance * price_of(outcome) }

      # Waiting for adhesive: once when broken plugs are filled together, for each when one at a time.
      def cure_minutes(broken)
        return 0 unless broken.positive? && @multi_piece

        @house["cure_minutes"] * (@plan.order_of_work == "all-out" ? 1 : broken)
      end

      # @return [Integer] tenths of an hour this adds to the billed ones
      def extra_tenths(outcome) = tenths_of(outcome) - billed_tenths(@plan.job.quoted_tenths)

      # @return [Integer] cents of the whole job when this happens
      def price_of(outcome)
        tenths = tenths_of(outcome)
        cents = outcome.parts_cents.round + (outcome.broken.positive? ? @house["extraction_kit_cents"] : 0)
        (@totals[tenths] ||= {})[cents] ||= @price.total_with(tenths, cents)
      end

      private

      # Outcomes ranked by price, the first whose cumulative chance reaches a share.
      # @return [Integer] cents
      def ranked_at(share)
        ranked = @ranked ||= @billed.likely.map { |outcome| [price_of(outcome), outcome.chance] }.sort
        reached = 0.0
        (ranked.find { |_cents, chance| (reached += chance) >= share - 1e-9 } || ranked.last).first
      end

      # Billed hours of the whole job when this happens.
      def tenths_of(outcome) =
        billed_tenths(@quoted_hours.tenths(@plan.job.total.plus(outcome.billed_mean, outcome.billed_variance)))

      def billed_tenths(computed) = [computed + @by_tenths, 0].max

      # Exactly so many break and nothing else happens.
      def row(broken)
        same = @only_broken.call(broken)
        chance = same.sum(0.0, &:chance)
        mean = chance.zero? ? 0.0 : same.sum { |outcome| outcome.chance * outcome.mean } / chance
        likeliest = same.max_by(&:chance)
        cents = likeliest ? price_of(likeliest) - @price.total_cents : 0
        tenths = likeliest ? tenths_of(likeliest) - billed_tenths(@plan.job.quoted_tenths) : 0
        Row.new(broken, @broken_counts[broken], tenths, cents, cure_minutes(broken), mean)
      end
    end
  end
end
