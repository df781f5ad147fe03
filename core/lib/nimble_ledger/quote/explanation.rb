# frozen_string_literal: true

module NimbleLedger
  module Quote
    # Why it costs this, in plain words built from the plan, never typed (model.md section 2, "Why"). Who lies under
    # what is said for exactly the cylinders it is true of.
    class Explanation
      SPOKEN_WORDS = 90

      # @param answer [Job] of the job
      # @param reach [Picture::Reach] for the soundings of the other cylinders
      # @param works [Array<String>] kinds of work chosen
      # @param decimal [String] the mark before decimals where the shop is at home
      def initialize(answer, reach, works, decimal: ".")
        @decimal = decimal
        @answer = answer
        @plan = answer.plan
        @reach = reach
        @works = works
        @cylinders = @plan.targets.select(&:at_cylinders?).flat_map(&:cylinders).uniq.sort
        @under = LayersOver.new(@plan, @cylinders)
        @layers = LayersOver.layers(@plan)
        freeze
      end

      # Two or three sentences for the customer at the counter.
      def short = [where, why, comparison].compact.join(" ")

      # One paragraph to read out on the phone.
      # @return [String] at most SPOKEN_WORDS words
      def spoken
        sentences = [where, why, comparison, *pace].compact
        sentences[0] = plainly if words(sentences[0]) > SPOKEN_WORDS / 2
        sentences
          .each_with_object([]) do |sentence, said|
            said << sentence if words((said + [sentence]).join(" ")) <= SPOKEN_WORDS
          end
          .join(" ")
      end

      # The job from the first step off to the last one on, in the order of the work, with its minutes.
      # @return [Array<String>]
      def in_order
        pieces = @plan.sequence.pieces.reject { |piece| piece.kind == "house" || piece.clock_minutes.zero? }
        pieces.map { |piece| "#{named(piece)}, #{piece.clock_minutes.round} min." }
      end

      private

      def words(text) = text.split.size

      def where
        return "This is work on the engine as a whole." if @cylinders.empty?

        "#{Words.subject(@cylinders)} #{clauses.join("; ")}."
      end

      # Where names are too long to be said in one breath.
      def plainly =
        "#{Words.subject(@cylinders)} #{verb(@cylinders)} under #{Words.count(layers.size).downcase} " \
          "#{layers.size == 1 ? "layer" : "layers"}."

      def clauses
        return ["#{verb(@cylinders)} in the open: nothing has to come off first"] if layers.empty?

        return apart if @under.common.empty?

        [lying(@cylinders, @under.common, bank), *@under.some.map { |numbers, steps| also(numbers, steps) }]
      end

      # No layer lies over all of them: the open ones first, then who lies under what.
      def apart
        return ["#{verb(@cylinders)} in the open"] if @under.some.empty?

        named = []
        clauses = @under.open.any? ? ["#{Words.cylinders(@under.open)} #{verb(@under.open)} in the open"] : []
        clauses +=
          @under.some.map do |numbers, steps|
            said =
              (numbers - named).empty? ? also(numbers, steps) : "#{Words.cylinders(numbers)} #{lying(numbers, steps)}"
            named |= numbers
            said
          end
        ["are not alike: #{clauses.first}", *clauses.drop(1)]
      end

      def lying(numbers, steps, place = "") =
        "#{verb(numbers)} #{place}#{past(steps)} #{Words.list(steps.map { |step| Words.layer(step) })}"

      def also(numbers, steps) =
        "#{Words.cylinders(numbers)} also #{past(steps)} #{Words.list(steps.map { |step| Words.layer(step) })}"

      def verb(numbers) = numbers.size == 1 ? "sits" : "sit"

      # How what is in the way lies to the work: from beneath, at the side, or over it. Nothing sits under a mount.
      def past(steps)
        return "reached from beneath past" if steps.any? { |step| step.zone == "under" }
        return "reached past" if steps.any? { |step| step.people > 1 }

        @plan.engine.arrangement == "flat" ? "behind" : "under"
      end

      def bank
        names = @plan.engine.cylinders.select { |cylinder| @cylinders.include?(cylinder.number) }.map(&:bank).uniq
        names.size == 1 && names.first ? "on the #{names.first} bank, " : ""
      end

      attr_reader :layers

      def why
        hours = Words.hours(@answer.quoted_tenths / 10.0, @decimal)
        return "The #{hours} hours are the work itself, the start and the road test." if layers.empty?

        verb = layers.size == 1 ? "layer comes" : "layers come"
        before =
          if @cylinders.empty?
            " before it can start"
          elsif @cylinders.size == 1
            " before anyone can touch it"
          elsif @under.alike?
            " before anyone can touch them"
          else
            " in all"
          end
        "#{Words.count(layers.size)} #{verb} off#{before}, so #{share} of the #{hours} hours is reaching."
      end

      def share
        reaching = reaching_minutes / @plan.job.estimated.mean
        if reaching >= 0.9
          "nearly all"
        elsif reaching >= 0.65
          "most"
        elsif reaching >= 0.5
          "more than half"
        elsif reaching >= 0.3
          "a good part"
        else
          "a small part"
        end
      end

      # Access alone: what comes off and goes back, what closes it; not the plug's own way out and in.
      def reaching_minutes =
        @plan
          .job
          .tasks
          .sum(0.0) do |task|
            step = @plan.engine.step(task.ref) if %w[remove refit closing].include?(task.kind)
            step && !step.takes_out_plug? ? task.mean : 0.0
          end

      # The same work where it is easiest, when that is clearly less.
      def comparison
        return nil unless @cylinders.size == 1 && @works.any?

        here = @reach.soundings[@cylinders.first]
        number, hours = @reach.soundings.reject { |n, h| h.nil? || n == @cylinders.first }.min_by { |n, h| [h, n] }
        return nil unless number && here && (here - hours).abs >= 0.3

        return "The same on number #{number} would be #{Words.hours(hours, @decimal)}." if hours < here

        "Number #{@cylinders.first} is the easy one: every other takes longer."
      end

      def named(piece)
        case piece.kind
        when "remove"
          "Off: #{@plan.engine.step(piece.ref).label}"
        when "refit"
          "Back on: #{@plan.engine.step(piece.ref).label}"
        when "work"
          "#{WORKED.fetch(Time::PieceId.read(piece.id).act, "Work")}: #{piece.label}"
        else
          piece.label
        end
      end

      WORKED = { "out" => "Out", "in" => "In" }.freeze
      private_constant :WORKED

      def pace
        job = @plan.job
        [
          "Without removal trouble, half of such jobs are done within #{Words.hours(job.hours(0.5), @decimal)} " \
            "hours, 80 of 100 within #{Words.hours(job.hours(0.8), @decimal)}.",
          "Receiving, checks and the road test are #{job.minutes("house").round} minutes of it."
        ]
      end
    end
  end
end
