# frozen_string_literal: true

module NimbleLedger
  module Picture
    # The job as time across and depth down, from its sequence: down through the layers, along the bottom cylinder by
    # cylinder, and back up in reverse. Minutes are mean clock minutes, to scale; house and closing tasks lie above the
    # surface (depth 0).
    class Descent
      # kind: house, remove, work, refit, closing, wait. depth: 0 above the surface, 1 the first layer.
      Stroke = Struct.new(:kind, :ref, :label, :start, :minutes, :depth, :cylinder)

      ABOVE = %w[house closing].freeze

      attr_reader :strokes, :levels

      # @param plan [Access::Plan]
      def initialize(plan)
        @plan = plan
        @depth = depths
        @levels = [@depth.values.max || 0, 0].max + 1
        clock = 0.0
        @strokes =
          plan
            .sequence
            .pieces
            .select { |piece| piece.clock_minutes.positive? }
            .map { |piece| stroke(piece, clock).tap { clock += piece.clock_minutes } }
        freeze
      end

      # @return [Float] clock minutes, waits included
      def length = strokes.map { |stroke| stroke.start + stroke.minutes }.max || 0.0

      # Depth of each step: one more than the deepest layer taken off before it; local steps lie below the shared ones.
      def depth_of(step) = @depth.fetch(step.id)

      private

      def depths
        shared = @plan.turns.shared_steps.each_with_index.to_h { |step, i| [step.id, i + 1] }
        base = shared.size
        @plan.turns.list.each { |turn| turn.steps.each_with_index { |step, i| shared[step.id] = base + i + 1 } }
        shared
      end

      def stroke(piece, start)
        kind = piece.kind == "soak" ? "work" : piece.kind
        label = @plan.engine.step(piece.ref)&.label if %w[remove refit].include?(kind)
        Stroke.new(kind, piece.ref, label || piece.label, start, piece.clock_minutes, depth(piece), piece.cylinder)
      end

      def depth(piece)
        return 0 if ABOVE.include?(piece.kind)

        @depth.fetch(piece.ref, @levels)
      end
    end
  end
end
