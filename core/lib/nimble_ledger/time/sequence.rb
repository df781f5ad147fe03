# frozen_string_literal: true

module NimbleLedger
  module Time
    # The job as one list of pieces in the order they are done (model.md section 15): what drawing, ready time, card and
    # ledger read. Down through the layers, along the bottom cylinder by cylinder, back up in reverse, closing work and
    # checks last.
    class Sequence
      # One piece. kind: house, remove, soak, wait, work, refit, closing. ref: step, target, protocol or task. points:
      # ThreePoints after multipliers. waiting: nobody works on it; holds_bay: the car cannot be moved meanwhile.
      Piece =
        Struct.new(:id, :kind, :ref, :label, :cylinder, :points, :people, :waiting, :holds_bay) do
          def waiting? = waiting
          # @return [Float] minutes on the clock
          def clock_minutes = points.mean
          # @return [Float] minutes of labor
          def labor_minutes = waiting ? 0.0 : points.mean * people
        end

      # A piece of closing work: the step it belongs to, its place among them, its task.
      Closing = Struct.new(:step, :order, :task)

      BEFORE = %w[receive cold_check battery].freeze

      # @return [Array<Piece>]
      attr_reader :pieces

      # @param plan [Access::Plan]
      def initialize(plan)
        @plan = plan
        @turns = plan.turns.list
        @tasks = plan.job.tasks.group_by { |task| [task.kind, task.ref] }
        @pieces = []
        @back = []
        down
        bottom
        up
        freeze
      end

      # @return [Array<String>]
      def ids = pieces.map(&:id)

      # What OrderOfWork says beside the order; rules 1 and 2 say neither.
      # @return [Hash]
      def acts = {}

      # @return [Array<Integer>]
      def early = []

      # @return [Float] minutes on the clock, waits included
      def clock_minutes = pieces.sum(0.0, &:clock_minutes)

      private

      def down
        BEFORE.each { |name| house(name) }
        shared = @plan.turns.shared_steps
        shared.each_with_index do |step, i|
          remove(step)
          straight_back(shared.first(i + 1), shared.drop(i + 1))
        end
      end

      # What goes straight back does so as soon as no shared step that waits for it is still on: a filler cap comes off,
      # the cover over it, and the cap is back before anything can fall in.
      def straight_back(off, still_on)
        off.each do |step|
          next if step.back != "at-once" || @back.include?(step)
          next if still_on.any? { |other| other.after.include?(step.id) }

          @back << step
          refit(step, nil)
        end
      end

      def bottom
        plugs_out, others = @plan.turns.shared_targets.partition(&:plugs_out?)
        together? ? all_above_first(plugs_out) : one_at_a_time
        others.each { |target| work(target, nil) }
      end

      # Whether everything above the plugs comes off before the first is turned: all-out, or a soak of all wells
      # together. After a soak the plugs themselves still come out and go in one cylinder at a time.
      def together? = @plan.order_of_work == "all-out" || @plan.soaked_together?

      def up
        @plan.turns.shared_steps.reverse_each { |step| refit(step, nil) if step.back.nil? }
        closings.each do |closing|
          push(PieceId.step(closing.step.id, "closing").to_s, "closing", closing.step.id, closing.task, nil)
        end
        house("leak_check")
        @plan.steps.reverse_each { |step| refit(step, nil) if step.back == "after-run" }
        %w[road_test scan_clear].each { |name| house(name) }
      end

      def one_at_a_time
        soak
        @turns.each do |turn|
          turn.steps.each { |step| remove(step, turn.cylinder) }
          turn.targets.each { |target| work(target, turn.cylinder) }
          back_on(turn)
        end
      end

      # @param plugs_out [Array<Profile::Target>] done before anything goes back over the wells
      def all_above_first(plugs_out)
        @turns.each { |turn| turn.steps.each { |step| remove(step, turn.cylinder) } }
        soak
        @turns.each { |turn| turn.targets.each { |target| work(target, turn.cylinder) } }
        plugs_out.each { |target| work(target, nil) }
        @turns.reverse_each { |turn| back_on(turn) }
      end

      def back_on(turn) = turn.steps.reverse_each { |step| refit(step, turn.cylinder) if step.back.nil? }

      def remove(step, cylinder = nil)
        waits(step, "before-remove")
        id = PieceId.step(step.id, "remove").to_s
        each_task("remove", step.id) { |task| push(id, "remove", step.id, task, cylinder) }
        waits(step, "after-remove")
        refit(step, cylinder) if step.back == "at-once" && cylinder
      end

      def refit(step, cylinder)
        id = PieceId.step(step.id, "refit").to_s
        each_task("refit", step.id) { |task| push(id, "refit", step.id, task, cylinder) }
        waits(step, "after-refit")
      end

      def work(target, cylinder)
        id = PieceId.work(target.id).to_s
        each_task("work", target.id) { |task| push(id, "work", target.id, task, cylinder) }
      end

      # Applied to every plug in scope, then left to work.
      def soak
        tasks = @plan.targets.flat_map { |target| @tasks[["soak", target.id]] || [] }
        if tasks.any?
          applied = ThreePoints.exactly(tasks.sum { |task| task.points.mean })
          @pieces << Piece.new("soak", "soak", @plan.soak, "Soak", nil, applied, 1, false, true)
        end
        @plan.waits.select { |wait| wait.step.nil? }.each { |wait| wait_for("wait:soak", wait) }
      end

      def waits(step, moment) =
        @plan
          .waits
          .select { |wait| wait.step == step.id && wait.when == moment }
          .each { |wait| wait_for("wait:#{step.id}", wait) }

      def wait_for(id, wait)
        @pieces << Piece.new(
          id,
          "wait",
          wait.step || @plan.soak,
          "Wait: #{wait.for}",
          nil,
          ThreePoints.exactly(wait.minutes),
          1,
          true,
          wait.holds_bay
        )
      end

      # Done last, by their own order, then as they stand.
      def closings
        held =
          @plan
            .steps
            .sort_by(&:position)
            .flat_map do |step|
              tasks = @tasks.fetch(["closing", step.id], [])
              step.closing.zip(tasks).map { |closing, task| Closing.new(step, closing.order, task) }
            end
        held.sort_by.with_index { |closing, i| [closing.order, i] }
      end

      def house(name) = each_task("house", name) { |task| push("house:#{name}", "house", name, task, nil) }

      def each_task(kind, ref, &block) = (@tasks[[kind, ref]] || []).each(&block)

      def push(id, kind, ref, task, cylinder) =
        @pieces << Piece.new(id, kind, ref, task.label, cylinder, task.points, task.people, false, true)
    end
  end
end
