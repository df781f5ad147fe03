# frozen_string_literal: true

module NimbleLedger
  module Risk
    # What the plugs of one car share and their history does not say (model.md section 5, "Rules 3: one frailty"): a
    # factor f on every plug's break hazard, gamma with mean 1 and the house's variance θ before the job, and what came
    # out of the head has taught of it during it. Given f plugs are independent and one of hazard a breaks with
    # 1 − e^(−f·a), so that each keeps its own chance while breaks come together.
    #
    #   frailty = Frailty.new(0.8)
    #   a = frailty.hazard(0.07)
    #   frailty.none(8 * a)  #=> 0.613…, the chance that none of eight such plugs breaks; 0.559… were they independent
    #
    # Chances are sums of positive terms over nodes, the trapezoid rule in ln f, to 1e-10: signed sums of the closed
    # form lose every digit once several unlikely plugs broke.
    class Frailty
      STEP = 0.25 # in ln f, at most
      STEPS_A_SPREAD = 1.45 # steps within one standard deviation of the narrowest integrand
      CUT = 32.0 # nodes below e^−32 of the highest are left out
      NOTHING = 1e-14 # a hazard so small breaks nothing

      attr_reader :variance

      # @param variance [Numeric] θ; 0: plugs know nothing of one another
      # @param whole [Array<Float>] hazards of plugs that came out whole
      # @param broken [Array<Float>] hazards of plugs that broke
      # @param left [Array<Float>] hazards of plugs still in the head, whose chances will be asked for
      def initialize(variance, whole: [], broken: [], left: [])
        @variance = variance.to_f
        @whole = whole.select(&:finite?).sum(0.0)
        @broken = broken.select { |hazard| hazard.finite? && hazard.positive? }
        @left = left.select(&:finite?)
        @kept = {} # nodes, when they are first summed over: a hazard needs none
        @joints = {}
        freeze
      end

      # Without what came out: as before the job.
      def independent? = @variance.zero?

      # The break hazard of a plug with a chance of its own, before the job: 1 − E[e^(−f·a)] = b.
      # @param chance [Float] b
      # @return [Float] infinite for a chance of 1
      def hazard(chance)
        return Float::INFINITY if chance >= 1
        return -NearZero.log1p(-chance) if independent?

        NearZero.expm1(-@variance * NearZero.log1p(-chance)) / @variance
      end

      # @param hazard [Float] sum of the hazards of some plugs
      # @return [Float] chance that none of them breaks
      def none(hazard)
        return 0.0 if hazard.infinite?

        sum = 0.0
        weights = self.weights
        factors.each_with_index { |factor, i| sum += weights[i] * Math.exp(-factor * hazard) }
        sum
      end

      # @return [Float] chance that a plug of this hazard breaks
      def breaks(hazard)
        return 1.0 if hazard.infinite?

        sum = 0.0
        weights = self.weights
        factors.each_with_index { |factor, i| sum -= weights[i] * NearZero.expm1(-factor * hazard) }
        sum
      end

      # @param whole [Float] sum of the hazards of plugs that stay whole
      # @param broken [Array<Float>] hazards of plugs that break
      # @return [Float] chance of just that
      def exactly(whole, broken)
        sum = 0.0
        weights = self.weights
        factors.each_with_index do |factor, i|
          chance = weights[i] * Math.exp(-factor * whole)
          broken.each { |hazard| chance *= -NearZero.expm1(-factor * hazard) }
          sum += chance
        end
        sum
      end

      # Lot of plugs alike: hazard of each, how many.
      Lot = Struct.new(:hazard, :count)

      # @param lots [Array<Lot>]
      # @return [Array<Float>] [k] = chance that exactly k of all of them break
      def counts(lots)
        alike = lots.group_by(&:hazard).map { |hazard, same| Lot.new(hazard, same.sum(&:count)) }
        total = Array.new(alike.sum(&:count) + 1, 0.0)
        each_node(alike) do |weight, ways|
          whole = ways.reduce { |all, one| convolved(all, one) } || [1.0]
          whole.each_with_index { |chance, k| total[k] += weight * chance }
        end
        total
      end

      # @param lots [Array<Lot>]
      # @return [Hash{Array<Integer>=>Float}] how many of each lot break, and the chance of just that
      def joint(lots) = @joints[lots] ||= worked_out(lots).freeze

      private

      def factors = summed_over.first
      def weights = summed_over.last
      def summed_over = @kept[:nodes] ||= independent? ? [[1.0], [1.0]] : nodes

      # Of plugs alike every choice of so many is as likely as another: lots of one hazard are worked out as one, and
      # what breaks of them is dealt out after (measured: a fortieth of the time, eight plugs in five lots).
      def worked_out(lots)
        places = lots.each_index.group_by { |i| lots[i].hazard }
        whole = places.map { |hazard, among| Lot.new(hazard, among.sum { |i| lots[i].count }) }
        chances = of_different(whole)
        keys_of(lots).to_h do |key|
          sums = places.values.map { |among| among.sum { |i| key[i] } }
          dealt = places.values.zip(whole, sums).reduce(1.0) { |all, deal| all * share_of(lots, key, *deal) }
          [key, chances.fetch(sums) * dealt]
        end
      end

      # How many breaks of some lots fall as a key says, of all ways they could.
      def share_of(lots, key, among, whole, broken) =
        among.reduce(1.0) { |ways, i| ways * choose(lots[i].count, key[i]) } / choose(whole.count, broken)

      def choose(count, of) = (1..of).reduce(1) { |all, i| all * (count - i + 1) / i }

      def keys_of(lots) =
        lots.map { |lot| (0..lot.count).to_a }.then { |first, *rest| first ? first.product(*rest) : [[]] }

      # The same for lots of a hazard each.
      def of_different(lots)
        keys = keys_of(lots)
        sums = Array.new(keys.size, 0.0)
        each_node(lots) do |weight, ways|
          chances = ways.reduce([weight]) { |all, one| all.flat_map { |chance| one.map { |way| chance * way } } }
          chances.each_with_index { |chance, i| sums[i] += chance }
        end
        keys.zip(sums).to_h
      end

      def each_node(lots)
        factors.each_with_index do |factor, i|
          yield weights[i], lots.map { |lot| binomial(lot.count, factor * lot.hazard) }
        end
      end

      # @return [Array<Float>] [k] = chance that k of so many break at this hazard
      def binomial(count, hazard)
        return Array.new(count + 1) { |k| k == count ? 1.0 : 0.0 } if hazard.infinite?

        chance = -NearZero.expm1(-hazard)
        stays = Math.exp(-hazard)
        ways = [stays**count]
        return one_by_one(count, chance, stays) if ways.first < 1e-250

        ratio = chance / stays
        (1..count).each { |k| ways << (ways.last * ratio * (count - k + 1) / k) }
        ways
      end

      def one_by_one(count, chance, stays) = count.times.reduce([1.0]) { |all, _plug| convolved(all, [stays, chance]) }

      def convolved(all, one)
        sums = Array.new(all.size + one.size - 1, 0.0)
        all.each_with_index { |a, i| one.each_with_index { |b, j| sums[i + j] += a * b } }
        sums
      end

      # The factors the rule asks about, and the weight of each; a weight at 0 stands for all that lies further left,
      # where the integrand is a geometric series.
      # @return [Array(Array<Float>, Array<Float>)]
      def nodes
        step = [STEP, 1 / (STEPS_A_SPREAD * Math.sqrt((1 / @variance) + @broken.size + @left.size))].min
        logs = { 0 => height(0.0) }
        top = walk(logs, 1, step, logs[0])
        top = walk(logs, -1, step, top)
        kept = logs.select { |_place, log| log >= top - CUT }
        factors = kept.keys.map { |place| Math.exp(place * step) }
        weights = kept.values.map { |log| Math.exp(log - top) }
        beyond(kept, step, top, factors, weights)
        whole = weights.sum
        [factors, weights.map { |weight| weight / whole }]
      end

      # Goes on until what comes adds nothing.
      def walk(logs, direction, step, top)
        place = 0
        loop do
          place += direction
          log = height(place * step)
          logs[place] = log
          top = log if log > top
          return top if log < top - CUT || (direction.negative? && nothing_breaks?(place * step))
        end
      end

      def nothing_breaks?(log_factor) =
        @broken.empty? && Math.exp(log_factor) * (@whole + @left.sum + (1 / @variance)) < NOTHING

      # Log of the density of ln f, up to a constant, with what came out.
      def height(log_factor)
        factor = Math.exp(log_factor)
        log = ((log_factor - factor) / @variance) - (factor * @whole)
        @broken.each { |hazard| log += Math.log(-NearZero.expm1(-factor * hazard)) }
        log
      end

      def beyond(kept, step, top, factors, weights)
        last = kept.keys.min
        return unless @broken.empty? && nothing_breaks?(last * step)

        ratio = Math.exp(-step / @variance)
        factors << 0.0
        weights << (Math.exp(kept[last] - top) * ratio / (1 - ratio))
      end
    end
  end
end
