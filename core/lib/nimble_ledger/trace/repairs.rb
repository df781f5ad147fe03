# frozen_string_literal: true

module NimbleLedger
  module Trace
    # What repairs what (model.md section 9): the target of each suspect as its part sits now, and all that one target
    # cures together (a coil and its boot).
    class Repairs
      WORKS = %w[coil plug wire boot].freeze

      # @param engine [Profile::Engine]
      # @param places [SwappedParts]
      def initialize(engine, places)
        @engine = engine
        @places = places
        @by_work = engine.targets.group_by(&:work)
        freeze
      end

      # @param hypothesis [Hypothesis]
      # @return [Profile::Target, nil] nil where no target repairs it
      def target(hypothesis)
        affected = @places.affects(hypothesis)
        @by_work.fetch(work(hypothesis), []).find { |target| own?(target, hypothesis, affected) }
      end

      # What repairs the likeliest suspect that has a target.
      # @param held [Array<Posterior::Held>]
      # @return [Profile::Target, nil]
      def likeliest(held)
        order = held.each_with_index.sort_by { |one, i| [-one.chance, i] }
        order.lazy.filter_map { |one, _i| target(one.hypothesis) }.first
      end

      # @param targets [Array<Profile::Target>]
      # @return [Boolean] whether one of them cures it
      def cures?(targets, hypothesis)
        affected = @places.affects(hypothesis)
        targets.any? do |target|
          (target.work == work(hypothesis) && own?(target, hypothesis, affected)) ||
            boot_with_coil?(target, hypothesis, affected)
        end
      end

      # Coil, plug, wire and boot targets of a cylinder.
      # @return [Array<Profile::Target>]
      def of_cylinder(number) =
        @engine.targets.select { |target| WORKS.include?(target.work) && target.cylinders.include?(number) }

      private

      # The work that repairs it where it sits.
      # @return [String, nil]
      def work(hypothesis)
        case hypothesis.cause
        when "coil", "plug", "cap-and-rotor"
          hypothesis.cause
        when "wire"
          hypothesis.part.kind
        end
      end

      # Whether a target of that work is the one. On a rail every coil target renews all of it.
      def own?(target, hypothesis, affected)
        return true if hypothesis.cause == "cap-and-rotor"
        return target.cylinders.intersect?(affected) unless hypothesis.cause == "coil" && hypothesis.part

        @engine.coils_for(target).include?(@places.seat(hypothesis.part))
      end

      # A boot comes new with the coil it hangs on.
      def boot_with_coil?(target, hypothesis, affected)
        return false unless target.work == "coil" && hypothesis.boot?
        return false if Parts::Boots::WIRED.include?(@engine.ignition)

        @engine.coils_for(target).any? { |coil| coil.cylinders.intersect?(affected) }
      end
    end
  end
end
