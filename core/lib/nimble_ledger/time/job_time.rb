# frozen_string_literal: true

module NimbleLedger
  module Time
    # All tasks of a plan and the hours they come to (model.md sections 3 and 4).
    class JobTime
      LABELS = {
        "receive" => "Receive and protect",
        "cold_check" => "Engine cold check",
        "leak_check" => "Start, idle, leak check",
        "road_test" => "Road test under load",
        "battery" => "Battery off and on",
        "scan_clear" => "Scan and clear codes"
      }.freeze

      attr_reader :tasks

      # @return [LognormalTotal] as the tasks add up, before any correction (model.md section 12)
      attr_reader :estimated

      # @return [LognormalTotal] what is promised: corrected by what was learned, where that is in force
      attr_reader :total

      # @param steps [Array<Profile::Step>] in removal order
      # @param work [Array<[Profile::Target, Profile::Way]>]
      # @param soak [String] protocol name
      # @param car [Car]
      # @param codes [Boolean] whether the car came with fault codes
      def initialize(steps, work, car, soak: "none", codes: false)
        @condition = car.condition
        @house = car.house
        @equipment = car.equipment
        @tasks = step_tasks(steps) + work_tasks(work, soak) + house_tasks(steps, codes)
        @estimated = LognormalTotal.of(@tasks, @house["common_variation"])
        @total = car.correction&.of(@estimated, common_variation: @house["common_variation"]) || @estimated
        freeze
      end

      # @return [Float] mean minutes of all tasks of these kinds
      def minutes(*kinds) = tasks.sum(0.0) { |task| kinds.include?(task.kind) ? task.mean : 0.0 }

      # Hours not exceeded with probability p.
      def hours(p) = total.quantile(p) / 60.0

      # @return [Integer] quoted tenths of an hour, before any correction
      def estimated_tenths = QuotedHours.new(@house).tenths(estimated)

      # @return [Integer] quoted tenths of an hour
      def quoted_tenths = QuotedHours.new(@house).tenths(total)

      private

      def step_tasks(steps)
        steps.flat_map do |step|
          [
            Task.new(
              "remove",
              step.id,
              step.label,
              step.remove * @condition.remove_factor(step),
              step.people,
              @condition.remove_reasons(step)
            ),
            Task.new(
              "refit",
              step.id,
              step.label,
              step.refit * @condition.refit_factor(step),
              step.people,
              @condition.refit_reasons(step)
            )
          ] +
            step.closing.map do |task|
              Task.new("closing", step.id, task.what, task.minutes(@equipment), step.people, [])
            end
        end
      end

      def work_tasks(work, soak)
        hands_on = @house["soaks"][soak]["hands_on"]
        work.flat_map do |target, way|
          reasons = way.factor == 1 ? [] : [Condition::Reason.new("reach", way.id, way.factor, "engine")]
          reasons << @condition.bodge if @condition.bodged?
          points = target.minutes * way.factor * @condition.target_factor
          tasks = [Task.new("work", target.id, target.label, points, 1, reasons)]
          next tasks unless target.plug? && hands_on.positive?

          tasks << Task.new(
            "soak",
            target.id,
            "Soak, #{target.label}",
            ThreePoints.exactly(hands_on * target.plugs),
            1,
            []
          )
        end
      end

      def house_tasks(steps, codes)
        names = %w[receive cold_check leak_check road_test]
        names << "battery" if steps.any?(&:battery?) || @house["battery"] == "always"
        names << "scan_clear" if codes
        names.map { |name| Task.new("house", name, LABELS[name], @house.task(name), 1, []) }
      end
    end
  end
end
