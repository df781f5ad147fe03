# frozen_string_literal: true

module NimbleLedger
  module Day
    # How long all work of a job takes on the clock, as a board takes it (model.md section 11): the hours of one person
    # each, corrected by what the shop has learned, with everything that may fight back in it.
    #
    #   WorkTime.of(job).rows  #=> [{"chance" => 0.81, "mean_minutes" => 96.2, "variance" => 210.4}, …]
    class WorkTime
      # Outcomes of one job are put together to so many (a board takes 400 at most): measured on eight plugs that may
      # each break, the quantiles moved by less than 0.01 of a minute, at a fifth of the time.
      MOST = 64

      # What may still fight back: what an OutcomeSpace asks of Risk::Outcomes.
      Ahead = Struct.new(:plug_rows, :mishaps, :happened, :frailty)

      # Before anything of it is done.
      # @param job [Job]
      # @return [WorkTime]
      def self.of(job)
        variation = job.car.house["common_variation"]
        total = Time::LognormalTotal.of(job.plan.job.tasks.map(&:points), variation)
        total = job.car.correction.of(total, common_variation: variation) if job.car.correction
        new(job, total.mean, total.variance, job.outcomes)
      end

      # While it is under way: what the done pieces took tells of the rest, and what has come out of what may still
      # fight.
      # @param left [Array<Time::Sequence::Piece>] hands-on pieces that are left
      # @param done [Array<Time::Sequence::Piece>] hands-on pieces that are done
      # @param took [Float] minutes they took
      # @param spent [Float] minutes already spent on the first of those left
      # @param outcomes [Risk::Outcomes, nil] by what has come out
      def self.left(job, left:, done:, took:, outcomes:, spent: 0.0)
        pace =
          Pace.new(
            job.car.house["common_variation"],
            done: told(done, took),
            left: Pace::Left.new(*sums(left)),
            in_hand: spent.positive? ? Pace::InHand.new(left.first.points.mean, spent) : nil,
            correction: learned_factor(job)
          )
        new(job, pace.mean_minutes, pace.variance, outcomes && ahead(outcomes, left))
      end

      # @return [Array(Float, Float)] mean and variance of the pieces' minutes
      def self.sums(pieces) =
        %i[mean variance].map { |name| pieces.sum(0.0) { |piece| piece.points.public_send(name) } }

      # @return [Pace::Done, nil] nil where nothing tells of the rest yet
      def self.told(done, took)
        mean, variance = sums(done)
        Pace::Done.new(mean, variance, took) if mean.positive? && took.positive?
      end

      # Mishaps of steps that are still to be touched.
      def self.ahead(outcomes, left)
        steps = left.map(&:ref)
        mishaps = outcomes.mishaps.select { |one| steps.include?(one.step) }
        Ahead.new(outcomes.plug_rows, mishaps, [], outcomes.frailty)
      end

      # m′/m where the shop has learned.
      def self.learned_factor(job) = job.plan.job.total.mean / job.plan.job.estimated.mean
      private_class_method :sums, :told, :ahead, :learned_factor

      # @param mean [Float] minutes without trouble
      # @param variance [Float]
      # @param outcomes [Risk::Outcomes, Ahead, nil]
      def initialize(job, mean, variance, outcomes)
        @job = job
        @mean = mean
        @variance = variance
        @outcomes = outcomes
        freeze
      end

      # @return [Array<Hash>] "chance", "mean_minutes", "variance" (formats.md)
      def rows
        pooled = Risk::OutcomeSpace.pooled(endings, MOST)
        whole = pooled.sum(0.0, &:chance)
        pooled.map do |one|
          { "chance" => one.chance / whole, "mean_minutes" => @mean + one.mean, "variance" => @variance + one.variance }
        end
      end

      private

      # With the cure of what is left of a broken plug in the minutes of its outcome.
      def endings
        return [Risk::OutcomeSpace::Outcome.new(1.0, 0, 0, 0, 0, 0.0, 0.0, 0, 0, 0)] unless @outcomes

        space = Risk::OutcomeSpace.new(@outcomes, house: house)
        space.likely.map do |one|
          mean = one.mean + cure(one.broken)
          Risk::OutcomeSpace::Outcome.new(one.chance, *one.counts, mean, one.variance, 0, 0, 0)
        end
      end

      def house = @job.car.house

      def cure(broken)
        return 0.0 if broken.zero? || !@job.outcomes.multi_piece?

        house["cure_minutes"] * (@job.plan.order_of_work == "all-out" ? 1 : broken)
      end
    end
  end
end
