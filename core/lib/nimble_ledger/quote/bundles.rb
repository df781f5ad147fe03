# frozen_string_literal: true

module NimbleLedger
  module Quote
    # "While it's open", as at most three bundles, each priced as one joint plan against doing it another day
    # (model.md section 2).
    class Bundles
      # Where more cylinders lie. bank: its name, nil where the engine has one row; same: the bank of the work chosen;
      # open: whether everything over them is off already.
      Opening = Struct.new(:bank, :same, :open)

      # opening: an Opening, or nil for other work under the same one
      Bundle =
        Struct.new(:label, :opening, :targets, :now, :joint, :alone) do
          def added_tenths = joint.quoted_tenths - now.quoted_tenths
          def alone_tenths = alone.quoted_tenths
          def added_cents = joint.price && (joint.price.total_cents - now.price.total_cents)
          def alone_cents = alone.price&.total_cents
        end

      MOST = 3
      SEALS = %w[tube-seal cover-gasket].freeze
      NEVER_EXTRA = "look"
      WORTH_SAYING = 1 / 3r

      # @param answer [Job] the job as chosen
      # @param reach [Picture::Reach] for what lies over the other cylinders
      def initialize(answer, reach, works)
        @answer = answer
        @reach = reach
        @works = works
        @engine = answer.car.engine
        @chosen = answer.targets
      end

      # @return [Array<Bundle>]
      def list
        groups = other_cylinders.group_by { |number| [bank(number), under_this_opening?(number)] }
        (
          groups.map { |(bank, open), numbers| bundle(numbers, opening(bank, open)) }.compact.first(MOST - 1) + [extras]
        ).compact
      end

      private

      def other_cylinders
        @engine
          .cylinders
          .map(&:number)
          .select { |n| (targets_on([n]) - @chosen).any? && @reach.plans[n] }
          .sort_by { |n| [under_this_opening?(n) ? 0 : 1, chosen_banks.include?(bank(n)) ? 0 : 1, n] }
      end

      def bank(number) = @engine.cylinders.find { |cylinder| cylinder.number == number }.bank

      def chosen_banks = @chosen.flat_map(&:cylinders).map { |number| bank(number) }.uniq

      # Whether everything over a cylinder is off already.
      def under_this_opening?(number)
        shared = @reach.plans[number].steps.reject { |step| step.cylinder == number }
        (shared - @answer.plan.steps).empty?
      end

      def opening(bank, open) = Opening.new(bank, chosen_banks.include?(bank), open)

      def targets_on(numbers) = @engine.targets.select { |t| @works.include?(t.work) && (t.cylinders & numbers).any? }

      def bundle(numbers, opening)
        targets = targets_on(numbers) - @chosen
        return nil if targets.empty?

        priced(
          Words.work_on(@works & targets.map(&:work), targets.flat_map(&:cylinders).uniq.sort & numbers),
          opening,
          targets
        )
      end

      # Other work the opening makes cheap: seals first, then by saving share; the same kind on all cylinders it is open
      # for.
      def extras
        rows = @answer.while_open.select { |row| worth_saying?(row) }
        best = rows.find { |row| SEALS.include?(row.target.work) } || rows.first or return nil
        targets = alike(rows, best).map(&:target)
        label = targets.size == 1 ? best.target.label : Words.work_on([best.target.work], cylinders_of(targets))
        priced(label, nil, targets)
      end

      def worth_saying?(row)
        work = row.target.work
        row.share >= WORTH_SAYING && !@works.include?(work) && work != NEVER_EXTRA && !row.target.plugs_out? &&
          !beside_the_point?(row.target)
      end

      # The same kind of work wherever the opening makes it about as cheap.
      def alike(rows, best)
        same = rows.select { |row| row.target.work == best.target.work && row.share >= best.share * 0.9 }
        best.target.work == "other" ? [best] : same
      end

      def cylinders_of(targets) = targets.flat_map(&:cylinders).uniq.sort

      # Boots and wires are offered for the cylinders in the job only, and no boot where a new coil brings its own.
      def beside_the_point?(target)
        return false unless %w[boot wire].include?(target.work)
        return true unless (target.cylinders - @chosen.flat_map(&:cylinders)).empty?

        target.work == "boot" &&
          @chosen.any? { |chosen| chosen.work == "coil" && (chosen.cylinders & target.cylinders).any? }
      end

      def priced(label, opening, targets)
        joint = @answer.with_targets(@engine.targets & (@chosen + targets))
        alone = @answer.another_day(targets)
        Bundle.new(label, opening, targets, @answer, joint, alone) if joint.plan.proven? && alone.plan.proven?
      rescue ImpossiblePlan
        nil
      end
    end
  end
end
