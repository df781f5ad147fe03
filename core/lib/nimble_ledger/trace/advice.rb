# frozen_string_literal: true

module NimbleLedger
  module Trace
    # What to do now (model.md section 9, "Advice"): repair, repair the suspect though it is not proven, test on, or
    # look elsewhere.
    class Advice
      SURE = 0.9

      # @param car [Car]
      # @param belief [Posterior]
      # @param candidates [NextTest]
      # @param rate_cents [Numeric] of finding out, an hour
      # @param effort [Access::NodeBudget]
      def initialize(car, belief, candidates, rate_cents:, effort:)
        @car = car
        @held = belief.held
        @candidates = candidates
        @rate = rate_cents
        @repairs = Repairs.new(car.engine, belief.places)
        @effort = effort
        freeze
      end

      # @return [String] elsewhere, repair, suspect or test
      def word
        return "elsewhere" if elsewhere > @candidates.shares.values.max
        return "repair" if sure?

        suspect? ? "suspect" : "test"
      end

      # What cures the fault as good as surely; nil where nothing does, or no target would.
      # @return [Profile::Target, nil]
      def sure_target = @car.engine.targets.find { |target| cured([target]) >= SURE }

      # @return [Float] chance that a target cures it
      def cured_by(target) = cured([target])

      private

      def elsewhere = @held.sum(0.0) { |one| one.hypothesis.elsewhere? ? one.chance : 0.0 }

      # What one target cures together, or one suspect that no target repairs.
      def sure?
        untargeted = @held.select { |one| @repairs.target(one.hypothesis).nil? }
        untargeted.any? { |one| one.chance >= SURE } || !sure_target.nil?
      end

      def cured(targets) = @held.sum(0.0) { |one| @repairs.cures?(targets, one.hypothesis) ? one.chance : 0.0 }

      # Whether finding out costs more than renewing what leads and being wrong.
      def suspect?
        best = @candidates.list.first
        return false unless @car.catalog && best

        targets = @repairs.of_cylinder(leading)
        price = price(targets)
        !price.nil? && best.cost.lost * @rate / 60.0 > (1 - cured(targets)) * price
      end

      def leading = @candidates.shares.min_by { |number, share| [-share, number] }.first

      def price(targets)
        targets.empty? ? nil : @car.job(targets, effort: @effort).price.total_cents
      rescue ImpossiblePlan
        nil
      end
    end
  end
end
