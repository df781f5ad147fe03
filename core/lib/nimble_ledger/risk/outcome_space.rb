# frozen_string_literal: true

module NimbleLedger
  module Risk
    # Everything that may happen on one job, with its chance (model.md section 5, "Job level"): counts of broken plugs,
    # damaged threads, stubborn plugs and mishaps, the time they add, and what of it is billed.
    #
    # Plugs with the same chances and extraction factor are one group, and so are mishaps alike. Up to LIMIT distinct
    # outcomes are enumerated; above that, outcomes with the same counts merge and keep the mean and variance of what
    # they add. Both ways the sums are exact: a state carries its chance and the first two moments of the extra minutes,
    # which add up over independent events.
    class OutcomeSpace
      # What happened, or several outcomes as one, with the figures of an OutcomeState: chance; counts; minutes and
      # variance added; the same without stubborn plugs (never billed); parts in cents.
      Outcome =
        Struct.new(
          :chance,
          :broken,
          :threads,
          :stubborn,
          :mishaps,
          :mean,
          :variance,
          :billed_mean,
          :billed_variance,
          :parts_cents
        ) do
          # @return [Array<Integer>] of broken plugs, damaged threads, stubborn plugs and mishaps
          def counts = [broken, threads, stubborn, mishaps]
        end

      LIMIT = 2_000
      NEGLIGIBLE = 1e-9
      LEFT_OUT = 1e-5

      attr_reader :merged

      # @param outcomes [Outcomes]
      # @param mishap_cents [Proc] price of a mishap's parts, in cents
      # @param billed_only [Boolean] whether a stubborn plug counts as one that came free, as it does on the bill: all
      #   that money needs, and far fewer outcomes
      def initialize(outcomes, house:, mishap_cents: ->(_mishap) { 0 }, billed_only: false)
        @house = house
        @billed_only = billed_only
        @outcomes = outcomes
        @middle = middle_factor
        plugs = lots
        @others = mishap_factors(mishap_cents) + @outcomes.happened.map { |out| [came_of(out)] }
        sizes = plugs.map(&:size) + @others.map(&:size)
        @merged = sizes.reduce(1) { |product, size| product * size } > LIMIT
        @of_plugs = (@outcomes.frailty ? sharing(plugs) : together(plugs.map(&:apart))).freeze
      end

      # What the plugs still in the head may come to, whatever else happens: far fewer outcomes.
      # @return [Array<OutcomeState>] all but the least likely
      def of_plugs = covering(@of_plugs)

      # @return [Array<OutcomeState>] all of them
      def list = @list ||= together([@of_plugs, together(@others)]).freeze

      # The likeliest outcomes that together leave out less than one job in a hundred thousand: enough for quantiles and
      # averages, and far fewer.
      def likely = @likely ||= covering(list)

      # Outcomes in which so many plugs break and nothing else happens.
      # @return [Array<OutcomeState>]
      def only_broken(count)
        @only_broken ||= list.select(&:only_broken?).group_by(&:broken)
        @only_broken.fetch(count, [])
      end

      # A few outcomes in place of many, for drawing: neighbors by the time they add are one, with its mean and
      # variance.
      # @param outcomes [Array<OutcomeState>]
      # @return [Array<OutcomeState, Outcome>] at most `count`; chance, mean and variance of the whole stay as they were
      def self.pooled(outcomes, count)
        return outcomes if outcomes.size <= count

        low, high = outcomes.map(&:mean).minmax
        outcomes
          .group_by { |outcome| ((outcome.mean - low) * count / (high - low + 1e-9)).floor }
          .values
          .map { |group| pool(group) }
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
      def expected_minutes = list.sum(0.0, &:time)

      private

      def covering(states)
        covered = 0.0
        ordered = states.sort_by { |state| -state.chance }
        count = ordered.index { |state| (covered += state.chance) >= 1 - LEFT_OUT } || (ordered.size - 1)
        ordered.first(count + 1)
      end

      # Merged outcomes keep easy and hard extractions apart: front and rear cylinders differ too much to be one figure.
      def middle_factor
        factors = (@outcomes.plug_rows + @outcomes.happened).map { |row| row.target.extraction_factor }
        factors.empty? ? 1 : (factors.min + factors.max) / 2.0
      end

      # Plugs alike in chances and factor: hazard of each, how many, the states of one that breaks and of one that does
      # not (given that), and what it may come to altogether.
      Lot =
        Struct.new(:hazard, :count, :broken, :whole, :ends, :merge) do
          # @return [Integer] distinct outcomes
          def size = apart.size

          # What they may come to, each by itself.
          def apart = @apart ||= repeated(ends, count)

          # What they may come to where so many of them break.
          # @return [Array<OutcomeState>] given that
          def with_broken(breaks) =
            (@with_broken ||= {})[breaks] ||= merge.call(repeated(broken, breaks), repeated(whole, count - breaks))

          private

          def repeated(one, times) = times.times.reduce([OutcomeState::START]) { |all, _time| merge.call(all, one) }
        end
      private_constant :Lot

      def lots
        alike = @outcomes.plug_rows.group_by { |row| [row.chances, row.target.extraction_factor] }
        alike.map do |(chances, factor), rows|
          Lot.new(
            rows.first.hazard,
            rows.sum(&:count),
            [ending("broken", 1.0, factor)],
            ends_of_whole_plug(chances, 1.0, factor),
            ends_of_one_plug(chances, factor),
            method(:merge)
          )
        end
      end

      # Lots that break together (Frailty): how many of each break, then what the whole ones come to.
      def sharing(lots)
        shared = @outcomes.frailty.joint(lots.map { |lot| Frailty::Lot.new(lot.hazard, lot.count) })
        ways =
          shared.flat_map do |breaks, chance|
            next [] if chance < NEGLIGIBLE

            given = [OutcomeState.of(chance, OutcomeState::NONE, ThreePoints.exactly(0))]
            lots
              .zip(breaks)
              .reduce(given) do |all, (lot, count)|
                merged ? merge(all, lot.with_broken(count)) : product(all, lot.with_broken(count))
              end
          end
        merged ? merge([OutcomeState::START], ways) : ways
      end

      # Mishaps alike in chance, time and parts: six connectors that may each break.
      def mishap_factors(mishap_cents)
        alike = @outcomes.mishaps.group_by { |m| [m.chance, m.minutes, mishap_cents.call(m)] }
        alike.map { |(chance, minutes, cents), rows| repeated(mishap(chance, minutes, cents), rows.size) }
      end

      def repeated(one, count) = (1..count).reduce([OutcomeState::START]) { |all, _time| merge(all, one) }

      def ends_of_one_plug(chances, factor)
        broken = ending("broken", chances.broken, factor)
        [broken, *ends_of_whole_plug(chances, 1 - chances.broken, factor)].select { |state| state.chance.positive? }
      end

      # How one that does not break may come.
      # @param whole [Float] chance that it does not
      def ends_of_whole_plug(chances, whole, factor)
        sound = whole * (1 - chances.thread)
        stubborn = @billed_only ? 0 : chances.stubborn
        [
          ending("thread", whole * chances.thread, factor),
          ending("stubborn", sound * stubborn, factor),
          ending("free", sound * (1 - stubborn), factor)
        ].select { |state| state.chance.positive? }
      end

      # One way a plug may come, as a state.
      def ending(outcome, chance, factor)
        case outcome
        when "broken"
          minutes = ThreePoints.from(@house["extraction_minutes"]) * factor
          kind = factor > @middle ? OutcomeState::BROKEN_HARD : OutcomeState::BROKEN_EASY
          OutcomeState.of(chance, kind, minutes, cents: @house["extraction_set_cents"])
        when "thread"
          minutes = ThreePoints.from(@house["insert_minutes"])
          OutcomeState.of(chance, OutcomeState::THREAD, minutes, cents: @house["insert_cents"])
        when "stubborn"
          minutes = ThreePoints.from(@house["stubborn_minutes"])
          OutcomeState.of(chance, OutcomeState::STUBBORN, minutes, billed: false)
        else
          OutcomeState.of(chance, OutcomeState::NONE, ThreePoints.exactly(0))
        end
      end

      # A plug that is out, with certainty.
      def came_of(out) = ending(out.outcome, 1.0, out.target.extraction_factor)

      def mishap(chance, minutes, cents)
        [
          OutcomeState.of(chance, OutcomeState::MISHAP, minutes, cents: cents),
          OutcomeState.of(1 - chance, OutcomeState::NONE, ThreePoints.exactly(0))
        ].select { |state| state.chance.positive? }
      end

      # Independent factors as one. Mishaps come to few counts of their own, so that they are put together before they
      # meet the many ways of the plugs.
      def together(factors) =
        factors.reduce([OutcomeState::START]) { |all, one| merged ? merge(all, one) : product(all, one) }

      def product(all, factor)
        all.flat_map { |a| factor.filter_map { |b| a.with(b) if a.chance * b.chance >= NEGLIGIBLE } }
      end

      # The product with states of equal counts added together.
      def merge(all, factor)
        sums = {}
        all.each do |a|
          factor.each do |b|
            next if a.chance * b.chance < NEGLIGIBLE

            both = a.with(b)
            known = sums[both.packed]
            known ? known.add(both) : sums[both.packed] = both
          end
        end
        sums.values
      end
    end
  end
end
