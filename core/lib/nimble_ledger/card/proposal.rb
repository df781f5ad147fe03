# frozen_string_literal: true

module NimbleLedger
  module Card
    # What is proposed for what was found (model.md section 15): work beside what is open, priced as one joint plan; or
    # to clean again; or to look again in some weeks.
    class Proposal
      FOLLOW_UP_WEEKS = 6
      # Finding to the works that mend it, the first the engine offers at the place.
      WORKS = {
        "oil-in-well" => %w[tube-seal cover-gasket],
        "boot-torn" => %w[boot wire coil],
        "tracking" => %w[boot wire coil],
        "oily-plug" => %w[plug],
        "ash-on-plug" => %w[plug],
        "wrong-plug" => %w[plug]
      }.freeze
      CLEAN = %w[water-in-well oil-in-well].freeze
      WATCH = %w[oily-plug ash-on-plug].freeze

      # @param finding [String] one of Finding::KINDS
      # @param cylinder [Integer, nil]
      # @param job [Job] what is open
      def initialize(finding, cylinder, job)
        @finding = finding
        @cylinder = cylinder
        @job = job
        freeze
      end

      # @return [Array<Profile::Target>] work that is not in the job yet
      def targets
        return wrong_plugs(@job.car.engine) if @finding == "wrong-plug"

        mending - @job.targets
      end

      # Small repairs that no profile knows, as lines by hand.
      # @return [Array<Hash>] fitting Price::HandLine::ENTERED
      def lines = Repair.for(@finding, @cylinder, @job.car.house)&.entered.to_a

      # Whether work is called for that the engine's profile does not have here: the advisor adds it by hand.
      def lacking? = WORKS.key?(@finding) && @finding != "wrong-plug" && !@cylinder.nil? && mending.empty?

      # Whether the well is cleaned again before the new plug.
      def clean? = CLEAN.include?(@finding)

      # Weeks after which somebody looks again, where it is only watched.
      def follow_up_weeks = WATCH.include?(@finding) ? FOLLOW_UP_WEEKS : nil

      # The job with it, as one plan.
      # @return [Job, nil] nil where nothing is added, or it cannot be reached
      def joint
        return nil if targets.empty? && lines.empty?

        @job.with_targets(
          @job.targets + targets,
          lines: @job.lines + lines.map { |entered| Price::HandLine.of(entered) }
        )
      rescue ImpossiblePlan
        nil
      end

      # @return [Hash] see the contract, CardProposal
      def to_h
        both = joint
        {
          "targets" => both ? targets.map { |target| { "id" => target.id, "label" => target.label } } : [],
          "lines" => lines,
          "added_hours" => both && (((both.quoted_tenths - @job.quoted_tenths) / 10.0) + hours_by_hand),
          "added_cents" => both&.price && (both.price.total_cents - @job.price.total_cents),
          "total_cents" => both&.price&.total_cents,
          "lacking" => lacking?,
          "clean" => clean?,
          "follow_up_weeks" => follow_up_weeks
        }
      end

      private

      def hours_by_hand = lines.select { |line| line["class"] == "labor" }.sum { |line| line["quantity"] }

      # The first kind of work that mends it and the engine offers at the place, in the job or not.
      def mending
        engine = @job.car.engine
        found =
          WORKS
            .fetch(@finding, [])
            .map { |work| engine.targets.select { |target| target.work == work && here?(target) } }
        first = found.find(&:any?) || []
        first.first&.work == "coil" && fed_by_wire? ? [] : first
      end

      # A coil that sits on another plug and only feeds this one is not what is torn here.
      def fed_by_wire?
        engine = @job.car.engine
        coil = engine.coils.find { |one| one.cylinders.include?(@cylinder) }
        return false unless coil && coil.cylinders.size > 1

        step = engine.step(coil.id)
        step.nil? || (step.cylinder && step.cylinder != @cylinder)
      end

      def here?(target) = @cylinder.nil? ? false : target.cylinders.include?(@cylinder)

      # The right one for all.
      def wrong_plugs(engine) = engine.targets.select(&:plug?) - @job.targets
    end
  end
end
