# frozen_string_literal: true

module NimbleLedger
  module Scope
    # Scheduled changes of a group of plugs within the horizon (model.md section 8): when each visit falls, and how much
    # of the plugs' life is left at its end. Months are counted from now.
    class ScheduledChanges
      # The last day of the horizon is in it.
      LAST_DAY = 1e-9
      # More visits than a car has ever had.
      MOST = 1_000

      # @param plugs [Array<Plug>]
      # @param fresh [Boolean] whether they are renewed now: new ones have run nothing
      # @param yearly_km [Numeric]
      # @param months [Numeric] the horizon
      def initialize(plugs, fresh:, yearly_km:, months:)
        @plugs = plugs
        @fresh = fresh
        @yearly = yearly_km
        @months = months
        @list = found.freeze
        freeze
      end

      # @return [Array<Float>] months from now
      attr_reader :list

      # @return [Float] share of its interval that the first-due plug has left at the end of the horizon, 0 to 1; of
      #   several that fall due at the same time the one with the least
      def left_share
        due = @plugs.map { |plug| renewed? ? period(plug) : due(plug) }
        first = @plugs.zip(due).select { |_plug, months| months <= due.min + LAST_DAY }.map(&:first)
        since = @months - (list.last || 0)
        first.map { |plug| renewed? ? fresh_left(plug, since) : old_left(plug) }.min.clamp(0.0, 1.0)
      end

      private

      # Whether they are new at the end: put in now, or at a visit.
      def renewed? = @fresh || list.any?

      def found
        return [] if @plugs.empty?

        first = @plugs.map { |plug| @fresh ? period(plug) : due(plug) }.min
        again = @plugs.map { |plug| period(plug) }.min
        return [] if first > @months + LAST_DAY

        count = again.infinite? ? 0 : ((@months + LAST_DAY - first) / again).floor
        refuse if count > MOST
        (0..count).map { |i| first + (i.zero? ? 0 : i * again) }
      end

      def refuse
        raise InvalidInput.new(
                "The plugs would fall due more than #{MOST} times within the months asked for.",
                code: "invalid_request",
                details: [{ "path" => "/yearly_km", "message" => "makes plugs fall due more than #{MOST} times" }]
              )
      end

      # Months until an old plug falls due; never, where neither distance nor months bring it there.
      def due(plug)
        [distance_due(plug.interval_km - plug.age), months_due(plug, plug.run_months)].min.clamp(0.0, Float::INFINITY)
      end

      def period(plug) = [distance_due(plug.fresh_interval_km), months_due(plug, 0)].min

      # A car that stands is due by distance only where that is reached.
      def distance_due(left)
        return left.positive? ? Float::INFINITY : 0.0 if @yearly.zero?

        left.to_f / @yearly * 12
      end

      def months_due(plug, run) = plug.months ? (plug.months - run).to_f : Float::INFINITY

      def fresh_left(plug, since)
        share(plug.fresh_interval_km, @yearly * since / 12.0, plug.months, since)
      end

      def old_left(plug)
        share(plug.interval_km, plug.age + (@yearly * @months / 12.0), plug.months, plug.run_months + @months)
      end

      def share(interval, run_km, months, run_months)
        [1 - (run_km / interval.to_f), months ? 1 - (run_months / months.to_f) : 1.0].min
      end
    end
  end
end
