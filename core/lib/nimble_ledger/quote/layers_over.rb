# frozen_string_literal: true

module NimbleLedger
  module Quote
    # Which shared layers lie over which cylinders of a job (model.md section 2, "Why"), the heaviest named.
    class LayersOver
      NAMED = 2 # layers worth naming in one breath

      # Shared steps that lie over the work: not the plug's own way out, nor a cap that goes straight back.
      # @param plan [Access::Plan]
      # @return [Array<Profile::Step>]
      def self.layers(plan) = plan.turns.shared_steps.reject { |step| step.takes_out_plug? || step.back == "at-once" }
      GROUPS = 3

      # @return [Array<Profile::Step>] heaviest layers over every cylinder of the job, at most NAMED, in removal order
      # reversed
      attr_reader :common

      # @return [Array<Array(Array<Integer>, Array<Profile::Step>)>] cylinders and the layers that lie over exactly
      # those,
      #   largest groups first, at most GROUPS
      attr_reader :some

      # @return [Array<Integer>] cylinders nothing shared lies over
      attr_reader :open

      # @param plan [Access::Plan]
      # @param cylinders [Array<Integer>] of the job
      def initialize(plan, cylinders)
        @plan = plan
        @layers = LayersOver.layers(plan)
        over = @layers.to_h { |step| [step, plan.needed_by(step).flat_map(&:cylinders).uniq.sort & cylinders] }
        @open = cylinders - over.values.flatten
        everywhere, partly = @layers.partition { |step| over[step] == cylinders }
        @common = heaviest(everywhere)
        groups = partly.group_by { |step| over[step] }.except([])
        @some = largest(groups).map { |numbers, steps| [numbers, heaviest(steps)] }
        @alike = groups.empty?
        freeze
      end

      # Whether every shared layer lies over every cylinder.
      def alike? = @alike

      private

      def largest(groups) = groups.sort_by { |numbers, steps| [-numbers.size, -weight(steps)] }.first(GROUPS)

      # The ones that take longest; what only holds or lifts the car is not in the way.
      def heaviest(steps)
        own = steps.select { |step| step.needs.empty? }
        (own.empty? ? steps : own).max_by(NAMED) { |step| minutes(step) }.sort_by { |step| -@layers.index(step) }
      end

      def weight(steps) = steps.sum { |step| minutes(step) }

      def minutes(step) =
        @plan.job.tasks.select { |task| task.ref == step.id && %w[remove refit].include?(task.kind) }.sum(&:mean)
    end
  end
end
