# frozen_string_literal: true

module NimbleLedger
  module Card
    # What a step asks for when it comes off, and what is ticked when it goes back: every bolt, clip and seal; a coil is
    # pressed home and its connector clicks.
    class PieceOfStep
      # @param step [Profile::Step]
      # @param kind ["remove", "refit"]
      # @param engine [Profile::Engine]
      # @param car [Car]
      def initialize(step, kind, engine, car)
        @step = step
        @kind = kind
        @engine = engine
        @car = car
        freeze
      end

      # @return [Hash] with, fasteners, cautions, parts, ticks, back, coil
      def to_h
        about = { "with" => @step.needs, "fasteners" => fasteners, "cautions" => @step.cautions, "coil" => coil? }
        return about if @kind == "remove"

        about.merge("ticks" => ticks, "parts" => seals, "back" => @step.back)
      end

      private

      def coil? = @engine.coils.any? { |coil| coil.id == @step.id }

      def fasteners
        @step.fasteners.map do |one|
          {
            "what" => one["what"].to_s,
            "size" => one["size"],
            "count" => (one["count"] || 1).to_i,
            "torque_nm" => one["torque_nm"],
            "pattern" => one["pattern"],
            "new" => one["rule"] == "replace"
          }.compact
        end
      end

      def ticks
        bolts =
          @step.fasteners.each_with_index.map do |one, i|
            { "item" => "fastener:#{i}", "label" => one["what"].to_s, "count" => (one["count"] || 1).to_i }
          end
        clips =
          @step.clips.each_with_index.map do |one, i|
            { "item" => "clip:#{i}", "label" => "clip", "count" => (one["count"] || 1).to_i }
          end
        home = coil? ? %w[seated connector].map { |item| { "item" => item, "label" => item, "count" => 1 } } : []
        hose = @step.releases.any? ? [{ "item" => "hose", "label" => "hose", "count" => 1 }] : []
        bolts + clips + hose + home
      end

      def seals
        @step.seals.map do |seal|
          {
            "part" => seal["part"],
            "label" => @car.catalog&.description(seal["part"]).to_s,
            "quantity" => (seal["quantity"] || 1).to_i
          }
        end
      end
    end
  end
end
