# frozen_string_literal: true

module NimbleLedger
  module Parts
    # Boots that come new with every plug change where the house says so (House::Schools, "boots"): the boot targets of
    # the plugs' cylinders, but where a wire or coil of the job brings one.
    #
    #   Parts::BootsWithPlugs.new(planner).with(targets)   #=> targets, and the boots that belong to them
    class BootsWithPlugs
      RENEW = %w[boot wire coil].freeze

      # @param planner [Access::Planner]
      # @param without [Array<String>] targets that are not to be added
      def initialize(planner, without: [])
        @planner = planner
        @offered =
          if planner.house["boots"] == "always"
            planner.graph.engine.targets.select { |one| one.work == "boot" && !without.include?(one.id) }
          else
            []
          end
      end

      # @param targets [Array<Profile::Target>]
      # @return [Array<Profile::Target>]
      def with(targets)
        return targets if @offered.empty?

        targets + @offered.select { |boot| worn_by_a_plug_of?(targets, boot) && !renewed_by?(targets, boot) }
      end

      private

      def worn_by_a_plug_of?(targets, boot)
        targets.any? { |one| one.plug? && same_place?(one, boot) } && @planner.possible?(boot)
      end

      def renewed_by?(targets, boot)
        targets.any? { |one| RENEW.include?(one.work) && same_place?(one, boot) }
      end

      def same_place?(one, boot)
        one.cylinders.intersect?(boot.cylinders) && (one.place.nil? || boot.place.nil? || one.place == boot.place)
      end
    end
  end
end
