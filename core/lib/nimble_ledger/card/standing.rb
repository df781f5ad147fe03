# frozen_string_literal: true

module NimbleLedger
  module Card
    # Where a job stands beyond its marks: the odds of the plugs still in the head and what moved them, what it comes to
    # so far and what each trouble would make of it, which plug is unlike the others, how the time goes (model.md
    # sections 5 "Live" and 15).
    class Standing
      # A change of odds worth a sentence.
      WORTH_SAYING = 0.01

      # @param job [Job] as agreed, without marks
      # @param fold [Fold]
      # @param nights [Nights]
      # @param limit_cents [Integer, nil] agreed
      # @param agreed_cents [Integer, nil] agreed, where two scopes come to more than both as one job
      # @param counted [Array<Hash>] what happened and is in the agreed price already: kind, of
      def initialize(job, fold, nights:, limit_cents: nil, agreed_cents: nil, counted: [])
        @job = job
        @fold = fold
        @state = fold.state
        @limit = limit_cents
        @counted = counted
        @nights = nights
        @pieces = Sheet.new(job).timed
        @bill = AmountSoFar.new(job, agreed_cents: agreed_cents)
        freeze
      end

      # @return [Hash] see the contract, CardStanding
      def to_h
        { "odds" => odds, "money" => money, "odd_plug" => odd_plug, "time" => time, "open" => OpenItems.new(self).list }
      end

      attr_reader :state, :job

      # Minutes measured on each piece, and what fought back.
      # @return [HandsOn]
      def hands_on = HandsOn.new(@fold.events, @pieces, nights: @nights)

      # @return [Array<HandsOn::Piece>]
      attr_reader :pieces

      # What the job comes to by what has fought back so far.
      # @return [Integer, nil] cents; nil where a part has no price
      def so_far_cents = @bill.total(fought)

      # What fought back and is in no agreed price yet.
      # @return [Array<AmountSoFar::Fought>]
      def fought
        left = @counted.map { |row| row.values_at("kind", "of") }
        everything_fought.reject do |one|
          at = left.index([one.kind, Standing.place_of(one)])
          at && left.delete_at(at)
        end
      end

      # Everything that fought back, counted or not.
      # @return [Array<AmountSoFar::Fought>]
      def everything_fought
        plugs =
          out.flat_map do |id, came|
            target = @job.car.engine.target(id)
            [came].flatten.compact.map { |one| AmountSoFar::Fought.new(one["outcome"], target) }
          end
        plugs.select { |one| %w[broken thread].include?(one.kind) } + mishaps_so_far
      end

      # Where something happened: a target, or a step and what gave way on it.
      # @return [String]
      def self.place_of(fought)
        fought.kind == "mishap" ? "#{fought.of.step} #{fought.of.what}" : fought.of.id
      end

      # Whether what happened comes to more than was agreed.
      def over_limit? = @bill.known? && over?(so_far_cents)

      # Plugs that are out, those whose trouble is in the agreed price as if they had come freely.
      def out_uncounted
        counted = @counted.map { |row| row["of"] }
        out.to_h { |id, came| [id, counted.include?(id) ? calm(came) : came] }
      end

      # Plugs that are out, as an estimate request says it (formats.md, "live").
      # @return [Hash] target id to what came of it
      def out
        @job
          .targets
          .select(&:plug?)
          .each_with_object({}) do |target, found|
            came = (1..target.plugs).map { |nth| state["plugs"].dig(Fold.plug_key(target.id, nth), "out") }
            next if came.none?

            plain = came.map { |one| one&.slice("outcome", "sign")&.compact }
            found[target.id] = target.plugs == 1 ? plain.first : plain
          end
      end

      # What may still happen, by what came out.
      # @return [Risk::Outcomes, nil]
      def outcomes
        return @job.outcomes if out.empty? || @job.outcomes.nil?

        Risk::Outcomes.new(@job.plan, @job.removal, @job.car, live: live)
      end

      private

      def live = Risk::LiveOdds.new({ "out" => out }, @job.targets, house: @job.car.house)

      # The plugs still in the head: chances before the job, and now.
      def odds
        return [] unless outcomes

        known = @job.outcomes.plug_rows.to_h { |row| [row.target, row.chances] }
        outcomes.plug_rows.map do |row|
          was = known.fetch(row.target)
          {
            "target" => row.target.id,
            "label" => row.target.label,
            "fights" => 1 - row.chances.no_trouble,
            "fights_before" => 1 - was.no_trouble,
            "breaks" => row.chances.broken,
            "breaks_before" => was.broken,
            "moved" => (was.no_trouble - row.chances.no_trouble).abs >= WORTH_SAYING
          }
        end
      end

      # Minutes of trouble to expect of the plugs still in.
      def trouble_ahead = outcomes ? outcomes.plug_rows.sum(0.0) { |row| row.count * outcomes.extra_of(row) } : 0.0

      def calm(came)
        came.is_a?(Array) ? came.map { |one| one && calm(one) } : came.merge("outcome" => "free")
      end

      # Fights with a step's connector or bolt, as its profile prices them.
      def mishaps_so_far
        state["fights"]
          .select { |fight| %w[connector bolt].include?(fight["what"]) }
          .filter_map { |fight| mishap_of(fight["piece"], fight["what"]) }
          .map { |mishap| AmountSoFar::Fought.new("mishap", mishap) }
      end

      WORDS = { "connector" => /connector|lock/i, "bolt" => /bolt|nut|stud/i }.freeze

      def mishap_of(piece, what)
        step = Time::PieceId.read(piece).ref
        found = Risk::Mishaps.of(@job.plan, condition: @job.car.condition, house: @job.car.house)
        found.find { |mishap| mishap.step == step && mishap.what.match?(WORDS.fetch(what)) }
      end

      def money
        return nil unless @bill.known?

        so_far = fought
        {
          "so_far_cents" => so_far_cents,
          "limit_cents" => @limit,
          "over" => over?(so_far_cents),
          "next" => nexts(so_far)
        }
      end

      # What each trouble on each plug still in would make of the total, and whether the limit holds it.
      def nexts(so_far)
        left = @job.outcomes ? @job.targets.select { |target| target.plug? && left?(target) } : []
        left.flat_map do |target|
          %w[broken thread].map do |kind|
            one = AmountSoFar::Fought.new(kind, target)
            total = @bill.total(so_far + [one])
            {
              "target" => target.id,
              "what" => kind,
              "minutes" => @bill.minutes(one).mean,
              "total_cents" => total,
              "over" => over?(total)
            }
          end
        end
      end

      def left?(target) = (1..target.plugs).any? { |nth| !state["plugs"].dig(Fold.plug_key(target.id, nth), "out") }

      def over?(total) = !@limit.nil? && !total.nil? && total > @limit

      # The one plug that reads unlike all the others that were read, and those at least two and alike.
      # @return [Hash, nil] key, conditions, others
      def odd_plug
        read = state["plugs"].filter_map { |key, plug| plug["read"] && [key, plug["read"]["conditions"].to_a.sort] }
        alike = read.group_by(&:last)
        return nil unless read.size >= 3 && alike.size == 2

        few, many = alike.values.sort_by(&:size)
        return unless few.size == 1 && many.size >= 2
        { "key" => few[0][0], "conditions" => few[0][1], "others" => many[0][1] }
      end

      # Minutes of work that say as much about the pace as an hour reckoned beforehand.
      HELD = 60.0

      def pace(reckoned, taken) = (HELD + taken) / (HELD + reckoned)

      # Minutes reckoned for what is done, those it took, and what is left on the clock: as reckoned, and at the pace so
      # far.
      def time
        done, left = @pieces.partition { |piece| state["done"].key?(piece.id) }
        measured = hands_on
        minutes = measured.minutes
        hands = done.reject(&:waiting)
        reckoned = hands.sum(0.0, &:minutes)
        taken = hands.sum(0.0) { |piece| minutes.fetch(piece.id, 0.0) }
        {
          "reckoned_done" => reckoned,
          "taken" => taken,
          "trouble" => measured.trouble,
          "trouble_ahead" => trouble_ahead,
          "left" => left.sum(0.0, &:minutes),
          "to_go" => left.sum(0.0) { |piece| piece.waiting ? piece.minutes : piece.minutes * pace(reckoned, taken) }
        }
      end
    end
  end
end
