# frozen_string_literal: true

module NimbleLedger
  module Time
    # The pieces of a job as OrderOfWork puts them down, one after another: what each is called, its points, who is on
    # it (model.md section 15). It knows tasks and names, not their order.
    class PieceList
      # Parts of a task that is done at two moments.
      FIRST = 0.4
      SECOND = 0.6

      # Closing work of a step, and its task of the job.
      Closing = Struct.new(:step, :work, :task)

      # @return [Array<Sequence::Piece>]
      attr_reader :pieces

      # @param plan [Access::Plan]
      def initialize(plan)
        @plan = plan
        @tasks = plan.job.tasks.group_by { |task| [task.kind, task.ref] }
        @pieces = []
      end

      # A task of the job, or its share at one of two moments.
      def task(id, kind, ref, cylinder, share: 1)
        task = @tasks[[kind, ref]].first
        put(id, kind, ref, task.label, task.points * share, cylinder: cylinder, people: task.people)
      end

      # Something to do that takes no minutes of its own.
      def mark(id, kind, ref) = put(id, kind, ref, ref, ThreePoints.exactly(0))

      def house(name)
        @tasks.fetch(["house", name], []).each { |task| put("house:#{name}", "house", name, task.label, task.points) }
      end

      def battery? = @tasks.key?(%w[house battery])

      # @param way ["off", "on"]
      def battery(way, share)
        task = @tasks[%w[house battery]]&.first or return
        put("house:battery-#{way}", "house", "battery-#{way}", task.label, task.points * share)
      end

      # Clearing or reading of fault codes; without minutes where none are asked for, and not on a carburetor then.
      def codes(name, share)
        task = @tasks[%w[house scan_clear]]&.first
        return if task.nil? && @plan.engine.injection == "carburetor"

        points = task ? task.points * share : ThreePoints.exactly(0)
        put("house:#{name}", "house", name, task ? task.label : name, points)
      end

      # Fluid into every well, and the wait; overnight without minutes.
      def soak
        tasks = @plan.targets.flat_map { |target| @tasks[["soak", target.id]] || [] }
        put("soak", "soak", @plan.soak, "Soak", ThreePoints.exactly(tasks.sum(0) { |task| task.points.mean }))
        minutes = @plan.overnight? ? 0 : @plan.car.house["soaks"][@plan.soak]["wait"]
        wait("wait:soak", @plan.soak, "soak", minutes, true)
      end

      # Every plug an eighth of a turn while the head is warm: minutes of their own work. Then it cools before anything
      # else is done: no fluid goes on a warm engine.
      def crack_warm
        mark("house:crack-warm", "house", "crack-warm")
        minutes = @plan.cooling_minutes
        wait("wait:cool", "cool", "cooling down", minutes, true) if minutes.positive?
      end

      # Waits of a step at a moment; the n-th of its list from the second on is numbered.
      def waits(step, moment)
        step.waits.each_with_index do |one, i|
          next unless (one["when"] || "before-remove") == moment

          id = i.zero? ? "wait:#{step.id}" : "wait:#{step.id}:#{i + 1}"
          wait(id, step.id, one["for"] || "waiting", one["minutes"], one.fetch("holds_bay", true))
        end
      end

      # Closing work, by its order, then as it stands in the file.
      # @param running [Boolean] that which runs the engine, or the other
      def closings(running:)
        @plan
          .steps
          .flat_map { |step| step.closing.zip(tasks_of(step)).map { |work, task| Closing.new(step, work, task) } }
          .select { |one| one.work.running? == running }
          .sort_by { |one| [one.work.order, one.step.position, one.work.position] }
          .each { |one| close(one) }
      end

      private

      def tasks_of(step) = @tasks.fetch(["closing", step.id], [])

      def close(closing)
        place = closing.work.position.zero? ? "" : ":#{closing.work.position + 1}"
        id = "step:#{closing.step.id}:closing#{place}"
        put(id, "closing", closing.step.id, closing.task.label, closing.task.points, people: closing.task.people)
      end

      def wait(id, ref, words, minutes, holds_bay)
        points = ThreePoints.exactly(minutes)
        @pieces << Sequence::Piece.new(id, "wait", ref, "Wait: #{words}", nil, points, 1, true, holds_bay)
      end

      def put(id, kind, ref, label, points, cylinder: nil, people: 1)
        @pieces << Sequence::Piece.new(id, kind, ref, label, cylinder, points, people, false, true)
      end
    end
  end
end
