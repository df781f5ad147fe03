# frozen_string_literal: true

module NimbleLedger
  module Picture
    # The job as time across and depth down: down through the layers, along the bottom cylinder by cylinder, and back up
    # in reverse. Minutes are mean clock minutes, to scale; house and closing tasks lie above the surface (depth 0).
    class Descent
      # kind: house, remove, work, refit, closing, wait. depth: 0 above the surface, 1 the first layer.
      Stroke = Struct.new(:kind, :ref, :label, :start, :minutes, :depth, :cylinder)

      BEFORE = %w[receive cold_check battery].freeze

      attr_reader :strokes, :levels

      # @param plan [Access::Plan]
      def initialize(plan)
        @plan = plan
        @clock = 0.0
        @strokes = []
        @minutes = plan.job.tasks.group_by { |task| [task.kind, task.ref] }
        @depth = depths
        @levels = [@depth.values.max || 0, 0].max + 1
        draw
        freeze
      end

      # @return [Float] clock minutes, waits included
      def length = strokes.map { |stroke| stroke.start + stroke.minutes }.max || 0.0

      # Depth of each step: one more than the deepest layer taken off before it; local steps lie below the shared ones.
      def depth_of(step) = @depth.fetch(step.id)

      private

      def depths
        shared = @plan.turns.shared_steps.each_with_index.to_h { |step, i| [step.id, i + 1] }
        base = shared.size
        @plan.turns.list.each { |turn| turn.steps.each_with_index { |step, i| shared[step.id] = base + i + 1 } }
        shared
      end

      def draw
        house(BEFORE)
        @plan.turns.shared_steps.each { |step| remove(step) }
        soak_wait
        @plan.order_of_work == "all-out" ? all_out : one_at_a_time
        @plan.turns.shared_targets.each { |target| work(target, nil) }
        @plan.turns.shared_steps.reverse_each { |step| refit(step) }
        @plan.steps.each { |step| closing(step) }
        house(@plan.job.tasks.select { |task| task.kind == "house" }.map(&:ref) - BEFORE)
      end

      def one_at_a_time
        @plan.turns.list.each do |turn|
          turn.steps.each { |step| remove(step, turn.cylinder) }
          turn.targets.each { |target| work(target, turn.cylinder) }
          turn.steps.reverse_each { |step| refit(step, turn.cylinder) }
        end
      end

      def all_out
        turns = @plan.turns.list
        turns.flat_map(&:steps).each { |step| remove(step, step.cylinder) }
        turns.flat_map(&:targets).each { |target| work(target, target.cylinder) }
        @plan.turns.list.reverse_each { |turn| turn.steps.reverse_each { |step| refit(step, turn.cylinder) } }
      end

      def remove(step, cylinder = nil)
        waits(step, "before-remove")
        stroke("remove", step.id, step.label, depth_of(step), cylinder)
        waits(step, "after-remove")
      end

      def refit(step, cylinder = nil)
        stroke("refit", step.id, step.label, depth_of(step), cylinder)
        waits(step, "after-refit")
      end

      def work(target, cylinder)
        stroke("work", target.id, target.label, @levels, cylinder)
        stroke("soak", target.id, "Soak, #{target.label}", @levels, cylinder)
      end

      def closing(step)
        (@minutes[["closing", step.id]] || []).each { |task| push("closing", step.id, task.label, task.points.mean, 0, nil) }
      end

      def house(names)
        names.each { |name| stroke("house", name, nil, 0, nil) }
      end

      def stroke(kind, ref, label, depth, cylinder)
        (@minutes[[kind, ref]] || []).each { |task| push(kind == "soak" ? "work" : kind, ref, label || task.label, task.points.mean, depth, cylinder) }
      end

      def waits(step, moment)
        @plan.waits.select { |wait| wait.step == step.id && wait.when == moment }.each do |wait|
          push("wait", step.id, "Wait: #{wait.for}", wait.minutes, depth_of(step), nil)
        end
      end

      def soak_wait
        @plan.waits.select { |wait| wait.step.nil? }.each { |wait| push("wait", "soak", "Wait: #{wait.for}", wait.minutes, @levels, nil) }
      end

      def push(kind, ref, label, minutes, depth, cylinder)
        return unless minutes.positive?

        @strokes << Stroke.new(kind, ref, label, @clock, minutes, depth, cylinder)
        @clock += minutes
      end
    end
  end
end
