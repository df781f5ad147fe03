# frozen_string_literal: true

module NimbleLedger
  module Scope
    # The set of parts on one car with what is known of it, as every scope is weighed by it: failures, what was found
    # weak or sound, how far the car goes, what a return of each part costs. Prices are worked out once.
    class PartSet
      # Path of each target a return may need, for an error that says where.
      RETURN_PATH = "/estimate/engine/targets"

      attr_reader :parts, :months, :house

      # @param parts [Array<Part>]
      # @param car [Car]
      # @param failures [Failures]
      # @param found [Hash{String=>String}] kind to "weak" or "sound"
      # @param yearly_km [Numeric]
      # @param months [Numeric] the horizon
      # @param soak [String] protocol of the jobs
      # @param effort [Access::NodeBudget]
      def initialize(parts, car, failures:, found:, yearly_km:, months:, soak: "none", effort: Access::NodeBudget.new)
        @parts = parts
        @car = car
        @house = car.house
        @failures = failures
        @found = found
        @yearly_km = yearly_km
        @months = months
        @soak = soak
        @effort = effort
        @frailty = {}
        @jobs = {}
      end

      # @return [Float] km the car goes in so many months
      def km(months) = @yearly_km * months / 12.0

      # @return [ScheduledChanges]
      def visits(plugs, fresh:) = ScheduledChanges.new(plugs, fresh: fresh, yearly_km: @yearly_km, months: months)

      # @return [OldPartsFrailty] of a kind on this car
      def frailty(kind) =
        @frailty[kind] ||= OldPartsFrailty.new(
          @house["frailty_variance"],
          failures: @failures.count(kind),
          hazard: same(kind).sum(0.0) { |part| part.life.hazard(part.age) } + @failures.earlier_hazard(kind, same(kind))
        )

      # @return [Numeric] times the hazard to come
      def weakness(kind) = @found[kind] ? @house["found_factor"].fetch(@found[kind]) : 1

      # @param parts [Array<Part>] one part, or the plugs of a visit
      # @return [Integer, nil] cents of renewing them as one job; of a part with several targets the cheapest
      def price_of(parts)
        prices = jobs_of(parts).map { |job| job.price.total_cents }
        prices.min
      end

      # @return [Array<Job>] the jobs that renew them: one for each target of a part, one for all plugs together
      def jobs_of(parts)
        together =
          parts.size > 1 || parts.first.plug? ? [parts.flat_map(&:targets).uniq] : parts.first.targets.map { |t| [t] }
        together.reject(&:empty?).map { |targets| job(targets) }
      end

      # What of a job has no price, in the words of the format.
      def missing_of(job)
        job.price.missing.map { |row| row["part"] ? { "part" => row["part"] } : { "target" => row["because"].first } }
      end

      private

      def same(kind) = parts.select { |part| part.kind == kind }

      def job(targets)
        @jobs[targets] ||= @car.job(targets, soak: @soak, effort: @effort)
      rescue ImpossiblePlan => e
        path = "#{RETURN_PATH}/#{@car.engine.targets.index(targets.first)}"
        raise ImpossiblePlan.new(
                "#{path}: #{e.message}",
                details: e.details.map { |row| { "path" => path }.merge(row) }
              )
      end
    end
  end
end
