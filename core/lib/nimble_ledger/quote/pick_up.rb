# frozen_string_literal: true

module NimbleLedger
  module Quote
    # When the car of a quote is ready (model.md section 5, "Ready time"): cooling, waits and hands-on time at p80, on
    # the shop's wall clock. Two people at once take the clock time of one.
    class PickUp
      AT = 0.8

      # @param drop_off [Slots::ReadyTime::Moment]
      # @param arrival ["cold", "warm", "hot"]
      def initialize(engine, drop_off:, arrival:, house:)
        @slots = Slots::ReadyTime.from(house["opening_hours"])
        @cooling = Time::Cooling.minutes(engine, arrival, house)
        @drop_off = drop_off
        @clock_shares = {}.compare_by_identity
        freeze
      end

      attr_reader :cooling

      # @param plan [Access::Plan]
      # @param extra [Array(Float, Float)] mean and variance of trouble, minutes
      # @param cure [Numeric] waiting minutes it brings
      # @return [Slots::ReadyTime::Moment]
      def ready(plan, extra: [0, 0], cure: 0)
        minutes = @cooling + plan.wait_minutes + cure + (plan.job.total.plus(*extra).quantile(AT) * clock_share(plan))
        @slots.ready(@drop_off, minutes, before_night: plan.overnight? ? before_night(plan) : nil)
      end

      # Of a job under way.
      # @param minutes [Numeric] left on the clock
      # @return [Slots::ReadyTime::Moment]
      def after(minutes) = @slots.ready(@drop_off, minutes)

      private

      def clock_share(plan) = @clock_shares[plan] ||= worked_out(plan)

      def worked_out(plan)
        work = plan.sequence.pieces.reject(&:waiting?)
        labor = work.sum(&:labor_minutes)
        labor.positive? ? work.sum(&:clock_minutes) / labor : 1
      end

      # Everything off and the soak applied.
      def before_night(plan) = @cooling + plan.job.minutes("remove", "soak")
    end
  end
end
