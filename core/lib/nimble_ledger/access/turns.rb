# frozen_string_literal: true

module NimbleLedger
  module Access
    # The bottom of the job, cylinder by cylinder (model.md section 2, "Turns").
    class Turns
      Turn = Struct.new(:cylinder, :steps, :targets)

      attr_reader :list, :shared_steps, :shared_targets

      # @param steps [Array<Profile::Step>] removal order
      # @param chains [Hash{Profile::Target=>Array<String>}] step ids each target needs
      # @param job [Time::JobTime] for the minutes of steps and work
      def initialize(steps, chains, job, before: nil)
        @steps = steps
        @chains = chains
        add_up(job)
        local = locals(before)
        @shared_steps = steps - local
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
      # Steps of one cylinder's turn; under rules 3 only those that no shared step needs off.
      def locals(before)
        local = @steps.select { |step| local?(step) }
        return local unless before

        loop do
          needed = (@steps - local).flat_map { |step| before.fetch(step.id) }
          kept = local.reject { |step| needed.include?(step.id) }
          return local if kept.size == local.size

          local = kept
        end
      end

      def local?(step)
        return false unless step.cylinder

        @chains.all? { |target, ids| !ids.include?(step.id) || target.cylinder == step.cylinder }
      end

      def minutes(turn)
        turn.steps.sum(0.0) { |step| @of_steps[step.id] } + turn.targets.sum(0.0) { |target| @of_targets[target.id] }
      end

      def add_up(job)
        @of_steps = Hash.new(0.0)
        @of_targets = Hash.new(0.0)
        job.tasks.each do |task|
          case task.kind
          when "remove", "refit"
            @of_steps[task.ref] += task.mean
          when "work", "soak"
            @of_targets[task.ref] += task.mean
          end
        end
      end
    end
  end
end
