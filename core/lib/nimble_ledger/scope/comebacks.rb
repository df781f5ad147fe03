# frozen_string_literal: true

module NimbleLedger
  module Scope
    # What the months to come bring when a scope is done and the rest stays old (model.md section 8): chance of no
    # comeback, returns, their price, scheduled changes, plug life used, the net of it all.
    class Comebacks
      # A part's chance of failing within the horizon, over all the lives it has in it.
      Fate = Struct.new(:part, :fails)

      # @param id [String] of the scope
      # @param job [Job] the scope, at its price now
      # @param set [PartSet] the car's parts and what is known of them
      def initialize(id, job, set)
        @id = id
        @job = job
        @set = set
        @new, @old = set.parts.partition { |part| part.new_in?(job.targets) }
        @old_visits = set.visits(@old.select(&:plug?), fresh: false)
        @new_visits = set.visits(@new.select(&:plug?), fresh: true)
        @fates = (@old.map { |part| old_fate(part) } + @new.map { |part| new_fate(part) }).freeze
        @missing = missing_prices.uniq.freeze
        freeze
      end

      attr_reader :id, :job, :missing

      def complete? = missing.empty?
      def now_cents = job.price.total_cents

      # @return [Float] chance that nothing comes back unplanned, a defective new part included
      def no_comeback = old_none * fresh_none * ((1 - @set.house["new_defect"])**@new.size)

      # @return [Float] returns to be expected, defects apart
      def returns = @fates.sum(0.0, &:fails)

      # @return [Float] cents of a return, the customer's own cost apart; 0 where none is to be expected
      def return_cents = returns.zero? ? 0.0 : returned_cents / returns

      # @return [Float] cents
      def own_cents = returns * @set.house["return_own_cents"]

      # @return [Array<Float>] months from now, of all visits
      def visits = (@old_visits.list + @new_visits.list).sort

      # @return [Integer] cents of all scheduled changes
      def scheduled_cents =
        groups.sum { |plugs, visits| visits.list.size * (plugs.empty? ? 0 : @set.price_of(plugs) || 0) }

      # @return [Integer] cents
      def total_cents = Money.round(now_cents + returned_cents + own_cents + scheduled_cents)

      # @return [Integer] cents: what of the plugs' life is used up at the end
      def life_used_cents =
        Money.round(
          groups.sum(0.0) { |plugs, visits| plugs.empty? ? 0.0 : (1 - visits.left_share) * (@set.price_of(plugs) || 0) }
        )

      def net_cents = total_cents + life_used_cents

      # @return [Hash] see formats.md, scopes
      def to_h
        about = {
          "id" => id,
          "now_cents" => now_cents,
          "quoted_hours" => job.quoted_tenths / 10.0,
          "no_comeback" => no_comeback,
          "returns" => returns,
          "return_cents" => return_cents,
          "own_cents" => own_cents,
          "scheduled" => scheduled,
          "total_cents" => total_cents,
          "plug_life_used_cents" => life_used_cents,
          "net_cents" => net_cents
        }
        complete? ? about : about.merge("incomplete" => true, "missing" => missing)
      end

      private

      def groups = [[@old.select(&:plug?), @old_visits], [@new.select(&:plug?), @new_visits]]
      def scheduled = visits.empty? ? nil : { "months" => visits.first, "cents" => scheduled_cents }
      def returned_cents =
        @fates.sum(0.0) { |fate| fate.fails.zero? ? 0.0 : fate.fails * (@set.price_of([fate.part]) || 0) }

      # Hazard an old part takes on until it is changed, or until the end.
      def ageing(part)
        until_months = part.plug? ? [@old_visits.list.first || @set.months, @set.months].min : @set.months
        @set.weakness(part.kind) * part.life.between(part.age, part.age + @set.km(until_months))
      end

      def old_fate(part)
        fails = @set.frailty(part.kind).fails(ageing(part))
        part.plug? ? Fate.new(part, fails + fresh_fails(part, @old_visits.list)) : Fate.new(part, fails)
      end

      def new_fate(part)
        return Fate.new(part, fresh_fails(part, [0.0, *@new_visits.list])) if part.plug?

        Fate.new(part, 1 - Math.exp(-part.life.hazard(@set.km(@set.months))))
      end

      # Chances of each new life a plug begins at one of the visits, added.
      def fresh_fails(part, begun) =
        lives(begun).sum(0.0) { |months| 1 - Math.exp(-part.fresh_life.hazard(@set.km(months))) }

      # How long each of them lasts, months.
      def lives(begun) = [*begun, @set.months].each_cons(2).map { |from, to| to - from }

      def old_none
        @old
          .group_by(&:kind)
          .reduce(1.0) { |none, (kind, parts)| none * @set.frailty(kind).none(parts.sum(0.0) { |p| ageing(p) }) }
      end

      # Nothing new fails: parts renewed now, and plugs renewed at a visit.
      def fresh_none
        others = @new.reject(&:plug?).sum(0.0) { |part| part.life.hazard(@set.km(@set.months)) }
        now = @new.select(&:plug?).sum(0.0) { |part| fresh_hazard(part, [0.0, *@new_visits.list]) }
        later = @old.select(&:plug?).sum(0.0) { |part| fresh_hazard(part, @old_visits.list) }
        Math.exp(-(others + now + later))
      end

      def fresh_hazard(part, begun) = lives(begun).sum(0.0) { |months| part.fresh_life.hazard(@set.km(months)) }

      def missing_prices
        jobs = [@job] + @fates.reject { |fate| fate.fails.zero? }.flat_map { |fate| @set.jobs_of([fate.part]) }
        groups.each { |plugs, _visits| jobs += @set.jobs_of(plugs) if plugs.any? }
        jobs.flat_map { |job| @set.missing_of(job) } + unreachable
      end

      # Parts that may fail and that no target renews.
      def unreachable =
        @fates.reject { |fate| fate.fails.zero? || fate.part.targets.any? }.map { |fate| { "part" => fate.part.kind } }
    end
  end
end
