# frozen_string_literal: true

module NimbleLedger
  module Trace
    # Guessing beside knowing (model.md section 9, "Advice", in money): to renew what repairs the leading suspect now,
    # or to do the best test first and renew what it then points at. What is renewed for nothing is what does not cure;
    # what knowing is worth is what it saves of that, less what the test costs.
    class PriceOfGuessing
      # What is renewed: its targets, their price as one job (nil where unknown), the chance that they cure.
      Guess = Struct.new(:targets, :cents, :cured) { def wasted = cents * (1 - cured) }

      # @param car [Car] with a catalog
      # @param belief [Posterior]
      # @param candidates [NextTest] the best of them is the test
      # @param after [Proc] what is believed when a test shows an outcome: (row, outcome) → Posterior
      # @param tables [Tables]
      # @param rate_cents [Numeric] of finding out, an hour
      # @param effort [Access::NodeBudget]
      def initialize(car, belief, candidates, after:, tables:, rate_cents:, effort:)
        @car = car
        @belief = belief
        @candidates = candidates
        @test = candidates.list.first
        @after = after
        @tables = tables
        @rate = rate_cents
        @effort = effort
        @prices = {}
      end

      # @return [Hash, nil] "guess", "know" or nil, "worth_cents" or nil; nil where nothing can be renewed or priced
      def to_h
        return nil unless @car.catalog && guess

        { "guess" => said(guess), "know" => know, "worth_cents" => know && (guess.wasted - spent).round }
      end

      private

      def guess = @guess ||= guess_of(@belief)

      def said(one)
        {
          "targets" => one.targets.map(&:id),
          "labels" => one.targets.map(&:label),
          "cents" => one.cents,
          "for_nothing" => 1 - one.cured,
          "wasted_cents" => one.wasted.round
        }
      end

      # The target of the likeliest suspect that has one.
      def guess_of(belief)
        repairs = Repairs.new(@car.engine, belief.places)
        held = belief.held
        target = repairs.likeliest(held) or return nil
        cents = price([target]) or return nil
        Guess.new([target], cents, held.sum(0.0) { |one| repairs.cures?([target], one.hypothesis) ? one.chance : 0.0 })
      end

      def price(targets)
        @prices.fetch(targets) { @prices[targets] = @car.job(targets, effort: @effort).price&.total_cents }
      rescue ImpossiblePlan
        @prices[targets] = nil
      end

      def know
        return nil unless @test && outcomes.all?(&:last)

        {
          "test" => @test.test,
          "cylinder" => @test.cylinder,
          "with" => @test.partner,
          "test_cents" => test_cents.round,
          "cents" => (test_cents + outcomes.sum { |chance, one| chance * one.cents }).round,
          "for_nothing" => outcomes.sum { |chance, one| chance * (1 - one.cured) }
        }
      end

      # What the test costs and what is still renewed for nothing after it.
      def spent = test_cents + outcomes.sum { |chance, one| chance * one.wasted }

      def test_cents = @test.cost.lost * @rate / 60.0

      def chances = @chances ||= @candidates.chances(@test)

      # Each outcome that may be, its chance, and what it points at.
      def outcomes
        @outcomes ||=
          @tables.test(@test.test)["outcomes"]
            .each_index
            .map { |i| [chances[i], i] }
            .select { |chance, _i| chance.positive? }
            .map { |chance, i| [chance, guess_of(@after.call(@test, @tables.test(@test.test)["outcomes"][i]))] }
      end
    end
  end
end
