# frozen_string_literal: true

module NimbleLedger
  module Quote
    # Why it costs this, in plain words built from the plan, never typed (model.md section 2, "Why").
    class Explanation
      # @param answer [Estimate::Answer] of the job
      # @param reach [Picture::Reach] for the soundings of the other cylinders
      # @param works [Array<String>] kinds of work chosen
      def initialize(answer, reach, works)
        @answer = answer
        @plan = answer.plan
        @reach = reach
        @works = works
        @cylinders = @plan.targets.flat_map(&:cylinders).uniq.sort
        freeze
      end

      # Two or three sentences for the customer at the counter.
      def short = [where, why, comparison].compact.join(" ")

      # The longer form, to read out: the job from the first step to the road test.
      def long
        ["#{short}#{" " unless short.empty?}In order:", *sequence, pace].join("\n")
      end

      private

      def where
        return "This is work on the engine as a whole." if @cylinders.empty?

        subject = @cylinders.size == 1 ? "Number #{@cylinders.first} sits" : "Numbers #{Words.cylinders(@cylinders)} sit"
        return "#{subject} in the open: nothing has to come off first." if layers.empty?

        "#{subject} #{bank}#{past} #{Words.list(heaviest.map { |step| Words.layer(step) })}."
      end

      # How what is in the way lies to the work: from beneath, at the side, or over it.
      def past
        return "reached from beneath past" if layers.any? { |step| step.zone == "under" }

        @plan.engine.arrangement == "flat" ? "behind" : "under"
      end

      def bank
        names = @plan.engine.cylinders.select { |cylinder| @cylinders.include?(cylinder.number) }.map(&:bank).uniq
        names.size == 1 && names.first ? "on the #{names.first} bank, " : ""
      end

      def layers = @plan.turns.shared_steps

      # The two that take longest; what only holds or lifts the car is not in the way.
      def heaviest
        own = layers.select { |step| step.needs.empty? }
        (own.empty? ? layers : own).max_by(2) { |step| minutes(step) }.sort_by { |step| -layers.index(step) }
      end

      def minutes(step) = @plan.job.tasks.select { |task| task.ref == step.id && %w[remove refit].include?(task.kind) }.sum(&:mean)

      def why
        hours = Words.hours(@answer.quoted_tenths)
        return "The #{hours} hours are the work itself, the start and the road test." if layers.empty?

        verb = layers.size == 1 ? "layer comes" : "layers come"
        "#{Words.count(layers.size)} #{verb} off before anyone can touch #{@cylinders.size == 1 ? "it" : "them"}, so #{share} of the #{hours} hours is reaching."
      end

      def share
        reaching = @plan.job.minutes("remove", "refit", "closing") / @plan.job.total.mean
        if reaching >= 0.7 then "nearly all"
        elsif reaching >= 0.5 then "more than half"
        elsif reaching >= 0.3 then "a good part"
        else "a small part"
        end
      end

      # The same work where it is easiest, when that is clearly less.
      def comparison
        return nil unless @cylinders.size == 1 && @works.any?

        here = @reach.soundings[@cylinders.first]
        number, hours = @reach.soundings.reject { |n, h| h.nil? || n == @cylinders.first }.min_by { |n, h| [h, n] }
        return nil unless number && here && (here - hours).abs >= 0.3

        return "The same on number #{number} would be #{format("%.1f", hours)}." if hours < here

        "Number #{@cylinders.first} is the easy one: every other takes longer."
      end

      def sequence
        rows = @plan.steps.map { |step| "Off: #{step.label}, #{figure(step.id, "remove")}." }
        rows += @plan.turns.list.flat_map { |turn| turn.targets.map { |target| "Work: #{target.label}, #{figure(target.id, "work", "soak")}." } }
        rows += @plan.turns.shared_targets.map { |target| "Work: #{target.label}, #{figure(target.id, "work", "soak")}." }
        rows + @plan.steps.reverse.map { |step| "Back on: #{step.label}, #{figure(step.id, "refit", "closing")}." }
      end

      def figure(ref, *kinds)
        "#{@plan.job.tasks.select { |task| task.ref == ref && kinds.include?(task.kind) }.sum(&:mean).round} min"
      end

      def pace
        job = @plan.job
        house = job.minutes("house").round
        "Receiving, checks and road test add #{house} min. Half of such jobs are done within #{format("%.1f", job.hours(0.5))} hours, " \
          "80 of 100 within #{format("%.1f", job.hours(0.8))}."
      end
    end
  end
end
