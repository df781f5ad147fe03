# frozen_string_literal: true

module NimbleLedger
  module Card
    # What the work on a target asks for: tools, cautions, its parts; for a plug its gap, torque or angle, and what it
    # takes if it breaks.
    class PieceOfTarget
      # @param target [Profile::Target]
      # @param job [Job]
      # @param compound [Boolean] whether compound is in force
      def initialize(target, job, compound)
        @target = target
        @job = job
        @engine = job.car.engine
        @house = job.car.house
        @compound = compound
        freeze
      end

      # @return [Hash] work, with, cautions, parts, and plug where it is one
      def to_h
        way = @job.plan.ways.fetch(@target)
        {
          "work" => @target.work,
          "with" => tools(way),
          "cautions" => (@target.cautions + way.cautions).uniq,
          "parts" => parts,
          "plug" => @target.plug? ? plug : nil
        }.compact
      end

      private

      def tools(way)
        hex = @target.plug? && @engine.plug("hex_mm")
        socket = hex ? ["#{hex} mm plug socket"] : []
        named = @target.tools.any? ? @target.tools : socket
        (named + way.needs).uniq
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
        stated = @engine.plugs.merge(@target.own_plug)
        torque = Bench::Torque.new({ "compound" => @compound }, plug: stated, head: @engine.head, house: @house)
        angle =
          Bench::Angle.new({ "seat_state" => "new" }, plug: stated, wrench_fits: @target.wrench_fits?, house: @house)
        {
          "count" => @target.plugs,
          "gap_mm" => stated["gap_mm"],
          "fine_wire" => Bench::Gap.fine_wire?(stated["grade"]),
          "leaves_shell" => @job.removal.leaves_shell?(@target.cylinders.first),
          "torque_nm" => torque.nm,
          "wrench_nm" => torque.nm && [torque.nm, torque.nm / @house["wrench_least"]],
          "turns" => angle.turns,
          "by" => angle.needed? ? "angle" : "torque",
          "seat" => stated["seat"],
          "thread_mm" => stated["thread_mm"],
          "hex_mm" => stated["hex_mm"]
        }.compact
      end
    end
  end
end
