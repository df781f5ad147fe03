# frozen_string_literal: true

module NimbleLedger
  module Day
    # How a job that is under way goes: what its finished pieces took tells of the rest (model.md section 11, "Pace").
    #
    #   pace = Pace.new(0.12, done: Pace::Done.new(60.0, 40.0, 75.0), left: Pace::Left.new(90.0, 120.0))
    #   pace.factor        #=> 1.1376…
    #   pace.mean_minutes  #=> 102.39…
    class Pace
      # A piece that is half done counts as done for at most so much of itself.
      MOST_SPENT = 0.9

      # Pieces that are done: their estimated mean and Σ sd², and what they took, minutes, trouble apart.
      Done = Struct.new(:mean, :variance, :took)
      # Pieces that are left: their estimated mean and Σ sd².
      Left = Struct.new(:mean, :variance)
      # The piece in hand: its estimated mean, and minutes spent on it.
      InHand = Struct.new(:mean, :spent)

      # e^(μ+σ²/2): how much longer than estimated this job takes; mean_minutes and variance of the rest.
      attr_reader :factor, :mean_minutes, :variance

      # @param common_variation [Float] c in force
      # @param done [Done, nil]
      # @param left [Left]
      # @param in_hand [InHand, nil] part of left
      # @param correction [Float] m′/m where the shop has learned (section 12)
      def initialize(common_variation, done:, left:, in_hand: nil, correction: 1.0)
        kappa = Math.log(1 + (common_variation**2))
        log_mean, log_variance = done ? own(kappa, done, correction) : [-kappa / 2, kappa]
        @factor = Math.exp(log_mean + (log_variance / 2))
        mean = left.mean * correction
        whole = mean * @factor
        spread = log_of_variation(left.variance * (correction**2), mean) + log_variance
        @variance = whole * whole * (Math.exp(spread) - 1)
        @mean_minutes = whole - spent(in_hand, correction)
        freeze
      end

      private

      def log_of_variation(variance, mean) = Math.log(1 + (variance / (mean * mean)))

      # @return [Array(Float, Float)] log mean and log variance of this job's own factor
      def own(kappa, done, correction)
        mean = done.mean * correction
        noise = log_of_variation(done.variance * (correction**2), mean)
        weight = kappa.zero? ? 0.0 : kappa / (kappa + noise)
        y = Math.log(done.took / mean)
        [(weight * (y + (noise / 2))) - ((1 - weight) * kappa / 2), (1 - weight) * kappa]
      end

      def spent(in_hand, correction)
        return 0.0 unless in_hand

        [in_hand.spent, MOST_SPENT * in_hand.mean * correction * factor].min
      end
    end
  end
end
