# frozen_string_literal: true

module NimbleLedger
  module Time
    # The job as one list of pieces in the order a mechanic does them (model.md section 15, rules 3): nothing falls into
    # an open engine, no plug is touched twice, nothing cranks on oil, and the engine is never started with something
    # undone. It moves no minutes.
    #
    #   work = plan.sequence
    #   work.ids   #=> ["house:receive", "house:cold_check", "clean", "step:coil-1:remove", …]
    #   work.acts  #=> { "target:plug-1:work" => ["clean", "out", "read", "in", "tighten"] }
    class OrderOfWork
      # What is done to a plug, in order: those before it is out, those after.
      OUT = %w[clean out read].freeze
      IN = %w[in tighten].freeze
      CRACKED = %w[crack-and-soak overnight-impact].freeze
      # Work that touches the spark: codes are cleared after it.
      SPARK = %w[plug coil wire boot compression look].freeze

      # How a plug comes out where all are out together: with a step that takes it out, or by work on it.
      Out = Struct.new(:step, :plug, :cylinder, keyword_init: true)

      # @return [Array<Sequence::Piece>]
      def pieces = @list.pieces

      # @return [Hash{String=>Array<String>}] piece to what is done to its plug
      attr_reader :acts

      # @return [Array<Integer>] cylinders whose turn is taken before the ports are opened
      attr_reader :early

      # @param plan [Access::Plan] under rules 3
      def initialize(plan)
        @plan = plan
        @turns = plan.turns.list
        @list = PieceList.new(plan)
        @acts = {}
        @early = []
        @caps = AtOnceSteps.new(plan)
        @together = plan.plugs_out_together?
        go_through
        freeze
      end

      # @return [Array<String>]
      def ids = pieces.map(&:id)

      # @return [Float] minutes on the clock, waits included
      def clock_minutes = pieces.sum(0.0, &:clock_minutes)

      private

      def engine = @plan.engine
      def soaked? = @plan.soaked_together?
      def cracked_warm? = @plan.cracked_warm?

      # Whether everything above the plugs is off before the first of them is touched.
      def wells_first? = soaked? || cracked_warm?
      def plugs_together? = @together

      # What is done to a plug once it is out; wells are wet after a soak.
      def back_in = soaked? ? ["dry", *IN] : IN

      def go_through
        @list.house("receive")
        @list.house("cold_check")
        @list.battery("off", PieceList::FIRST)
        down
        bottom
        up
      end

      # ---- down through the shared layers

      def down
        early_turns
        shared.each do |step|
          remove(step, nil)
          early_turns
        end
      end

      def shared = @shared ||= @plan.turns.shared_steps.reject(&:takes_out_plug?)

      # Turns that shed dirt before ports lie open: each as soon as what it needs is off, if a step that opens ports and
      # is none of its own is still on.
      def early_turns
        return if plugs_together? || wells_first?

        waiting_turns.each do |turn|
          next unless needs(turn).all? { |id| @caps.off?(id) } && ports_ahead?(turn)

          @early << turn.cylinder
          take(turn)
        end
      end

      def waiting_turns = @turns.reject { |turn| @early.include?(turn.cylinder) }

      # Shared steps in the way of a turn's targets.
      def needs(turn)
        @needs ||= {}
        @needs[turn.cylinder] ||= chain_of(turn) - turn.steps.map(&:id)
      end

      def chain_of(turn) = turn.targets.flat_map { |target| @plan.chains.fetch(target) }.uniq

      def ports_ahead?(turn)
        own = chain_of(turn)
        @plan.steps.any? { |step| step.opens_ports? && !@caps.off?(step.id) && !own.include?(step.id) }
      end

      # ---- along the bottom

      def bottom
        return waiting_turns.each { |turn| take(turn) } unless plugs_together? || wells_first?

        @turns.each { |turn| others(turn).each { |step| remove(step, turn.cylinder) } }
        @list.crack_warm if cracked_warm?
        soak if soaked?
        plugs_together? ? all_out_and_in : @turns.each { |turn| plugs_of(turn) }
        shared_plugs.each { |target| work_on(target, nil) } unless plugs_together?
        @turns.each { |turn| other_work(turn) }
        @turns.reverse_each { |turn| back_on(others(turn), turn.cylinder) }
      end

      # One cylinder, from its boot off to its boot on.
      def take(turn)
        others(turn).each { |step| remove(step, turn.cylinder) }
        plugs_of(turn)
        other_work(turn)
        back_on(others(turn), turn.cylinder)
      end

      # The bore open and closed again: nothing else is open meanwhile.
      def plugs_of(turn)
        steps = plug_steps(turn)
        steps.each { |step| remove(step, turn.cylinder) }
        over_open_bore(turn).each { |target| work_on(target, turn.cylinder) }
        turn.targets.select(&:plug?).each { |target| work_on(target, turn.cylinder) }
        steps.reverse_each { |step| refit(step, turn.cylinder) }
      end

      def other_work(turn)
        turn
          .targets
          .reject { |target| target.plug? || @caps.done?(target) }
          .each { |target| work_on(target, turn.cylinder) }
      end

      def others(turn) = turn.steps.reject(&:takes_out_plug?)
      def plug_steps(turn) = turn.steps.select(&:takes_out_plug?)

      # Work beside the plugs' that goes through a step which takes the plug out.
      def over_open_bore(turn) = turn.targets.select { |target| !target.plug? && plug_steps_of(target).any? }

      def plug_steps_of(target)
        @plug_steps ||= @plan.steps.select(&:takes_out_plug?).map(&:id)
        @plan.chains.fetch(target) & @plug_steps
      end

      def back_on(steps, cylinder)
        steps.reverse_each { |step| refit(step, cylinder) if step.back.nil? || holds_nothing?(step) }
      end

      # An after-run step under something that goes back before the run goes back with the rest.
      def holds_nothing?(step) = step.back == "after-run" && !after_run?(step)

      # ---- plugs out together

      def all_out_and_in
        plugs_out = out_in_order
        plugs_out.each do |out|
          out.step ? remove(out.step, out.cylinder) : part(out.plug, out.cylinder, "out", PieceList::FIRST)
        end
        tests
        plugs_out.reverse_each do |out|
          out.step ? back_with_plugs(out.step, out.cylinder) : part(out.plug, out.cylinder, "in", PieceList::SECOND)
        end
      end

      # Plugs as they come out: a turn's steps that take one out, then its plugs without one; then what is of no turn.
      # @return [Array<Out>]
      def out_in_order =
        @turns.flat_map { |turn| outs(plug_steps(turn), turn.targets, turn.cylinder) } +
          outs(@plan.turns.shared_steps.select(&:takes_out_plug?), shared_plugs, nil)

      def outs(steps, targets, cylinder) =
        steps.map { |step| Out.new(step: step, cylinder: cylinder) } +
          bare_plugs(targets).map { |target| Out.new(plug: target, cylinder: cylinder) }

      def bare_plugs(targets) = targets.select { |target| target.plug? && plug_steps_of(target).empty? }
      def shared_plugs = @plan.targets.select { |target| target.plug? && target.cylinder.nil? }

      # A step that takes the plug out goes back once its plug's own work is done.
      def back_with_plugs(step, cylinder)
        @plan.targets.each do |target|
          next if !target.plug? || @caps.done?(target) || !plug_steps_of(target).include?(step.id)

          work_on(target, target.cylinder)
        end
        refit(step, cylinder)
      end

      def tests
        turns_over = @plan.targets.select { |target| target.crank? || target.work == "compression" }
        to_crank = @list.battery? && turns_over.any?
        @list.mark("house:battery-on-to-crank", "house", "battery-on-to-crank") if to_crank
        kinds = [
          :crank?.to_proc,
          ->(target) { target.work == "compression" },
          ->(target) { target.work == "look" },
          ->(target) { target.work == "other" && target.plugs_out? },
          ->(target) { !target.plug? && plug_steps_of(target).any? }
        ]
        kinds.each_with_index do |kind, i|
          @list.mark("house:battery-off-again", "house", "battery-off-again") if to_crank && i == 2
          turn_by_turn(kind).each { |target| work_on(target, target.cylinder) }
        end
      end

      def turn_by_turn(kind)
        left = @plan.targets.select { |target| kind.call(target) && !@caps.done?(target) }
        own = @turns.flat_map { |turn| left.select { |target| target.cylinder == turn.cylinder } }
        own + (left - own)
      end

      # ---- soak

      def soak
        @list.soak
        @acts["soak"] = ["clean", *(cracks? ? ["crack"] : []), "fluid"]
      end

      def cracks? = CRACKED.include?(@plan.soak) && !cracked_warm?

      # ---- back up

      def up
        shared_work
        shared.reverse_each { |step| refit(step, nil) if step.back.nil? || holds_nothing?(step) }
        @list.battery("on", PieceList::SECOND)
        @list.codes("clear", PieceList::FIRST) if clears?
        @list.closings(running: false)
        @list.house("leak_check")
        @list.closings(running: true)
        @plan.steps.reverse_each { |step| refit(step, step.cylinder) if step.back == "after-run" && after_run?(step) }
        @list.house("road_test")
        @list.codes("read", PieceList::SECOND)
      end

      def shared_work
        left = @plan.targets.reject { |target| @caps.done?(target) || target.cylinder }
        plugs, others = left.partition(&:plug?)
        (plugs + others).each { |target| work_on(target, nil) }
      end

      # Everything that lies over it goes back after the run as well, or went straight back.
      def after_run?(step)
        @plan
          .before(step)
          .all? do |id|
            over = engine.step(id)
            over.back == "at-once" || (over.back == "after-run" && after_run?(over))
          end
      end

      # ---- one piece

      def remove(step, cylinder)
        clean if boot?(step)
        @list.waits(step, "before-remove")
        id = PieceId.step(step.id, "remove").to_s
        @list.task(id, "remove", step.id, cylinder)
        @acts[id] = OUT if step.takes_out_plug?
        @list.waits(step, "after-remove")
        @caps.off(step)
        straight_back
      end

      # Wells are blown and vacuumed before the first boot leaves them.
      def clean
        return if @cleaned

        @cleaned = true
        @list.mark("clean", "clean", "clean")
      end

      def boot?(step) = engine.coils.any? { |coil| coil.id == step.id } || (step.cylinder && !step.takes_out_plug?)

      def refit(step, cylinder)
        id = PieceId.step(step.id, "refit").to_s
        unless nothing?(step.refit) && !step.takes_out_plug?
          @list.task(id, "refit", step.id, cylinder)
          @acts[id] = back_in if step.takes_out_plug?
        end
        @list.waits(step, "after-refit")
        @caps.again(step).each { |id| @list.mark("step:#{id}:again", "again", id) }
      end

      def nothing?(points) = points.low.zero? && points.likely.zero? && points.high.zero?

      def straight_back = @caps.due.each { |step| refit(step, step.cylinder) }

      def work_on(target, cylinder)
        id = PieceId.work(target.id).to_s
        @list.task(id, "work", target.id, cylinder)
        @acts[id] = OUT + back_in if target.plug? && plug_steps_of(target).empty?
        @caps.done(target)
        straight_back
      end

      # A plug's work at two moments.
      def part(target, cylinder, act, share)
        id = "target:#{target.id}:#{act}"
        @list.task(id, "work", target.id, cylinder, share: share)
        @acts[id] = act == "out" ? OUT : back_in
        return unless act == "in"

        @caps.done(target)
        straight_back
      end

      def clears?
        @plan.codes? || @plan.targets.any? { |target| SPARK.include?(target.work) } ||
          @plan.steps.any? { |step| boot?(step) || step.takes_out_plug? || step.connectors.any? }
      end
    end
  end
end
