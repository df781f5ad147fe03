# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # How much the plugs of one car share that their history does not say, learned from jobs on which several came out
    # (model.md section 12, "Frailty"): the variance of section 5's factor under which what broke together is likeliest,
    # held near the house's own by a bell in its logarithm.
    #
    #   frailty = FrailtyVariance.new(jobs, outcomes, house)
    #   frailty.variance  #=> 0.8 where no job tells
    class FrailtyVariance
      LEAST = 0.05
      MOST = 5.0
      SPREAD = 0.5 # of ln θ
      PLACES = 24 # looked at before the best is narrowed down
      PRECISE = 1e-6

      # One car's plugs: hazards follow from their chances; those of plugs that stayed whole, and of those that broke.
      Car = Struct.new(:whole, :broken)

      # @return [Integer] how many jobs it rests on
      attr_reader :jobs

      # @param jobs [Array<Job>]
      # @param outcomes [Outcomes] what was learned of the same jobs' plugs
      # @param house [House::Settings]
      def initialize(jobs, outcomes, house)
        @prior = [house["live_variance"].to_f, LEAST].max
        cars = jobs.filter_map { |job| car(job, outcomes) }
        @jobs = cars.size
        @cars = cars.tally
        @plugs = cars.map { |one| one.whole.size + one.broken.size }.max || 0
        freeze
      end

      # @return [Float]
      def variance = @cars.empty? ? @prior : Math.exp(narrowed)

      def to_h = { "variance" => variance, "jobs" => jobs }

      private

      def car(job, outcomes)
        chances = job.plugs.map { |plug| [outcomes.learned(plug), plug.outcome] }
        chances.select! { |chance, _outcome| chance.positive? && chance < 1 }
        return nil if chances.size < 2

        broken, whole = chances.partition { |_chance, outcome| outcome == "broken" }
        Car.new(whole.map(&:first).sort, broken.map(&:first).sort)
      end

      # The logarithm of the best, between the neighbors of the best of some places.
      def narrowed
        low = Math.log(LEAST)
        step = (Math.log(MOST) - low) / PLACES
        values = (0..PLACES).map { |i| likelihood(low + (i * step)) }
        best = values.index(values.max)
        golden(low + ([best - 1, 0].max * step), low + ([best + 1, PLACES].min * step))
      end

      GOLDEN = (Math.sqrt(5) - 1) / 2

      # A place and how likely what was seen is there.
      Place = Struct.new(:at, :value)

      def place(at) = Place.new(at, likelihood(at))

      def golden(low, high)
        near = place(high - (GOLDEN * (high - low)))
        far = place(low + (GOLDEN * (high - low)))
        while high - low > PRECISE
          if near.value >= far.value
            high = far.at
            far = near
            near = place(high - (GOLDEN * (high - low)))
          else
            low = near.at
            near = far
            far = place(low + (GOLDEN * (high - low)))
          end
        end
        (low + high) / 2
      end

      def likelihood(log_variance)
        theta = Math.exp(log_variance)
        shared = Risk::Frailty.new(theta, left: Array.new(@plugs, 1.0))
        told = @cars.sum(0.0) { |one, count| count * Math.log(chance(shared, theta, one)) }
        told - (((log_variance - Math.log(@prior))**2) / (2 * (SPREAD**2)))
      end

      # That just those broke which did.
      def chance(shared, theta, car)
        whole = car.whole.sum(0.0) { |one| shared.hazard(one) }
        broken = car.broken.map { |one| shared.hazard(one) }
        return none(theta, whole) if broken.empty?
        return none(theta, whole) * -Risk::NearZero.expm1(ratio(theta, whole, broken.first)) if broken.one?

        shared.exactly(whole, broken)
      end

      def none(theta, hazard) = Math.exp(-Risk::NearZero.log1p(theta * hazard) / theta)

      # Log of the chance that one more holds, given that the others do.
      def ratio(theta, whole, hazard) = -Risk::NearZero.log1p(theta * hazard / (1 + (theta * whole))) / theta
    end
  end
end
