# frozen_string_literal: true

module NimbleLedger
  module Risk
    # One job's troubles, priced: the outcome space, the time with troubles in it, and the allowance (model.md section
    # 5).
    class Trouble
      attr_reader :answer, :outcomes

      # @param answer [Job] of a car with history and catalog
      def initialize(answer)
        @answer = answer
        @house = answer.car.house
        @outcomes = answer.outcomes
      end

      # Everything that may happen.
      # @return [OutcomeSpace]
      def space = @space ||= everything(billed_only: false)

      # The same as far as it is billed.
      # @return [OutcomeSpace]
      def billed = @billed ||= everything(billed_only: true)

      # Whether the answer knows enough: a history, a construction, a price.
      def self.for(answer) = answer.outcomes && answer.price ? new(answer) : nil

      # What the job costs at least on average: with what its plugs may do, and no mishap. Trouble never makes a job
      # cheaper where the house quotes the upper half of its jobs; elsewhere nothing is known of it beforehand.
      # @return [Float] cents
      def least_expected_cents
        return 0.0 if answer.owed.any? || !plan.job.total.upper?(@house["quantile"])

        allowance.expected_of(billed.of_plugs)
      end

      def plan = answer.plan
      def price = answer.price
      def mixture = @mixture ||= Mixture.new(plan.job.total, space.likely)

      # What troubles would cost the customer: those of the work that is billed.
      # @return [Allowance, Allowance::Owed]
      def allowance = @allowance ||= answer.owed.empty? ? own_allowance : allowance_without_owed

      # Parts of mishaps nobody has a price for: what the troubles come to is incomplete without them, never free.
      # @return [Array<String>]
      def unpriced =
        outcomes.mishaps.flat_map(&:parts).map { |part| part["part"] }.uniq.reject { |part| answer.selling_price(part) }

      # Chance that extraction fails on one or more broken plugs: a call and a separate quote, never a line.
      def extraction_fails
        fails = @house["extraction_fails"]
        outcomes.broken_counts.each_with_index.sum(0.0) { |chance, broken| chance * (1 - ((1 - fails)**broken)) }
      end

      # What to have on the shelf before a break-prone engine is started: [label, quantity].
      def on_the_shelf
        sets = outcomes.broken_counts.size - 1
        likely = (1..sets).find { |k| outcomes.broken_counts.first(k + 1).sum >= 0.99 } || sets
        return [] unless 1 - outcomes.broken_counts.first >= @house["shelf_from_chance"]

        [["Extraction kit", 1], ["Extraction set", likely], ["Thread insert", 1]]
      end

      private

      def allowance_without_owed =
        answer.billed ? Trouble.new(answer.billed).allowance : Allowance::Owed.new(price, house: @house)

      def own_allowance =
        Allowance.new(
          plan,
          billed,
          outcomes.broken_counts,
          price,
          house: @house,
          only_broken: ->(count) { space.only_broken(count) },
          by_tenths: answer.override_tenths,
          multi_piece: outcomes.multi_piece?
        )

      def everything(billed_only:) =
        OutcomeSpace.new(
          @outcomes,
          house: @house,
          mishap_cents: method(:mishap_cents).to_proc,
          billed_only: billed_only
        )

      def mishap_cents(mishap)
        mishap.parts.sum { |part| (answer.selling_price(part["part"]) || 0) * part["quantity"].to_i }
      end
    end
  end
end
