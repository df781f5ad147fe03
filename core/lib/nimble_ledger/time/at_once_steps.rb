# frozen_string_literal: true

module NimbleLedger
  module Time
    # Steps that go straight back (a filler cap: nothing may fall in), and come on once more when what they hold is on
    # again (model.md section 15, 3 and 8). Told what happens in order, it says what is due.
    class AtOnceSteps
      # @param plan [Access::Plan]
      def initialize(plan)
        @plan = plan
        @off = {}
        @done = {}
        @back = {}
        @refitted = {}
        @namers = {}
      end

      def off(step) = @off[step.id] = true
      def off?(id) = @off.key?(id)
      def done(target) = @done[target] = true
      def done?(target) = @done.key?(target)

      # Those that go back now: nothing that names them is still to come off or to be done.
      # @return [Array<Profile::Step>]
      def due
        found = @plan.steps.select { |step| step.back == "at-once" && off?(step.id) && !@back[step.id] && free?(step) }
        found.each { |step| @back[step.id] = true }
      end

      # Those that come on again now that a step is back: it was the last of the steps that name them.
      # @param step [Profile::Step] that went back
      # @return [Array<String>] ids
      def again(step)
        @refitted[step.id] = true
        @plan.before(step).select { |id| @back[id] && namers(id).all? { |other| @refitted[other.id] } }
      end

      private

      def free?(step) = namers(step.id).all? { |other| off?(other.id) } && naming(step).all? { |target| done?(target) }

      # Steps that name it by what has to be off before them.
      def namers(id) = @namers[id] ||= @plan.steps.select { |other| @plan.before(other).include?(id) }

      # Targets whose way names it.
      def naming(step)
        @plan.targets.select do |target|
          way = @plan.ways.fetch(target)
          way.through.include?(step.id) || way.choices.any? { |choice| @plan.member(choice) == step.id }
        end
      end
    end
  end
end
