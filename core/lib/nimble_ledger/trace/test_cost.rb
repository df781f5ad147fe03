# frozen_string_literal: true

module NimbleLedger
  module Trace
    # What a test costs on this car (model.md section 9, "Next test"): what it touches, what comes off for it and what
    # is off already, what of that the repair needs anyway.
    class TestCost
      PLUG_OUT = "plug-out-"

      # minutes: all of it; lost: what the repair does not need anyway.
      Cost = Struct.new(:minutes, :lost)

      # @param car [Car]
      # @param open [Array<String>] ids of steps that are off
      # @param tables [Tables]
      # @param effort [Access::NodeBudget]
      def initialize(car, open, tables, effort:)
        @car = car.planned
        @open = open.filter_map { |id| car.engine.step(id) }
        @tables = tables
        @effort = effort
        @plans = {}
        @extra = {}
      end

      # @param needed [Hash{String=>Float}] step id to the chance that the repair needs it off
      # @return [Cost, nil] nil where there is nothing to touch, or no way to it
      def cost(test, cylinders, needed)
        about = @tables.test(test)
        targets = touched(about["touches"], cylinders)
        return nil if targets.empty? && about["touches"] != "nothing"

        plan = plan(targets)
        return nil if plan.nil? && targets.any?

        own = about["minutes"] + (about["moves_plugs"] ? plugs(targets, plan) : 0.0)
        about["runs"] ? closed(plan, own) : left_open(plan, own, needed)
      end

      # @return [Access::Plan, nil] nil for nothing, or where there is no way
      def plan(targets)
        return nil if targets.empty?

        @plans.fetch(targets) { @plans[targets] = find(targets) }
      end

      private

      TOUCHES = {
        "coil" => %w[coil wire boot],
        "wire" => %w[wire boot],
        "plug" => %w[plug],
        "coil+plug" => %w[coil wire boot plug]
      }.freeze

      def touched(what, cylinders)
        return [] if what == "nothing"
        return compression(cylinders) if what == "compression"

        serving(TOUCHES.fetch(what), cylinders)
      end

      def compression(cylinders)
        own = serving(%w[compression], cylinders)
        own.empty? ? serving(%w[plug], cylinders) : own
      end

      def serving(works, cylinders) =
        @car.engine.targets.select { |target| works.include?(target.work) && target.cylinders.intersect?(cylinders) }

      def find(targets)
        @car.planner.plan(targets, effort: @effort)
      rescue ImpossiblePlan
        nil
      end

      def steps(plan) = plan ? plan.steps : []

      # It runs the engine: everything is closed again afterwards.
      def closed(plan, own)
        all = steps(plan) | @open
        battery = all.any?(&:battery?) ? costs.battery : 0.0
        minutes =
          removing(steps(plan) - @open).values.sum + all.sum(0.0) { |step| costs.closing_up(step) } + battery + own
        Cost.new(minutes, minutes)
      end

      # It leaves open what it opened: only what the repair does not need anyway is lost.
      def left_open(plan, own, needed)
        opened = removing(steps(plan) - @open)
        lost = opened.sum(0.0) { |id, minutes| minutes * (1 - needed.fetch(id, 0.0)) }
        Cost.new(opened.values.sum + own, lost + own)
      end

      def removing(steps) = steps.to_h { |step| [step.id, costs.taking_off(step)] }
      def costs = @costs ||= Minutes.new(@car)

      # Plugs that come out by themselves and go in again, and what they may do on the way.
      def plugs(targets, plan)
        targets.select(&:plug?).sum(0.0) { |target| work(target, plan) + extra(target) }
      end

      def work(target, plan)
        return 0.0 if plan.chains.fetch(target).any? { |id| id.start_with?(PLUG_OUT) }

        plan.job.tasks.find { |task| task.kind == "work" && task.ref == target.id }.mean
      end

      def extra(target)
        return 0.0 unless Risk::PlugRemoval.known?(@car)

        @extra[target] ||= plugs_alone(target)
      end

      # Expected minutes of trouble with the plugs of a target, mishaps of steps apart.
      def plugs_alone(target)
        outcomes = @car.job([target], effort: @effort).outcomes
        outcomes.plug_rows.sum(0.0) { |row| row.count * outcomes.extra_of(row) }
      end
    end
  end
end
