# frozen_string_literal: true

module NimbleLedger
  module Quote
    # The ways to do the job (model.md section 2, "Alternatives"), as an advisor decides them: by which way to reach a
    # bank, and which of two ways to do the same thing. Each option is priced as a whole job against the one in force.
    class Routes
      # label; in_force; pinned; reason ("pinned", "least-work", "only-one", "") ; row:
      # Access::Alternatives::Row, nil for the one in force; answer: Job of the whole work; pins: what the scope's pins
      # become when pressed.
      Option =
        Struct.new(:label, :in_force, :pinned, :reason, :row, :answer, :pins) do
          def missing = row ? row.missing : []
          def added_minutes = row ? row.added.to_f : 0.0
        end
      # What is decided ("Plugs and coils 1, 3 and 5"), and its options, the one in force first.
      Decision = Struct.new(:label, :options)

      # @param answer [Job] the job as it stands
      def initialize(answer)
        @answer = answer
        @plan = answer.plan
        @engine = @plan.engine
        @pins = answer.car.pins
        @alternatives = Access::Alternatives.new(answer.planner, @plan, effort: answer.effort)
      end

      # @return [Array<Decision>] only those with something to choose
      def decisions = @decisions ||= (way_decisions + choice_decisions).select { |decision| decision.options.size > 1 }

      # Whether anything is pinned, reached by this job or not.
      def pinned? = @pins.any?

      private

      def way_decisions
        groups = @plan.targets.sort_by(&:position).group_by { |target| target.ways.map(&:id) }
        groups.filter_map { |ids, targets| way_decision(ids, targets) if ids.size > 1 }
      end

      def way_decision(ids, targets)
        now = targets.map { |target| @plan.ways[target].id }.uniq
        others = (now.size == 1 ? ids - now : ids).filter_map { |id| way_option(id, targets) }
        pinned = targets.any? { |target| @pins.ways[target.id] }
        pins =
          (
            if pinned
              @pins.without(ways: targets.map(&:id))
            else
              @pins.with(ways: targets.to_h { |target| [target.id, @plan.ways[target].id] })
            end
          )
        Decision.new(
          named(targets),
          [standing(now.map { |id| Words.way(id) }.join(", "), pinned, pins, others)] + others
        )
      end

      def way_option(id, targets)
        row = @alternatives.over(ways: targets.to_h { |target| [target.id, id] }) or return nil
        Option.new(Words.way(id), false, false, "", row, @answer.on(row.car), row.car.pins)
      end

      # Choices with the same members are decided together: one tool for every coil.
      def choice_decisions
        @alternatives
          .choices
          .group_by { |member| [member.choice.members, member.id] }
          .map { |(ids, id), held| choice_decision(ids, id, held) }
      end

      def choice_decision(ids, id, held)
        others = (ids - [id]).filter_map { |other| member_option(other, held) }
        pinned = held.any? { |member| @pins.member(member.choice) }
        pins = pinned ? @pins.without(members: held) : @pins.with(members: held)
        Decision.new(
          "On the way to #{Words.list(held.map { |member| holder_words(member.holder) }.uniq)}",
          [standing(@engine.step(id).label, pinned, pins, others)] + others
        )
      end

      def member_option(id, held)
        row =
          @alternatives.over(
            members: held.map { |member| Access::Alternatives::Member.new(member.holder, member.choice, id) }
          ) or return nil
        Option.new(@engine.step(id).label, false, false, "", row, @answer.on(row.car), row.car.pins)
      end

      def standing(label, pinned, pins, others)
        Option.new(label, true, pinned, reason(pinned, others), nil, @answer, pins)
      end

      def reason(pinned, others)
        return "pinned" if pinned

        others.any? && others.all? { |option| option.missing.any? } ? "only-one" : "least-work"
      end

      def named(targets) = Words.work_on(targets.map(&:work).uniq, targets.flat_map(&:cylinders).uniq.sort)

      def holder_words(holder) = holder.is_a?(Profile::Step) ? Words.layer(holder) : holder.label.downcase
    end
  end
end
