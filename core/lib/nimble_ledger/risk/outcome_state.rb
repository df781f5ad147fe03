# frozen_string_literal: true

module NimbleLedger
  module Risk
    # What some independent events may have come to, while OutcomeSpace puts them together (model.md section 5, "Job
    # level"): how many of each kind, with what chance, and the extra minutes as moments times chance, which add up over
    # independent events.
    #
    #   free = OutcomeState.of(0.9, OutcomeState::NONE, ThreePoints.exactly(0))
    #   free.with(free).chance #=> 0.81
    # A class of its own and not a Struct: a job of eight plugs makes some thousands of these.
    class OutcomeState
      # @param chance [Float] of this one event
      # @param kind [Integer] a packed count, one of the kinds below
      # @param points [ThreePoints] minutes it adds
      # @param billed [Boolean] whether the customer pays for them
      # @param cents [Integer] parts it takes
      # @return [OutcomeState]
      def self.of(chance, kind, points, billed: true, cents: 0)
        time = chance * points.mean
        square = chance * (points.variance + (points.mean**2))
        new(kind, chance, time, square, billed ? time : 0.0, billed ? square : 0.0, chance * cents)
      end

      # @return [Integer] how many of each kind, see DIGIT
      attr_reader :packed

      attr_reader :chance, :time, :square, :billed, :billed_square, :cents

      # Moments are those of the minutes times the chance; cents too.
      # rubocop:disable Metrics/ParameterLists -- made by the thousand: no keywords, no struct
      def initialize(packed, chance, time, square, billed, billed_square, cents)
        @packed = packed
        @chance = chance
        @time = time
        @square = square
        @billed = billed
        @billed_square = billed_square
        @cents = cents
      end
      # rubocop:enable Metrics/ParameterLists

      # This and another, independent of it.
      # @return [OutcomeState]
      def with(other)
        its = other.chance
        OutcomeState.new(
          @packed + other.packed,
          @chance * its,
          sum(@time, its, other.time),
          sum(@square, its, other.square) + (2.0 * @time * other.time),
          sum(@billed, its, other.billed),
          sum(@billed_square, its, other.billed_square) + (2.0 * @billed * other.billed),
          sum(@cents, its, other.cents)
        )
      end

      # One more state that comes to the same counts, as one with this; changed here.
      # @param other [OutcomeState]
      def add(other)
        @chance += other.chance
        @time += other.time
        @square += other.square
        @billed += other.billed
        @billed_square += other.billed_square
        @cents += other.cents
        self
      end

      def broken = count(BROKEN_EASY) + count(BROKEN_HARD)
      def threads = count(THREAD)
      def stubborn = count(STUBBORN)
      def mishaps = count(MISHAP)

      # @return [Array<Integer>] of broken plugs, damaged threads, stubborn plugs and mishaps
      def counts = [broken, threads, stubborn, mishaps]

      def trouble? = @packed != NONE

      # Whether nothing but broken plugs is in it.
      def only_broken? = (@packed % BROKEN_HARD) == 0

      # @return [Float] cents of the parts it takes
      def parts_cents = @cents / @chance

      # @return [Float] minutes it adds, and their variance; the same without stubborn plugs
      def mean = @time / @chance
      def variance = [(@square / @chance) - (mean**2), 0].max
      def billed_mean = @billed / @chance
      def billed_variance = [(@billed_square / @chance) - (billed_mean**2), 0].max

      private

      def sum(mine, its_chance, its) = (mine * its_chance) + (@chance * its)

      # @param kind [Integer] BROKEN_EASY, BROKEN_HARD, THREAD, STUBBORN or MISHAP
      def count(kind) = (@packed / kind) % DIGIT
    end

    # Five counts in one integer, so that equal counts are found by one comparison: a digit of base 64 each (plugs and
    # mishaps of one job stay below that), mishaps lowest.
    OutcomeState::DIGIT = 64
    OutcomeState::NONE = 0
    OutcomeState::MISHAP = 1
    OutcomeState::STUBBORN = OutcomeState::DIGIT
    OutcomeState::THREAD = OutcomeState::DIGIT**2
    OutcomeState::BROKEN_HARD = OutcomeState::DIGIT**3
    OutcomeState::BROKEN_EASY = OutcomeState::DIGIT**4
    # Nothing happened yet.
    OutcomeState::START = OutcomeState.of(1.0, OutcomeState::NONE, ThreePoints.exactly(0)).freeze
  end
end
