# frozen_string_literal: true

module NimbleLedger
  module Access
    # The plan of least cost for a set of targets: what comes off, in which order, by which ways, and why
    # (model.md section 2). Built by Planner.
    class Plan
      Wait = Struct.new(:step, :for, :when, :minutes, :holds_bay)

      attr_reader :car, :targets, :ways, :choices, :chains, :steps, :soak, :cost

      # @param steps [Array<Profile::Step>] in file order
      # @param ways [Hash{Profile::Target=>Profile::Way}] in the order the targets were asked for
      # @param members [Hash] Profile::Choice (by identity) to the member id chosen
      # @param cost [Rational] minutes of steps and targets; soak and house tasks are left out, but for the battery
      # under rules 2
      def initialize(car, steps, ways, members, cost:, soak: "none", codes: false)
        @car = car
        @targets = ways.keys
        @ways = ways
        @cost = cost
        @soak = soak
        @codes = codes
        @members = members
        before = steps.to_h { |step| [step.id, step.after + step.choices.map { |choice| members[choice] }] }
        @choices = choice_keys(steps, members)
        @before = before
        @steps = Order.removal(steps, before, ports_last: car.rules.order_of_work?)
        @chains = Why.chains(@steps, ways, before, members)
        @worked_out = {}
      end

      # @return [Time::JobTime] its tasks and hours; worked out when they are first asked for, as its turns are: of many
      #   plans only the steps are
      def job = @worked_out[:job] ||= Time::JobTime.new(steps, ways.to_a, car, soak: soak, codes: codes?)

      # @return [Turns]
      def turns =
        @worked_out[:turns] ||= Turns.new(steps, chains, job, before: car.rules.order_of_work? ? @before : nil)

      # Marks a plan that is not proven to be the shortest.
      # @param minutes [Float] by how much a plan not looked into could be shorter
      def unproven(minutes) = tap { @gap = minutes }

      # Minutes by which a plan not looked into could still be shorter; nil when there is none.
      attr_reader :gap

      # Whether it is proven that nothing is shorter (model.md section 2, "Effort").
      def proven? = gap.nil?

      # Whether the car came with fault codes.
      def codes? = @codes

      # @param choice [Profile::Choice] held by a step or way of the plan
      # @return [String] id of the step that stands for it
      # @raise [KeyError] for a choice the plan does not reach
      def member(choice) = @members.fetch(choice)

      def engine = car.engine
      def condition = car.condition

      # "one-at-a-time" or "all-out": whether one bore is open at a time. A compression test and a crank that clears
      # the cylinders need all plugs out; a soak does not, it only takes everything above the plugs off first (model.md
      # section 2).
      def order_of_work
        return "all-out" if car.rules.order_of_work? && plugs_out_together?

        targets.any?(&:plugs_out?) ? "all-out" : car.house["order_of_work"]
      end

      # Whether all plugs are out before any goes in (model.md section 15, 6): by house rule, for a test, a look or a
      # crank, or where a step that takes a plug out is shared.
      def plugs_out_together? =
        car.house["order_of_work"] == "all-out" || targets.any? { |one| one.plugs_out? || one.work == "look" } ||
          turns.shared_steps.any?(&:takes_out_plug?)

      # What has to be off before a step, the members that were chosen too.
      # @return [Array<String>] ids
      def before(step) = @before.fetch(step.id)

      # Whether everything above the plugs comes off before the first of them is turned: all wells are soaked together.
      def soaked_together? = soak != "none" && soaks?

      # Whether every plug is cracked loose while the head is warm and fitted cold (House::Schools, "temperature").
      def cracked_warm? = car.rules.order_of_work? && car.house["temperature"] == "crack-warm" && soaks?

      # The job as pieces in the order they are done (model.md section 15): that of the rules in force. Built when it is
      # asked for, kept by who asks.
      # @return [Time::OrderOfWork, Time::Sequence] answering pieces, ids, acts, early, clock_minutes
      def sequence = car.rules.order_of_work? ? Time::OrderOfWork.new(self) : Time::Sequence.new(self)

      # Targets that need a step, for "why?".
      def needed_by(step) = Why.needed_by(step, chains)

      # Waiting pieces in the order they come up. The soak is one of them; an overnight is flagged, not counted.
      # @return [Array<Wait>] minutes
      def waits
        own =
          steps.flat_map do |step|
            step.waits.map do |w|
              Wait.new(
                step.id,
                w["for"] || "waiting",
                w["when"] || "before-remove",
                w["minutes"],
                w.fetch("holds_bay", true)
              )
            end
          end
        minutes = soaks? ? car.house["soaks"][soak]["wait"] : 0
        own << Wait.new(nil, "soak", "before-remove", minutes, true) if minutes.positive?
        own << Wait.new(nil, "cooling down", "before-remove", cooling_minutes, true) if cooling_minutes.positive?
        own
      end

      # What a warm head takes to cool once its plugs are cracked loose.
      # @return [Numeric] minutes
      def cooling_minutes = cracked_warm? ? Time::Cooling.minutes(engine, "warm", car.house) : 0

      def wait_minutes = waits.sum(0.0, &:minutes)

      def overnight? = soaks? && car.house["soaks"][soak]["overnight"]

      def equipment = (steps.flat_map(&:needs) + ways.values.flat_map(&:needs)).uniq

      private

      def soaks? = targets.any?(&:plug?)

      def choice_keys(steps, members)
        keys = {}
        steps.each { |step| keep(keys, "step", step.id, step.choices, members) }
        ways
          .sort_by { |target, _way| target.position }
          .each { |target, way| keep(keys, "target", target.id, way.choices, members) }
        keys
      end

      def keep(keys, kind, id, choices, members)
        keys[Pins.key(engine, kind, id)] = choices.map { |choice| members[choice] } unless choices.empty?
      end
    end
  end
end
