# frozen_string_literal: true

module NimbleLedger
  module Risk
    # What may happen on one job, all plugs and mishaps together, and what has happened already (model.md section 5,
    # "Job level" and "Live").
    class Outcomes
      # Plugs of a target that are still in the head: how many, the chances of each, the construction of what is fitted
      # (which the chances were worked out for), and under rules 3 the break hazard.
      PlugRow = Struct.new(:target, :chances, :count, :construction, :hazard)

      attr_reader :plug_rows, :mishaps

      # @return [Frailty, nil] what the plugs share; nil where each goes its own way
      attr_reader :frailty

      # @return [Array<LiveOdds::Out>] plugs that are out, with what came of them
      attr_reader :happened

      # @param plan [Access::Plan]
      # @param removal [PlugRemoval] the odds before any plug was turned
      # @param car [Car]
      # @param live [LiveOdds, nil]
      def initialize(plan, removal, car, live: nil)
        @house = car.house
        @removal = removal
        @live = live
        @happened = live ? live.out : []
        @plug_rows = car.rules.one_frailty? ? rows_sharing(plan) : rows_apart(plan)
        @mishaps = Mishaps.of(plan, condition: car.condition, house: @house)
        freeze
      end

      # Chance that nothing on this job fights back; 0 once a plug did.
      def no_trouble
        return 0.0 if happened.any? { |out| out.outcome != "free" }

        plugs = frailty ? all_free_sharing : plug_rows.reduce(1.0) { |p, row| p * (row.chances.no_trouble**row.count) }
        mishaps.reduce(plugs) { |p, mishap| p * (1 - mishap.chance) }
      end

      # Hands-on minutes beyond the quote, on average, what happened included; cure waits are not counted.
      def expected_extra_minutes
        plug_rows.sum(0.0) { |row| row.count * extra_of(row) } + mishaps.sum(0.0) { |m| m.chance * m.minutes.mean } +
          happened.sum(0.0) { |out| minutes_of(out.outcome, out.target).mean }
      end

      # Minutes one plug of a row adds on average.
      # @param row [PlugRow]
      # @return [Float]
      def extra_of(row)
        broken, thread, stubborn = row.chances.to_a
        whole = 1 - broken
        (broken * minutes_of("broken", row.target).mean) + (whole * thread * minutes_of("thread", row.target).mean) +
          (whole * (1 - thread) * stubborn * minutes_of("stubborn", row.target).mean)
      end

      # @return [Array<Float>] [k] = chance that exactly k plugs break, k = 0..plugs in scope
      def broken_counts
        counts = counts_to_come
        happened.each { |out| add_plug(counts, out.outcome == "broken" ? 1.0 : 0.0) }
        counts
      end

      # Minutes a plug takes beyond the plan for what came of it.
      # @param outcome [String] one of LiveOdds::OUTCOMES
      # @return [ThreePoints]
      def minutes_of(outcome, target)
        case outcome
        when "broken"
          ThreePoints.from(@house["extraction_minutes"]) * target.extraction_factor
        when "thread"
          ThreePoints.from(@house["insert_minutes"])
        when "stubborn"
          ThreePoints.from(@house["stubborn_minutes"])
        else
          ThreePoints.exactly(0)
        end
      end

      # Whether a plug of the job leaves a shell to be filled and left to cure when it breaks.
      def multi_piece? =
        (plug_rows.map(&:target) + happened.map(&:target)).any? do |target|
          cylinders(target).any? { |number| @removal.leaves_shell?(number) }
        end

      # @return [Array<Frailty::Lot>] plugs still in the head, one lot a row
      def lots = plug_rows.map { |row| Frailty::Lot.new(row.hazard, row.count) }

      private

      # Each plug still in the head by itself (rules 1 and 2): what was learned of the shared factor moves its odds.
      def rows_apart(plan)
        expected = happened.sum(0.0) { |out| @removal.chances(out.target).broken }
        rows(plan) { |before| @live ? @live.chances(before, shared: @live.shared_factor(expected)) : before }
      end

      # Together (rules 3): a plug's break chance follows from its hazard and the factor as it is known by now.
      def rows_sharing(plan)
        prior = Frailty.new(@house["live_variance"])
        rows = rows(plan) { |before| @live ? @live.chances(before) : before }
        rows.each { |row| row.hazard = prior.hazard(row.chances.broken) }
        @frailty = shared(prior, rows)
        return rows if happened.empty? || @frailty.nil?

        rows.each { |row| row.chances = row.chances.dup.tap { |one| one.broken = @frailty.breaks(row.hazard) } }
      end

      def rows(plan)
        plan
          .targets
          .select(&:plug?)
          .filter_map do |target|
            left = target.plugs - (@live ? @live.count(target) : 0)
            next unless left.positive?

            PlugRow.new(target, yield(@removal.chances(target)), left, @removal.construction_of(target))
          end
      end

      # One plug, with nothing out yet, shares nothing that would show.
      def shared(prior, rows)
        left = rows.flat_map { |row| [row.hazard] * row.count }
        return nil if prior.independent? || (happened.empty? && left.size < 2)

        broken, whole = happened.partition { |out| out.outcome == "broken" }
        hazards = ->(outs) { outs.map { |out| prior.hazard(@removal.chances(out.target).broken) } }
        Frailty.new(@house["live_variance"], whole: hazards.call(whole), broken: hazards.call(broken), left: left)
      end

      def all_free_sharing
        none = frailty.none(plug_rows.sum(0.0) { |row| row.hazard * row.count })
        plug_rows.reduce(none) { |p, row| p * (row.chances.no_trouble_whole**row.count) }
      end

      def counts_to_come
        return frailty.counts(lots) if frailty

        counts = [1.0]
        plug_rows.each { |row| row.count.times { add_plug(counts, row.chances.broken) } }
        counts
      end

      def cylinders(target) = target.cylinders.empty? ? [nil] : target.cylinders

      def add_plug(counts, chance)
        counts.push(0.0)
        (counts.size - 1).downto(0) do |k|
          counts[k] = (counts[k] * (1 - chance)) + (k.positive? ? counts[k - 1] * chance : 0.0)
        end
      end
    end
  end
end
