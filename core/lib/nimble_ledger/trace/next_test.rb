# frozen_string_literal: true

module NimbleLedger
  module Trace
    # Tests worth doing next, by bits for each minute lost (model.md section 9, "Next test").
    class NextTest
      LEAST_SHARE = 0.05
      SHARED = %w[look-coil swap-coil check-wiring].freeze
      # bits: what the test tells on average; cost: minutes; partner: of a swap.
      Row =
        Struct.new(:test, :cylinder, :partner, :bits, :cost) do
          def bits_per_minute = bits / cost.lost

          # @return [Hash] see formats.md, trace
          def to_h
            {
              "test" => test,
              "cylinder" => cylinder,
              "with" => partner,
              "bits" => bits,
              "minutes" => cost.minutes,
              "lost_minutes" => cost.lost,
              "bits_per_minute" => bits_per_minute
            }.compact
          end
        end

      # @param car [Car]
      # @param belief [Posterior]
      # @param reach [TestCost]
      # @param tables [Tables]
      def initialize(car, belief, reach, tables)
        @car = car
        @engine = car.engine
        @belief = belief
        @held = belief.held
        @done = belief.evidence.list
        @reach = reach
        @tables = tables
        @needed = needed
        @shares = shares_now
        @entropy = entropy(@held.map(&:chance))
        freeze
      end

      # Chance that the fault sits at a cylinder, elsewhere apart.
      # @return [Hash{Integer=>Float}]
      attr_reader :shares

      # @return [Array<Row>] the best first
      def list
        suspects = shares.select { |_number, share| share >= LEAST_SHARE }.keys
        order = @tables.tests.each_with_index.to_h
        rows = order.keys.flat_map { |test| suspects.filter_map { |number| row(test, number) } }
        rows.sort_by { |one| [-one.bits_per_minute, order[one.test], one.cylinder] }
      end

      # @param test [String]
      # @param cylinders [Array<Integer>] tested, and of a swap the partner
      # @return [TestCost::Cost, nil]
      def cost(test, cylinders) = @reach.cost(test, cylinders, @needed)

      # How likely each outcome of a test is, by what is believed now.
      # @param row [Row]
      # @return [Array<Float>] in the order of its outcomes
      def chances(row)
        rows = rows_of(row.test, row.cylinder)
        @tables.test(row.test)["outcomes"].each_index.map do |i|
          @held.each_with_index.sum(0.0) { |one, h| one.chance * rows[h][i] }
        end
      end

      private

      def shares_now
        @engine
          .cylinders
          .map(&:number)
          .sort
          .to_h do |number|
            [number, @held.sum(0.0) { |one| one.hypothesis.elsewhere? || !one.now.include?(number) ? 0.0 : one.chance }]
          end
      end

      def row(test, number)
        return nil unless possible?(test) && !told?(test, number)
        return swap(test, number) if SwappedParts::SWAPS.key?(test)

        cost = cost(test, [number])
        cost && Row.new(test, number, nil, bits(test, number), cost)
      end

      def possible?(test)
        return false unless (@tables.test(test)["needs"].to_a - @car.equipment).empty?
        return @engine.injection != "carburetor" if test == "balance-injector"

        !Evidence::COIL_SWAPS.include?(test) || (@engine.ignition != "rail" && @engine.coils.size > 1)
      end

      # Whether it was done there, on the coil it shares, or on all it would touch.
      def told?(test, number)
        same = @done.select { |one| one.test == test }
        return true if same.any? { |one| one.cylinder == number || shared?(test, one.cylinder, number) }

        kinds = Evidence::LOOKS[test] or return false
        touched = parts(@belief.places, number, kinds)
        seen = same.flat_map { |one| parts(one.before, one.cylinder, kinds) }
        touched.any? && (touched - seen).empty?
      end

      def shared?(test, one, other)
        return false unless SHARED.include?(test)
        return false if test == "check-wiring" && @engine.ignition == "rail"

        record = @belief.places.record(one)
        !record.nil? && record.cylinders.include?(other)
      end

      def parts(places, number, kinds) = places.at(number, kinds, @held.map(&:hypothesis))

      # With the cylinder it costs least: one that is not suspected itself.
      def swap(test, number)
        least = nil
        partners(test, number).each do |partner|
          cost = cost(test, [number, partner]) or next
          least = [partner, cost] if least.nil? || cost.minutes < least.last.minutes - 1e-9
        end
        least && Row.new(test, number, least.first, bits(test, number), least.last)
      end

      def partners(test, number)
        shares.select { |other, share| other != number && share < LEAST_SHARE && free?(test, number, other) }.keys
      end

      # Not the set, or for coils the two records, of a swap that was done.
      def free?(test, number, other)
        same = @done.select { |one| one.test == test }
        return same.none? { |one| one.set == [number, other].sort } unless Evidence::COIL_SWAPS.include?(test)

        pair = records(number, other)
        pair.all? && pair.uniq.size == 2 && same.none? { |one| records(*one.set).sort == pair.sort }
      end

      def records(*numbers) = numbers.map { |number| @belief.places.record(number)&.id }

      # Entropy now less entropy after, on average.
      def bits(test, number)
        rows = rows_of(test, number)
        after =
          @tables.test(test)["outcomes"]
            .each_index
            .sum(0.0) do |i|
              weights = @held.each_with_index.map { |one, h| one.chance * rows[h][i] }
              whole = weights.sum
              whole.zero? ? 0.0 : whole * entropy(weights.map { |weight| weight / whole })
            end
        [@entropy - after, 0.0].max
      end

      # What each hypothesis says of the outcomes of a test.
      def rows_of(test, number) =
        @held.map { |one| Evidence.row(@tables, test, one.hypothesis, one.now.include?(number)) }

      def entropy(chances) = -chances.sum(0.0) { |chance| chance.positive? ? chance * Math.log2(chance) : 0.0 }

      # Chance that the repair needs a step off, by the least plan of what repairs each suspect.
      def needed
        repairs = Repairs.new(@engine, @belief.places)
        @held.each_with_object(Hash.new(0.0)) do |one, sums|
          target = repairs.target(one.hypothesis) or next
          (@reach.plan([target])&.steps || []).each { |step| sums[step.id] += one.chance }
        end
      end
    end
  end
end
