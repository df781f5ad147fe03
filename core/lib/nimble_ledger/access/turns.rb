# frozen_string_literal: true

module NimbleLedger
  module Access
    # The bottom of the job, cylinder by cylinder (model.md section 2, "Turns").
    class Turns
      Turn = Struct.new(:cylinder, :steps, :targets)

      attr_reader :list, :shared_steps, :shared_targets

      # @param steps [Array<Profile::Step>] removal order
      # @param chains [Hash{Profile::Target=>Array<String>}] step ids each target needs
      # @param job [Time::Job] for the minutes of steps and work
      def initialize(steps, chains, job)
        @steps = steps
        @chains = chains
        @minutes = minutes_by_ref(job)
        local, @shared_steps = steps.partition { |step| local?(step) }
        alone, @shared_targets = chains.keys.partition(&:cylinder)
        numbers = (local.map(&:cylinder) + alone.map(&:cylinder)).uniq
        @list =
          numbers.map do |number|
            Turn.new(
              number,
              local.select { |step| step.cylinder == number },
              alone.select { |target| target.cylinder == number }
            )
          end
        @list.sort_by! { |turn| [minutes(turn).round(9), turn.cylinder] }
        freeze
      end

      private

      # Local: marked with a cylinder, and every target that needs it serves that cylinder alone.
      def local?(step)
        return false unless step.cylinder

        @chains.all? { |target, ids| !ids.include?(step.id) || target.cylinder == step.cylinder }
      end

      def minutes(turn)
        turn.steps.sum(0.0) { |step| @minutes[["step", step.id]] } +
          turn.targets.sum(0.0) { |target| @minutes[["target", target.id]] }
      end

      def minutes_by_ref(job)
        job
          .tasks
          .each_with_object(Hash.new(0.0)) do |task, sums|
            case task.kind
            when "remove", "refit"
              sums[["step", task.ref]] += task.mean
            when "work", "soak"
              sums[["target", task.ref]] += task.mean
            end
          end
      end
    end
  end
end
