# frozen_string_literal: true

module NimbleLedger
  module Card
    # What a step asks for when it comes off, and what is ticked when it goes back: every bolt, clip, hose, connector
    # and seal; a coil is pressed home and its connector clicks; ports are covered, uncovered and looked into (model.md
    # section 15). Cautions and tools of coming off are not said again at going back on.
    class PieceOfStep
      # @param step [Profile::Step]
      # @param kind ["remove", "refit"]
      # @param job [Job]
      # @param wires [Wires]
      def initialize(step, kind, job, wires)
        @step = step
        @kind = kind
        @job = job
        @engine = job.car.engine
        @wires = wires
        freeze
      end

      # @return [Hash] fasteners, does, ticks, coil; coming off with and cautions, going on parts and back
      def to_h
        about = { "fasteners" => fasteners, "coil" => coil? }
        return about.merge("ticks" => ticks, "parts" => seals, "back" => @step.back, "does" => going_on) if refit?

        about.merge("with" => tools, "cautions" => @step.cautions, "ticks" => covers, "does" => coming_off)
      end

      private

      def refit? = @kind == "refit"
      def coil? = @engine.coils.any? { |coil| coil.id == @step.id }

      def fasteners
        @step.fasteners.map do |one|
          {
            "what" => one["what"].to_s,
            "size" => one["size"],
            "count" => (one["count"] || 1).to_i,
            "torque_nm" => one["torque_nm"],
            "pattern" => pattern(one),
            "new" => one["rule"] == "replace"
          }.compact
        end
      end

      def pattern(fastener)
        return fastener["pattern"] unless fastener["passes"] == 2

        format(Words::TWICE, pattern: fastener["pattern"] || "crosswise")
      end

      # What is let go of, numbered where all coils are off at once, marked where two could be swapped.
      def coming_off
        named = connections.map { |name, count| count > 1 ? "#{count} × #{name}" : name }
        released = @step.releases.map { |one| released(one) }
        [
          (format(Words::NUMBERED, number: @step.cylinder) if coil? && @step.cylinder && all_off?),
          @wires.words_for(@step),
          *@wires.leaving(@step).map { |number| format(Words::WIRE_OFF_FIRST, number: number) },
          (format(Words::CLIPS, count: clips) if clips.positive?),
          ("Let go: #{named.join("; ")}." if named.any?),
          (Words::MARKED if swappable?),
          *released
        ].compact
      end

      def clips = @step.clips.sum { |clip| (clip["count"] || 1).to_i }

      def going_on
        wire = @wires.words_for(@step) or return []
        @step.clips.any? ? [wire, Words::OWN_CLIPS] : [wire]
      end

      def all_off? = @job.plan.soaked_together? || @job.plan.plugs_out_together?

      # Hoses with where they lead, and connectors, each with how many.
      # @return [Array<Array(String, Integer)>]
      def connections
        hoses = @step.hoses.map { |hose| [[hose["what"], hose["to"]].compact.join(" to "), 1] }
        hoses + @step.connectors.map { |one| [one["what"], (one["count"] || 1).to_i] }
      end

      # Two of one kind could go back crossed.
      def swappable?
        kinds = @step.hoses.map { |hose| hose["what"] }
        kinds.uniq.size < kinds.size || @step.connectors.any? { |one| (one["count"] || 1) > 1 }
      end

      # Its own, and the puller of the ways that go through it.
      def tools
        through = @job.plan.ways.values.select { |way| coil? && way.through.include?(@step.id) }
        (@step.needs + through.flat_map(&:needs).grep(Words::PULLER)).uniq
      end

      def released(one)
        format(Words::FLUID_OUT, fluid: one["fluid"].to_s.capitalize, liters: (one["liters"] || 0).round(1))
      end

      def covers = @step.opens_ports? ? [must("ports-covered", Words::PORTS_COVERED)] : []

      def ticks
        ports = @step.opens_ports? ? [must("covers-out", Words::COVERS_OUT), must("ports-seen", Words::PORTS_SEEN)] : []
        ports + bolted + loose + unnamed_hose + home + wire_ends
      end

      def bolted =
        @step.fasteners.each_with_index.map { |one, i| tick("fastener:#{i}", one["what"].to_s, one["count"]) } +
          @step.clips.each_with_index.map { |one, i| tick("clip:#{i}", "clip", one["count"]) }

      def loose = connections.each_with_index.map { |(name, count), i| tick("connection:#{i}", name, count) }

      # A step that lets a fluid out and names no hose has one all the same.
      def unnamed_hose = @step.releases.any? && @step.hoses.empty? ? [tick("hose", "hose", 1)] : []

      # A wire pressed home, and the one that leaves a coil.
      def wire_ends
        ends = [
          @wires.seated(@step),
          *@wires.leaving(@step).map { |number| format(Words::WIRE_ON_COIL, number: number) }
        ]
        ends.compact.each_with_index.map { |label, i| tick("wire:#{i}", label, 1) }
      end

      # A coil's connector is ticked with the others where the profile names it.
      def home
        return [] unless coil?

        @step.connectors.any? ? [tick("seated", "seated", 1)] : %w[seated connector].map { |item| tick(item, item, 1) }
      end

      def tick(item, label, count) = { "item" => item, "label" => label, "count" => (count || 1).to_i }
      def must(item, label) = tick(item, label, 1).merge("must" => true)

      def seals
        @step.seals.map do |seal|
          {
            "part" => seal["part"],
            "label" => @job.car.catalog&.description(seal["part"]).to_s,
            "quantity" => (seal["quantity"] || 1).to_i
          }
        end
      end
    end
  end
end
