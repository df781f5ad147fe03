# frozen_string_literal: true

module NimbleLedger
  module Parts
    # Whose boot a plug wears, and whether a job renews it (model.md sections 6 and 8): the wire's where a wire target
    # serves the cylinder or the ignition is distributor or single-coil, else its own coil's; a boot target renews it
    # too.
    class Boots
      WIRED = %w[distributor single-coil].freeze

      # @param engine [Profile::Engine]
      # @param targets [Array<Profile::Target>] what the job does
      # @param chains [Hash{Profile::Target=>Array<String>}] step ids each target goes through
      def initialize(engine, targets, chains)
        @engine = engine
        @chains = chains
        @targets = targets
        @wires = engine.targets.select { |target| target.work == "wire" }
        @coils = targets.select { |target| target.work == "coil" }.flat_map { |target| engine.coils_for(target) }.uniq
        freeze
      end

      # @param target [Profile::Target] a plug target of the job
      # @return [Integer] how many of its plugs keep an old boot
      def old(target)
        each_has = target.plugs / [target.cylinders.size, 1].max
        target.cylinders.sum { |number| each_has - [renewed(target, number, each_has), each_has].min }
      end

      # Whether the boots of a plug target belong to the wires of a cylinder.
      def wired?(target, number) =
        WIRED.include?(@engine.ignition) || @wires.any? { |wire| same_place?(wire, target, number) }

      # Coils that sit on a plug of this target: of several the ones whose step its way goes through.
      # @return [Array<Profile::Engine::Coil>]
      def own_coils(target, number)
        feeding = @engine.coils.select { |coil| coil.cylinders.include?(number) }
        return feeding.select { |coil| coil.id == target.coil } if target.coil

        passed = feeding.select { |coil| @chains.fetch(target, []).include?(coil.id) }
        return passed if passed.any?

        # A pack that is not on the way to the plug sits elsewhere: its boot stays.
        @engine.ignition == "paired" ? [] : feeding
      end

      # Whether a target serves a plug's place at a cylinder: where both say at which side of the cylinder they sit, it
      # must be the same side.
      def same_place?(other, target, number) =
        other.cylinders.include?(number) && (other.place.nil? || target.place.nil? || other.place == target.place)

      private

      def renewed(target, number, plugs)
        if @targets.any? { |other| %w[wire boot].include?(other.work) && same_place?(other, target, number) }
          return plugs
        end
        return 0 if wired?(target, number)

        own = own_coils(target, number)
        fresh = own.count { |coil| @coils.include?(coil) }
        own.size > 1 ? fresh : fresh * plugs
      end
    end
  end
end
