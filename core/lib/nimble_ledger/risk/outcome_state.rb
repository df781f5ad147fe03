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
        new(kind).one_event(chance, points, chance * cents, billed)
      end

      # @return [Integer] how many of each kind, see DIGIT
      attr_reader :packed

      attr_reader :chance, :time, :square, :billed, :billed_square, :cents

      # @param packed [Integer] without a chance so far
      def initialize(packed)
        @packed = packed
        @chance = @time = @square = @billed = @billed_square = @cents = 0.0
      end

      # @return [OutcomeState] this, come about by one event
      def one_event(chance, points, cents, billed)
        @chance = chance
        @time = chance * points.mean
        @square = chance * (points.variance + (points.mean**2))
        @billed, @billed_square = @time, @square if billed
        @cents = cents
        self
      end

      # This and another, independent of it.
      # @return [OutcomeState]
      def with(other) = OutcomeState.new(@packed + other.packed).add(self, other)

      # Two more independent states that come to the same counts, as one with this; changed here.
      def add(one, other)
        mine = one.chance
        its = other.chance
        @chance += mine * its
        @cents += (one.cents * its) + (mine * other.cents)
        add_minutes(one, other, mine, its)
        add_billed(one, other, mine, its)
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

      # @param kind [Integer] BROKEN_EASY, BROKEN_HARD, THREAD, STUBBORN or MISHAP
      def count(kind) = (@packed / kind) % DIGIT

      def add_minutes(one, other, mine, its)
        @time += (one.time * its) + (mine * other.time)
        @square += (one.square * its) + (2 * one.time * other.time) + (mine * other.square)
      end

      def add_billed(one, other, mine, its)
        @billed += (one.billed * its) + (mine * other.billed)
        @billed_square += (one.billed_square * its) + (2 * one.billed * other.billed) + (mine * other.billed_square)
      end
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
