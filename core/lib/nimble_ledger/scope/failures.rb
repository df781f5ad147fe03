# frozen_string_literal: true

module NimbleLedger
  module Scope
    # What has failed on this car, today and earlier, by kind (model.md section 8). Every scope must renew each part
    # that failed today.
    class Failures
      # One that failed today: where the request says it, its kind, and the parts it may be.
      Failed = Struct.new(:path, :kind, :parts)

      SHAPE =
        Shape.either(
          Shape.object(
            required: {
              "work" => Shape.one_of(*Part::KINDS),
              "cylinder" => Shape.integer(min: 1, max: 99)
            }
          ),
          Shape.object(required: { "target" => Shape.string(max: 80) }),
          say: "a work and a cylinder, or a target"
        )
      EARLIER =
        Shape.map(
          Shape.either(
            Shape.integer(max: 1000),
            Shape.object(
              required: {
                "count" => Shape.integer(max: 1000)
              },
              optional: {
                "lives_km" => Shape.list(Shape.number(max: 10_000_000), max: 1000)
              }
            ),
            say: "how many, or a count with their lives"
          ),
          max: Part::KINDS.size
        )

      # @param today [Array<Hash>]
      # @param earlier [Hash{String=>Integer,Hash}] by kind
      # @param parts [Array<Part>]
      # @param engine [Profile::Engine]
      # @raise [InvalidInput] with the path of what names no part here
      def initialize(today, earlier, parts, engine)
        @engine = engine
        @parts = parts
        @earlier = earlier.transform_values { |value| value.is_a?(Hash) ? value : { "count" => value } }
        @earlier.each_key do |kind|
          unless Part::KINDS.include?(kind)
            raise InvalidInput.at("/earlier_failures/#{Shape.key(kind)}", "is no kind of part")
          end
        end
        @today = today.each_with_index.map { |one, i| failed(one, "/failed/#{i}") }
        freeze
      end

      # @return [Integer] failures of a kind
      def count(kind) = @today.count { |one| one.kind == kind } + @earlier.dig(kind, "count").to_i

      # Hazard parts that failed earlier took on in their own lives, where those are known.
      # @param same [Array<Part>] of the kind, for how it lasts
      # @return [Float]
      def earlier_hazard(kind, same)
        lives = @earlier.dig(kind, "lives_km").to_a
        same.empty? ? 0.0 : lives.sum(0.0) { |km| same.first.life.hazard(km) }
      end

      # @param targets [Array<Profile::Target>] of a scope
      # @param path [String] where the scope stands
      # @raise [InvalidInput] when it leaves a failed part in
      def refuse_left_in(targets, path)
        left = @today.find { |one| one.parts.any? { |part| !part.new_in?(targets) } } or return
        raise InvalidInput.at(path, "leaves in what failed (#{left.path})")
      end

      private

      def failed(given, path)
        return by_target(given["target"], path) if given["target"]

        parts = @parts.select { |part| part.kind == given["work"] && part.cylinders.include?(given["cylinder"]) }
        if parts.empty?
          raise InvalidInput.at(path, "names no #{given["work"]} of cylinder #{given["cylinder"]} on this engine")
        end
        Failed.new(path, given["work"], parts)
      end

      def by_target(id, path)
        target = @engine.target(id) or
          raise InvalidInput.at(path, "names target #{id}, which #{@engine.code} does not have")
        parts = @parts.select { |part| part.targets.include?(target) }
        raise InvalidInput.at(path, "names #{id}, which renews no part that fails") if parts.empty?
        Failed.new(path, parts.first.kind, parts)
      end
    end
  end
end
