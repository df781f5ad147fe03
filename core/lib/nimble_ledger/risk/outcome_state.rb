# frozen_string_literal: true

module NimbleLedger
  module Risk
    # What some independent events may have come to, while OutcomeSpace puts them together (model.md section 5, "Job
    # level"): how many of each kind, with what chance, and the extra minutes as moments times chance, which add up over
    # independent events.
    #
    #   free = OutcomeState.of(0.9, OutcomeState::NONE, ThreePoints.exactly(0))
    #   free.with(free).chance #=> 0.81
    OutcomeState =
      Struct.new(:counts, :chance, :time, :square, :billed, :billed_square, :cents) do
        # @param chance [Float] of this one event
        # @param counts [Integer] a packed count, one of the kinds below
        # @param points [ThreePoints] minutes it adds
        # @param billed [Boolean] whether the customer pays for them
        # @param cents [Integer] parts it takes
        def self.of(chance, counts, points, billed: true, cents: 0)
          time = chance * points.mean
          square = chance * (points.variance + (points.mean**2))
          new(counts, chance, time, square, billed ? time : 0.0, billed ? square : 0.0, chance * cents)
        end

        # This and another, independent of it.
        # @return [OutcomeState]
        def with(other)
          mine = chance
          its = other.chance
          self.class.new(
            counts + other.counts,
            mine * its,
            (time * its) + (mine * other.time),
            both_squares(square, time, other.square, other.time, its),
            (billed * its) + (mine * other.billed),
            both_squares(billed_square, billed, other.billed_square, other.billed, its),
            (cents * its) + (mine * other.cents)
          )
        end

        # Another of the same counts, as one with this; changed here.
        def add(other)
          self.chance += other.chance
          self.time += other.time
          self.square += other.square
          self.billed += other.billed
          self.billed_square += other.billed_square
          self.cents += other.cents
          self
        end

        # How many of a kind.
        # @param kind [Integer] BROKEN_EASY, BROKEN_HARD, THREAD, STUBBORN or MISHAP
        def count(kind) = (counts / kind) % OutcomeState::DIGIT

        def mean = time / chance
        def variance = [(square / chance) - (mean**2), 0].max
        def billed_mean = billed / chance
        def billed_variance = [(billed_square / chance) - (billed_mean**2), 0].max

        private

        def both_squares(square, time, its_square, its_time, its_chance) =
          (square * its_chance) + (2 * time * its_time) + (chance * its_square)
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
    OutcomeState::START = OutcomeState.new(0, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0).freeze
  end
end
