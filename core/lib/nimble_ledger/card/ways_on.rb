# frozen_string_literal: true

module NimbleLedger
  module Card
    # The ways on when trouble takes a job above what was agreed (model.md sections 5, 14 and 16): take it out and
    # finish; take it out and leave the rest; stop and close up. Each is the whole of what is then done, with what
    # happened in its hours and parts once and for all, so that a yes to it is never counted twice.
    #
    #   WaysOn.new(card.request, standing).list.map(&:name)   #=> ["finish", "leave", "stop"]
    class WaysOn
      NAMES = Quote::Selection::WAYS
      SURE = 0.8416 # standard deviations at eight of ten: what an extraction is told to take

      # name; targets: what is done; tried: opened for and left, with the steps that were taken off for it; by_tenths:
      # hours beside the computed ones; lines: by hand, those of before with the parts of what happened; trouble:
      # everything that happened, in the price from here on; total_cents; limit_cents; to_go: minutes on the clock until
      # it is closed and tried.
      Way =
        Struct.new(
          :name,
          :targets,
          :tried,
          :by_tenths,
          :lines,
          :trouble,
          :total_cents,
          :limit_cents,
          :to_go,
          keyword_init: true
        )

      # @param request [Hash] what was agreed, as one estimate request
      # @param standing [Standing] of its card
      def initialize(request, standing)
        @request = request
        @standing = standing
        @job = standing.job
        @state = standing.state
        @fought = standing.fought
        @done = WorkDone.of(@job.targets, @state["done"]) | out_whole
        freeze
      end

      # @return [Array<Way>] none where nothing happened that is not agreed to already
      def list
        return [] if @fought.empty? || @job.price.nil?

        found = [way("finish", @job.asked, {}, @fought)]
        found << way("leave", *kept_and_tried(@done + hurt_places), @fought) if untouched.any?
        found << way("stop", *kept_and_tried(@done), @fought.select { |one| over?(one) })
        found.compact
      end

      # Whether something has to come out of the head first: a plug broke, and what is left of it is still there.
      def to_take_out? = @fought.any? { |one| one.kind == "broken" && !over?(one) }

      # Cylinders whose plug is not as it should be while nothing more is done.
      # @return [Array<Integer>]
      def open_cylinders = (hurt - @done).flat_map(&:cylinders).uniq.sort

      # Cylinders whose old plug would stay in.
      # @return [Array<Integer>]
      def left_cylinders = untouched.flat_map(&:cylinders).uniq.sort

      private

      # Plugs that came out whole: a new one goes in whatever is decided.
      def out_whole
        out = @standing.out.keys
        @job.asked.select { |target| target.plug? && out.include?(target.id) && !hurt.include?(target) }
      end

      # Targets something happened to.
      def hurt = @fought.map(&:of).grep(Profile::Target).uniq

      # Those, and what else is agreed at their place.
      def hurt_places
        numbers = hurt.flat_map(&:cylinders)
        @job.asked.select { |target| hurt.include?(target) || target.cylinders.intersect?(numbers) }
      end

      # Plugs that are still in the head, as they came.
      def untouched
        @job.asked.select { |target| target.plug? && !@done.include?(target) && !hurt.include?(target) }
      end

      # What is done, and what of the rest was opened for.
      # @return [Array(Array<Profile::Target>, Hash{Profile::Target=>Array<String>})]
      def kept_and_tried(targets)
        kept = @job.asked & targets
        own = kept.flat_map { |target| @job.plan.chains.fetch(target) }
        opened = (@job.targets - kept).to_h { |target| [target, opened_for(target)] }
        [kept, opened.select { |target, steps| (steps - own).any? || (hurt.include?(target) && steps.any?) }]
      end

      # Steps that were taken off for a target; of a plug that is out all, whatever was marked.
      def opened_for(target)
        chain = @job.plan.chains.fetch(target)
        hurt.include?(target) ? chain : chain & off
      end

      # Ids of steps that are off.
      def off
        @job.plan.steps.map(&:id).select { |id| @state["done"].key?(Time::PieceId.step(id, "remove").to_s) }
      end

      def over?(fought)
        return true unless fought.of.is_a?(Profile::Target)

        @state["fights"].any? { |fight| fight["plug"] == fought.of.id && fight["over_at"] }
      end

      def way(name, kept, tried, fought)
        return nil if kept.empty? && tried.empty?

        job = job_of(kept, tried)
        so_far = AmountSoFar.new(job)
        total = so_far.total(fought)
        Way.new(
          name: name,
          targets: kept.map(&:id),
          tried: tried.transform_keys(&:id),
          by_tenths: job.override_tenths + so_far.extra_tenths(fought),
          lines: job.lines + so_far.parts(fought),
          trouble: @standing.everything_fought.map { |one| { "kind" => one.kind, "of" => Standing.place_of(one) } },
          total_cents: total,
          limit_cents: limit(name, job, total, so_far, fought),
          to_go: to_go(job, fought)
        )
      end

      def job_of(kept, tried)
        ids = kept.map(&:id) + tried.keys.map { |target| Profile::Target.left_id(target.id) }
        engine = Profile::Engine.build(@request["engine"]).with_left(tried.transform_keys(&:id))
        Estimate::Request.build(@request.merge("engine" => engine.source, "targets" => ids)).job
      end

      # What is left in the head may fight as well; where nothing is, the house's margin.
      def limit(name, job, total, so_far, fought)
        least = Money.round(total * (1 + ThreePoints.exact(job.car.house["call_margin"])))
        return least unless name == "finish" && untouched.any?

        live = Risk::LiveOdds.new({ "out" => @standing.out_uncounted }, job.targets, house: job.car.house)
        ahead = Risk::Trouble.for(job.with(live: live)) or return least
        plugs = so_far.total(fought.select { |one| one.of.is_a?(Profile::Target) })
        [ahead.allowance.not_above_cents + (total - plugs), least].max
      end

      def to_go(job, fought)
        fights = fought.reject { |one| over?(one) }
        pieces_to_go(job) + extraction(job, fights) + cure(job, fights)
      end

      # At the pace so far.
      def pieces_to_go(job)
        left = Sheet.new(job).timed.reject { |piece| @state["done"].key?(piece.id) }
        left.sum(0.0) { |piece| piece.waiting ? piece.minutes : piece.minutes * pace }
      end

      def pace
        time = @standing.to_h["time"]
        time["left"].positive? ? time["to_go"] / time["left"] : 1
      end

      def extraction(job, fights)
        trouble = AmountSoFar.new(job)
        points = fights.map { |one| trouble.minutes(one) }
        points.sum(0.0) { |one| one.mean + (SURE * Math.sqrt(one.variance)) }
      end

      # Adhesive cures once for all that are out together, else for each.
      def cure(job, fights)
        shells = fights.count { |one| one.kind == "broken" && job.removal&.leaves_shell?(one.of.cylinders.first) }
        shells = [shells, 1].min if job.plan.order_of_work == "all-out"
        shells * job.car.house["cure_minutes"]
      end
    end
  end
end
