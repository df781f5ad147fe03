# frozen_string_literal: true

module NimbleLedger
  module Card
    # What the work on a target asks for: tools, cautions, its parts; for a plug its gap, torque or angle, and what it
    # takes if it breaks.
    class PieceOfTarget
      # Torque a plug goes in with, as the card says it.
      # @param target [Profile::Target]
      # @param job [Job]
      # @return [Float, nil] N·m
      def self.torque(target, job) = new(target, job).torque.nm

      # @param target [Profile::Target]
      # @param job [Job]
      def initialize(target, job)
        @target = target
        @job = job
        @engine = job.car.engine
        @house = job.car.house
        freeze
      end

      # @return [Hash] work, with, cautions, parts, does, and plug where it is one
      def to_h
        way = @job.plan.ways[@target]
        {
          "work" => @target.work,
          "with" => ToolsOfWork.of(@target, @engine, (way&.needs || []).grep_v(Words::PULLER)),
          "cautions" => (@target.cautions + (way&.cautions || [])).uniq,
          "parts" => parts,
          "does" => Words::WORK[kind],
          "plug" => @target.plug? ? plug : nil
        }.compact
      end

      # @return [Bench::Torque]
      def torque
        compound = Parts::Compound.used?(@engine, @house)
        Bench::Torque.new({ "compound" => compound }, plug: stated, head: @engine.head, house: @house)
      end

      private

      # Work that was opened for and left has no minutes of its own.
      def kind
        return "crank" if @target.crank?

        @target.work == "other" && @target.minutes.high.zero? ? "left" : @target.work
      end

      def stated = @engine.plug_at(@target)

      # What is noted on this car of its plugs.
      # @return [Hash]
      def own
        notes = @job.car.plug_notes or return {}

        {
          "gap_mm" => notes.gap_mm,
          "own_gap" => notes.gap_mm && true,
          "torque_note" => notes.torque_note.empty? ? nil : notes.torque_note
        }.compact
      end

      def parts
        @job
          .needed
          .rows
          .select { |row| row.because.include?(@target.id) && row.rule == "needed" }
          .map do |row|
            {
              "part" => row.part,
              "label" => @job.car.catalog&.description(row.part).to_s,
              "quantity" => share(row.part)
            }
          end
      end

      # How many of a part this work takes: its own, its plugs, or one coil.
      def share(part)
        own = @target.own_parts.find { |one| one["part"] == part }
        return own["quantity"].to_i if own

        @target.plug? ? @target.plugs : 1
      end

      def plug
        nm = torque.nm
        angle =
          Bench::Angle.new({ "seat_state" => "new" }, plug: stated, wrench_fits: @target.wrench_fits?, house: @house)
        {
          "count" => @target.plugs,
          "gap_mm" => stated["gap_mm"],
          "fine_wire" => Bench::Gap.fine_wire?(stated["grade"]),
          "leaves_shell" => @job.removal&.leaves_shell?(@target.cylinders.first) || false,
          "torque_nm" => nm,
          "wrench_nm" => nm && [nm, nm / @house["wrench_least"]],
          "turns" => angle.turns,
          "by" => angle.needed? ? "angle" : "torque",
          "seat" => stated["seat"],
          "thread_mm" => stated["thread_mm"],
          "hex_mm" => stated["hex_mm"]
        }.compact.merge(own)
      end
    end
  end
end
