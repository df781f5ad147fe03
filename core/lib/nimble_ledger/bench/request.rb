# frozen_string_literal: true

module NimbleLedger
  module Bench
    # A bench request (formats.md, "Other requests"): what is asked of one plug on the bench, answered part by part.
    class Request
      FORMAT = "nimble-ledger.bench-request"
      SHAPE =
        Shape.object(
          required: {
            "format" => Shape.const(FORMAT),
            "version" => Shape.const(1),
            "engine" => Estimate::Request::ENGINE
          },
          optional: {
            "target" => Shape.string(max: 80),
            "house" => House::Settings::SHAPE,
            "gap" => Gap::SHAPE,
            "torque" => Torque::SHAPE,
            "angle" => Angle::SHAPE,
            "interval" => Interval::SHAPE
          }
        )

      # @param hash [Hash] parsed JSON
      # @param documents [Documents] where the engine comes from
      # @param base [House::Settings]
      # @raise [InvalidInput] with the path of every fault
      def self.build(hash, documents: Documents.new, base: House::Settings.defaults)
        SHAPE.check!(hash, what: "request", code: "invalid_request")
        new(hash, documents.engine(hash["engine"], "/engine"), base)
      end

      def initialize(hash, engine, base)
        @hash = hash
        @engine = engine
        @house = House::Precedence.resolve(base, engine, hash["house"])
        @target = hash["target"] && plug_target(hash["target"])
        freeze
      end

      # @return [Hash] see formats.md
      def answer(**)
        parts = { "gap" => gap, "torque" => torque, "angle" => angle, "interval" => interval }.compact
        { "format" => "nimble-ledger.bench", "version" => 1 }.merge(parts.transform_values(&:to_h))
      end

      # @return [Gap, nil]
      def gap =
        asked("gap") do |given|
          Gap.new(given, standard: plug["gap_mm"], grade: plug["grade"], fine_wire: @house["fine_wire"])
        end

      # @return [Torque, nil]
      def torque =
        asked("torque") do |given|
          compound = Parts::Compound.used?(@engine, @house)
          Torque.new(given, plug: plug, head: @engine.head, house: @house, compound: compound)
        end

      # @return [Angle, nil]
      def angle =
        asked("angle") do |given|
          Angle.new(given, plug: plug, wrench_fits: @target.nil? || @target.wrench_fits?, house: @house)
        end

      # @return [Interval, nil]
      def interval = asked("interval") { |given| Interval.new(given, engine: @engine, house: @house) }

      private

      def asked(key) = @hash[key] && yield(@hash[key])

      def plug = @engine.plug_at(@target)

      def plug_target(id)
        target = @engine.target(id) or
          raise InvalidInput.at("/target", "names target #{id}, which #{@engine.code} does not have")
        target.plug? ? target : raise(InvalidInput.at("/target", "names #{id}, which is no plug"))
      end
    end
  end
end
