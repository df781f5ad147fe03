# frozen_string_literal: true

module NimbleLedger
  module Risk
    # Everything that may happen on one job, with its chance (model.md section 5, "Job level"): counts of broken plugs,
    # damaged threads, stubborn plugs and mishaps, the time they add, and what of it is billed.
    #
    # Plugs with the same chances and extraction factor are one group, and so are mishaps alike. Up to LIMIT distinct outcomes are enumerated;
    # above that, outcomes with the same counts merge and keep the mean and variance of what they add. Both ways the
    # sums are exact: a state carries its chance and the first two moments of the extra minutes, which add up over
    # independent events.
    class OutcomeSpace
      # chance; counts; minutes and variance added; the same without stubborn plugs (never billed); parts in cents
      Outcome = Struct.new(:chance, :broken, :threads, :stubborn, :mishaps, :mean, :variance, :billed_mean, :billed_variance, :parts_cents) do
        def counts = [broken, threads, stubborn, mishaps]
        def trouble? = counts.any?(&:positive?)
      end

      LIMIT = 2_000
      NEGLIGIBLE = 1e-9
      LEFT_OUT = 1e-5
      CALM = [0, 0, 0, 0, 0].freeze # broken where extraction is easy, broken where it is hard, threads, stubborn, mishaps
      DIGIT = 64 # counts stay below this
      NOTHING = [0, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0].freeze # key, chance, and moments times chance: time, time², billed, billed², cents

      attr_reader :list, :merged

      # @param outcomes [Outcomes]
      # @param mishap_cents [Proc] price of a mishap's parts, in cents
      def initialize(outcomes, house:, mishap_cents: ->(_mishap) { 0 })
        @house = house
        @outcomes = outcomes
        @middle = middle_factor
        factors = plug_groups.map { |(chances, factor), count| repeated(ends_of_one_plug(chances, factor), count) } +
                  mishap_groups(mishap_cents).map { |(chance, minutes, cents), count| repeated(mishap(chance, minutes, cents), count) } +
                  @outcomes.happened.map { |out| [came_of(out)] }
        @merged = factors.reduce(1) { |size, factor| size * factor.size } > LIMIT
        states = factors.reduce([NOTHING]) { |all, factor| merged ? merge(all, factor) : product(all, factor) }
        @list = states.map { |state| outcome(state) }.freeze
        @likely = []
        @only_broken = []
        freeze
      end

      # The likeliest outcomes that together leave out less than one job in a hundred thousand: enough for quantiles and
      # averages, and far fewer.
      def likely
        @likely.first || @likely.push(covering(1 - LEFT_OUT)).first
      end

      # Outcomes in which so many plugs break and nothing else happens.
      # @return [Array<Outcome>]
      def only_broken(count)
        @only_broken.push(list.select { |outcome| outcome.counts.drop(1).none?(&:positive?) }.group_by(&:broken)) if @only_broken.empty?
        @only_broken.first.fetch(count, [])
      end

      # A few outcomes in place of many, for drawing: neighbors by the time they add are one, with its mean and variance.
      # @param outcomes [Array<Outcome>]
      # @return [Array<Outcome>] at most `count`; chances, mean and variance of the whole stay what they were
      def self.pooled(outcomes, count)
        return outcomes if outcomes.size <= count

        low, high = outcomes.map(&:mean).minmax
        outcomes.group_by { |outcome| ((outcome.mean - low) * count / (high - low + 1e-9)).floor }.values.map { |group| pool(group) }
      end

      def self.pool(group)
        chance = group.sum(0.0, &:chance)
        mean = group.sum(0.0) { |outcome| outcome.chance * outcome.mean } / chance
        square = group.sum(0.0) { |outcome| outcome.chance * (outcome.variance + (outcome.mean**2)) } / chance
        Outcome.new(chance, *group.first.counts, mean, square - (mean**2), 0, 0, 0)
      end
      private_class_method :pool

      # @return [Float] chance that nothing fights back
      def no_trouble = list.reject(&:trouble?).sum(0.0, &:chance)

      # @return [Float] minutes, on average
      def expected_minutes = list.sum(0.0) { |outcome| outcome.chance * outcome.mean }

      private

      def covering(share)
        covered = 0.0
        ordered = list.sort_by { |outcome| -outcome.chance }
        count = ordered.index { |outcome| (covered += outcome.chance) >= share } || (ordered.size - 1)
        ordered.first(count + 1)
      end

      # Merged outcomes keep easy and hard extractions apart: front and rear cylinders differ too much to be one figure.
      def middle_factor
        factors = (@outcomes.plug_rows + @outcomes.happened).map { |row| row.target.extraction_factor }
        factors.empty? ? 1 : (factors.min + factors.max) / 2.0
      end

      # Plugs alike in chances and factor, with how many there are.
      def plug_groups
        @outcomes.plug_rows.each_with_object(Hash.new(0)) { |row, groups| groups[[row.chances, row.target.extraction_factor]] += row.count }
      end

      # Mishaps alike in chance, time and parts, with how many there are: six connectors that may each break.
      def mishap_groups(mishap_cents)
        @outcomes.mishaps.each_with_object(Hash.new(0)) { |m, groups| groups[[m.chance, m.minutes, mishap_cents.call(m)]] += 1 }
      end

      def repeated(one, count) = (1..count).reduce([NOTHING]) { |all, _time| merge(all, one) }

      def ends_of_one_plug(chances, factor)
        broken, thread, stubborn = chances.to_a
        sound = (1 - broken) * (1 - thread)
        [ending("broken", broken, factor), ending("thread", (1 - broken) * thread, factor), ending("stubborn", sound * stubborn, factor),
         ending("free", sound * (1 - stubborn), factor)].select { |s| s[1].positive? }
      end

      # One way a plug may come, as a state.
      def ending(outcome, chance, factor)
        case outcome
        when "broken" then state(chance, factor > @middle ? [0, 1, 0, 0, 0] : [1, 0, 0, 0, 0], ThreePoints.from(@house["extraction_minutes"]) * factor, cents: @house["extraction_set_cents"])
        when "thread" then state(chance, [0, 0, 1, 0, 0], ThreePoints.from(@house["insert_minutes"]), cents: @house["insert_cents"])
        when "stubborn" then state(chance, [0, 0, 0, 1, 0], ThreePoints.from(@house["stubborn_minutes"]), billed: false)
        else state(chance, CALM, ThreePoints.exactly(0))
        end
      end

      # A plug that is out, with certainty.
      def came_of(out) = ending(out.outcome, 1.0, out.target.extraction_factor)

      def mishap(chance, minutes, cents)
        [state(chance, [0, 0, 0, 0, 1], minutes, cents: cents), state(1 - chance, CALM, ThreePoints.exactly(0))].select { |s| s[1].positive? }
      end

      def state(chance, counts, points, billed: true, cents: 0)
        time = chance * points.mean
        square = chance * (points.variance + (points.mean**2))
        key = counts.reduce(0) { |k, count| (k * DIGIT) + count }
        [key, chance, time, square, billed ? time : 0.0, billed ? square : 0.0, chance * cents]
      end

      def product(all, factor)
        all.flat_map { |a| factor.filter_map { |b| both(a, b) if a[1] * b[1] >= NEGLIGIBLE } }
      end

      # The product with states of equal counts added together.
      def merge(all, factor)
        sums = {}
        all.each do |a|
          factor.each do |b|
            next if a[1] * b[1] < NEGLIGIBLE

            found = both(a, b)
            known = sums[found[0]]
            known ? (1..6).each { |i| known[i] += found[i] } : sums[found[0]] = found
          end
        end
        sums.values
      end

      # Two independent events together.
      def both(a, b)
        pa = a[1]
        pb = b[1]
        [a[0] + b[0], pa * pb, (a[2] * pb) + (pa * b[2]), (a[3] * pb) + (2 * a[2] * b[2]) + (pa * b[3]),
         (a[4] * pb) + (pa * b[4]), (a[5] * pb) + (2 * a[4] * b[4]) + (pa * b[5]), (a[6] * pb) + (pa * b[6])]
      end

      def outcome(state)
        key, chance, time, square, billed, billed_square, cents = state
        easy, hard, *others = 4.downto(0).map { |i| (key / (DIGIT**i)) % DIGIT }
        counts = [easy + hard, *others]
        mean = time / chance
        billed_mean = billed / chance
        Outcome.new(chance, *counts, mean, [(square / chance) - (mean**2), 0].max, billed_mean, [(billed_square / chance) - (billed_mean**2), 0].max, cents / chance)
      end
    end
  end
end
