# frozen_string_literal: true

module NimbleLedger
  module Access
    # Every other route to the same job (model.md section 2, "Alternatives"): one way of a target, or one member of a
    # choice the plan reaches, pinned differently, and the rest at its best again.
    #
    #   Access::Alternatives.new(planner, plan).rows.first.added   #=> Rational, minutes against the plan
    #
    # A route that lacks equipment is a row too: it names what is missing, and is planned as if it were here. Routes
    # that no equipment opens are left out.
    class Alternatives
      # One member of one choice: Profile::Step or Profile::Target, Profile::Choice, step id.
      Member = Struct.new(:holder, :choice, :id)

      # ways: {target id => way id}; members: Array<Member>; car with both pinned; plan: the best
      # completion; added: exact minutes against the plan in force; missing: equipment the shop lacks.
      Row = Struct.new(:ways, :members, :car, :plan, :added, :missing) { def feasible? = missing.empty? }

      # How many routes could not be decided within the effort; they are left out.
      # @return [Integer]
      attr_reader :undecided

      # @param planner [Planner]
      # @param plan [Plan] one of its plans
      # @param effort [NodeBudget] what is left of the answer's
      def initialize(planner, plan, effort: NodeBudget.new)
        @planner = planner
        @effort = effort
        @undecided = 0
        @plan = plan
        @graph = planner.graph
        @engine = @graph.engine
      end

      # One different way or member at a time: targets in file order, then choices.
      # @return [Array<Row>]
      def rows
        other_ways.filter_map { |target, way| over(ways: { target.id => way.id }) } +
          other_members.filter_map { |member| over(members: [member]) }
      end

      # The route with several pinned together: the same way for a whole bank, the same tool for every coil.
      # @param ways [Hash{String=>String}] target id to way id
      # @param members [Array<Member>]
      # @return [Row, nil] nil when no equipment opens it
      def over(ways: {}, members: [])
        pins = @graph.pins.with(ways: ways, members: members)
        before = @undecided
        found = row(ways, members, pins, [])
        found || @undecided > before ? found : row(ways, members, pins, lacking(ways, members, pins))
      end

      # Choices the plan reaches, with the member in force: steps in removal order, then targets.
      # @return [Array<Member>]
      def choices
        (
          @plan.steps.map { |step| [step, step.choices] } + @plan.ways.map { |target, way| [target, way.choices] }
        ).flat_map { |holder, choices| choices.map { |choice| Member.new(holder, choice, @plan.member(choice)) } }
      end

      private

      def other_ways
        @plan
          .ways
          .sort_by { |target, _way| target.position }
          .flat_map { |target, way| (target.ways - [way]).map { |other| [target, other] } }
      end

      def other_members
        choices.flat_map { |now| (now.choice.members - [now.id]).map { |id| Member.new(now.holder, now.choice, id) } }
      end

      # @return [Row, nil] nil when these pins and this much more equipment open nothing
      def row(ways, members, pins, missing)
        car = @graph.car.with(pins: pins, equipment: @graph.equipment | missing).planned
        plan =
          @effort.spent? ? nil : car.planner.plan(@plan.targets, soak: @plan.soak, codes: @plan.codes?, effort: @effort)
        unless plan&.proven?
          @undecided += 1
          return nil
        end

        Row.new(ways, members, car, plan, plan.cost - @plan.cost, missing)
      rescue ImpossiblePlan
        nil
      end

      # Equipment that would have to be there for what is pinned.
      def lacking(ways, members, pins)
        graph = Graph.new(@graph.car.with(pins: pins))
        pinned =
          ways.map { |target, way| @engine.target(target).ways.find { |w| w.id == way } } +
            members.map { |member| @engine.step(member.id) }
        pinned.flat_map { |holder| graph.missing(holder) }.uniq
      end
    end
  end
end
