# frozen_string_literal: true

module NimbleLedger
  module Card
    # What is left of a job under way, as the shop's board takes it (model.md section 11, "Under way"): the pieces that
    # are not done, at the pace of those that are, with what may still fight back.
    #
    #   left = LeftToDo.new(standing, now: Time.now)
    #   left.segments  #=> [{"kind" => "work", "minutes" => 38.0, "people" => 1}]
    #   left.time      #=> [{"chance" => 1.0, "mean_minutes" => 41.7, "variance" => 180.2}]
    class LeftToDo
      # @param standing [Standing]
      # @param now [Time]
      def initialize(standing, now:)
        @standing = standing
        @state = standing.state
        @job = standing.job
        @now = now
        done, left = Sheet.new(@job).named_pieces.partition { |id, _piece| @state["done"].key?(id) }
        @done = done.to_h
        @left = left.to_h
        freeze
      end

      # @return [Job]
      attr_reader :job

      # Whether work is left.
      def any? = segments.any?

      # Whether somebody has it in hand: begun, not paused, and what comes next is work.
      def in_hand? = !@state["started_at"].nil? && @state["paused"].nil? && any? && segments.first["kind"] == "work"

      # @return [Array<Hash>] see Day::Segments
      def segments = Day::Segments.of(waits_shortened, overnight: @job.plan.overnight?)

      # @return [Array<Hash>] see Day::WorkTime
      def time
        hands = ->(pieces) { pieces.reject { |_id, piece| piece.waiting? || piece.clock_minutes.zero? } }
        done = hands.call(@done)
        minutes = @standing.hands_on.minutes
        Day::WorkTime.left(
          @job,
          left: hands.call(@left).values,
          done: done.values,
          took: done.keys.sum(0.0) { |id| minutes.fetch(id, 0.0) },
          outcomes: @standing.outcomes,
          spent: in_hand? ? spent : 0.0
        ).rows
      end

      # Minutes of the job's own course that are done, waits among them.
      # @return [Float]
      def done_minutes = @done.values.sum(0.0, &:clock_minutes)

      private

      # A wait that runs already has less left; a moment of it at least, for it is not over.
      def waits_shortened
        @left.map do |id, piece|
          since = @state["waiting"][id]
          next piece unless since && piece.waiting? && piece.clock_minutes.positive?

          gone = (@now - ::Time.iso8601(since)) / 60
          piece.dup.tap do |one|
            one.points = ThreePoints.exactly((piece.clock_minutes - gone).clamp(1.0, piece.clock_minutes))
          end
        end
      end

      # Since the last mark.
      def spent
        last = [@state["started_at"], *@state["done"].values].compact.map { |text| ::Time.iso8601(text) }.max
        ((@now - last) / 60).clamp(0.0, 24 * 60.0)
      end
    end
  end
end
