# frozen_string_literal: true

module NimbleLedger
  module Profile
    # Work done last, everything closed and the battery on: a relearn, a bleed, a reset (model.md section 2). It may
    # need a tool, and say what it takes without.
    class Closing
      attr_reader :what, :order, :needs, :position

      # Whether it runs the engine (bleeding, an idle relearn).
      def running? = @running

      # @param position [Integer] its place among the step's
      def initialize(hash, position)
        @what = hash["what"]
        @with = ThreePoints.from(hash["minutes"])
        @without = hash["without"] && ThreePoints.from(hash["without"])
        @order = (hash["order"] || 0).to_i
        @needs = hash["needs"] || []
        @position = position
        @running = hash["running"] || false
        freeze
      end

      # @param equipment [Array<String>] what is at hand
      # @return [ThreePoints] minutes; those without the tool where it is not at hand
      def minutes(equipment) = @without && (needs - equipment).any? ? @without : @with

      # Equipment without which it cannot be done at all.
      # @return [Array<String>]
      def lacking(equipment) = @without ? [] : needs - equipment
    end
  end
end
