# frozen_string_literal: true

module NimbleLedger
  module Risk
    # Compares the soak protocols an engine allows (model.md section 5): expected hands-on minutes, expected cost, the
    # chance of at least one break, when the car is ready. Recommends the least expected cost that meets the promise.
    class SoakPlanner
      Row =
        Struct.new(
          :protocol,
          :hands_on_minutes,
          :wait_minutes,
          :overnight,
          :expected_cents,
          :break_chance,
          :quoted_tenths,
          :total_cents,
          :ready
        )

      # @param trouble_for [Proc] protocol name to Trouble
      # @param protocols [Array<String>] allowed
      # @param ready [Proc] Trouble to anything comparable that says when the car is ready (minutes, a time)
      def initialize(
        protocols,
        trouble_for,
        ready: ->(trouble) { trouble.plan.wait_minutes + trouble.mixture.quantile(0.8) }
      )
        @rows = protocols.map { |protocol| row(protocol, trouble_for.call(protocol), ready) }
        freeze
      end

      attr_reader :rows

      # @param promised [Comparable, nil] the promise to meet; nil when there is none
      # @return [String] protocol name
      def recommended(promised: nil)
        (promise(promised) == "missed" ? [rows.min_by(&:ready)] : meeting(promised))
          .min_by { |row| [row.expected_cents, rows.index(row)] }
          .protocol
      end

      # @return [String] "none" without a promise, "kept" where a soak meets it, "missed" where none does and the first
      #   to be ready is recommended
      def promise(promised)
        return "none" unless promised

        meeting(promised).empty? ? "missed" : "kept"
      end

      private

      def meeting(promised) = promised ? rows.select { |row| row.ready <= promised } : rows

      def row(protocol, trouble, ready)
        plan = trouble.plan
        Row.new(
          protocol,
          plan.job.total.mean + trouble.space.expected_minutes,
          plan.wait_minutes,
          plan.overnight?,
          trouble.allowance.expected_cents,
          1 - trouble.outcomes.broken_counts.first,
          trouble.answer.quoted_tenths,
          trouble.price.total_cents,
          ready.call(trouble)
        )
      end
    end
  end
end
