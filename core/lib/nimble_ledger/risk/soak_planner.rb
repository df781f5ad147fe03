# frozen_string_literal: true

module NimbleLedger
  module Risk
    # Compares the soak protocols an engine allows (model.md section 5): expected hands-on minutes, expected cost, the
    # chance of at least one break, when the car is ready. Recommends the least expected cost that meets the promise.
    class SoakPlanner
      # One protocol; each figure is worked out when it is asked for.
      class Row
        attr_reader :protocol, :trouble

        # @param ready [Proc] see SoakPlanner
        def initialize(protocol, trouble, ready)
          @protocol = protocol
          @trouble = trouble
          @when_ready = ready
        end

        # @return [Float] minutes, on average, troubles included
        def hands_on_minutes = trouble.plan.job.total.mean + trouble.outcomes.expected_extra_minutes

        def wait_minutes = trouble.plan.wait_minutes
        def overnight = trouble.plan.overnight?

        # @return [Float] cents, on average, troubles included
        def expected_cents = @expected_cents ||= trouble.allowance.expected_cents

        # Whether it leaves less of every trouble to every plug.
        # @param other [Row] of the same plan
        def milder_than?(other)
          mine, its = [self, other].map { |row| row.trouble.outcomes.plug_rows.map { |plug| plug.chances.to_a } }
          mine.flatten.zip(its.flatten).all? { |less, more| less < more || more.zero? } && mine != its
        end

        # @return [Float] cents, on average, without mishaps
        def least_expected_cents = @least_expected_cents ||= trouble.least_expected_cents

        # @return [Float] of at least one break
        def break_chance = 1 - trouble.outcomes.broken_counts.first

        # @return [Integer] without trouble
        def total_cents = trouble.price.total_cents

        def ready = @ready ||= @when_ready.call(trouble)
      end

      # @param trouble_for [Proc] protocol name to Trouble
      # @param protocols [Array<String>] allowed
      # @param ready [Proc] Trouble to anything comparable that says when the car is ready (minutes, a time)
      def initialize(
        protocols,
        trouble_for,
        ready: ->(trouble) { trouble.plan.wait_minutes + trouble.mixture.quantile(0.8) }
      )
        @rows = protocols.map { |protocol| Row.new(protocol, trouble_for.call(protocol), ready) }
        freeze
      end

      attr_reader :rows

      # @param promised [Comparable, nil] the promise to meet; nil when there is none
      # @return [String] protocol name
      def recommended(promised: nil)
        candidates = least_harmful(promise(promised) == "missed" ? [rows.min_by(&:ready)] : meeting(promised))
        return candidates.first.protocol if candidates.size == 1

        cheapest(candidates.sort_by(&:least_expected_cents))
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

      # A part in a thousand, for what is rounded and left out.
      ROOM = 1.001
      private_constant :ROOM

      # Those that can still cost least: who costs more at least than another costs altogether is not looked into.
      # @param candidates [Array<Row>] by what they cost at least
      def cheapest(candidates)
        least = Float::INFINITY
        candidates.take_while do |row|
          (row.least_expected_cents <= least * ROOM).tap { |near| least = [least, row.expected_cents].min if near }
        end
      end

      # Of soaks that take the same minutes, and so the same price, only the one that leaves the least chance of every
      # trouble can cost least: what the others would cost need not be worked out.
      def least_harmful(rows)
        rows
          .group_by { |row| [row.trouble.plan.job.total.mean, row.protocol == "none"] }
          .flat_map { |_alike, same| same.reject { |row| same.any? { |other| other.milder_than?(row) } } }
      end

      def meeting(promised) = promised ? rows.select { |row| row.ready <= promised } : rows
    end
  end
end
