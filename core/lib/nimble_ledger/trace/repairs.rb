# frozen_string_literal: true

module NimbleLedger
  module Trace
    # What repairs what (model.md section 9): the target of each suspect as its part sits now, and all that one target
    # cures together (a coil and its boot).
    class Repairs
      WORKS = %w[coil plug wire boot].freeze

      # @param engine [Profile::Engine]
      # @param places [Places]
      def initialize(engine, places)
        @engine = engine
        @places = places
        freeze
      end

      # @param hypothesis [Hypothesis]
      # @return [Profile::Target, nil] nil where no target repairs it
      def target(hypothesis) = @engine.targets.find { |target| own?(target, hypothesis) }

      # What repairs the likeliest suspect that has a target.
      # @param held [Array<Belief::Held>]
      # @return [Profile::Target, nil]
      def likeliest(held)
        order = held.each_with_index.sort_by { |one, i| [-one.chance, i] }
        order.lazy.filter_map { |one, _i| target(one.hypothesis) }.first
      end

      # @param targets [Array<Profile::Target>]
      # @return [Boolean] whether one of them cures it
      def cures?(targets, hypothesis) =
        targets.any? { |target| own?(target, hypothesis) || boot_with_coil?(target, hypothesis) }

      # Coil, plug, wire and boot targets of a cylinder.
      # @return [Array<Profile::Target>]
      def of_cylinder(number) =
        @engine.targets.select { |target| WORKS.include?(target.work) && target.cylinders.include?(number) }

      private

      def own?(target, hypothesis)
        case hypothesis.cause
        when "coil"
          target.work == "coil" && coil?(target, hypothesis)
        when "plug"
          target.work == "plug" && at?(target, hypothesis)
        when "wire"
          target.work == hypothesis.part.kind && at?(target, hypothesis)
        when "cap-and-rotor"
          target.work == "cap-and-rotor"
        else
          false
        end
      end

      def at?(target, hypothesis) = target.cylinders.intersect?(@places.affects(hypothesis))

      # On a rail every coil target renews all of it.
      def coil?(target, hypothesis)
        return at?(target, hypothesis) if hypothesis.part.nil?

        @engine.coils_for(target).include?(@places.seat(hypothesis.part))
      end

      # A boot comes new with the coil it hangs on.
      def boot_with_coil?(target, hypothesis)
        return false unless target.work == "coil" && hypothesis.boot?
        return false if Parts::Boots::WIRED.include?(@engine.ignition)

        @engine.coils_for(target).any? { |coil| coil.cylinders.intersect?(@places.affects(hypothesis)) }
      end
    end
  end
end
