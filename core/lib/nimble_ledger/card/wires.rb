# frozen_string_literal: true

module NimbleLedger
  module Card
    # Which wire goes from where to which plug, on every card of an engine that has wires (model.md section 15): by the
    # coil that feeds the cylinder, or the distributor's tower.
    class Wires
      # @param engine [Profile::Engine]
      # @param catalog [Parts::Catalog, nil] for their lengths and names
      def initialize(engine, catalog)
        @engine = engine
        @catalog = catalog
        freeze
      end

      # @return [Array<Hash>] cylinder, from, part, label
      def rows
        wires.map do |target|
          part = target.own_parts.first&.fetch("part")
          {
            "cylinder" => target.cylinder,
            "from" => from(target.cylinder),
            "part" => part,
            "label" => part && @catalog&.description(part)
          }.compact
        end
      end

      # The wire a step takes off its plug, in words: "Wire 6 goes from coil 1 to plug 6: partner wire, 470 mm."
      # @param step [Profile::Step]
      # @return [String, nil] nil where it is not about a wire
      def words_for(step)
        row = rows.find { |one| one["cylinder"] == step.cylinder } if takes_off?(step)
        return unless row

        label = row["label"].to_s
        named = label.empty? ? "" : ": #{label}"
        format(Words::WIRE, number: row["cylinder"], from: row["from"], label: named)
      end

      # Where a wire is pressed home once its step goes back: on its plug, and at the other end where that stays.
      # @param step [Profile::Step]
      # @return [String, nil] nil where it is not about a wire
      def seated(step)
        return nil unless takes_off?(step)

        coil = coil_of(step.cylinder)
        own = coil && on_plug(coil)
        return format(Words::SEATED_ON_PLUG, number: step.cylinder) if own

        format(Words::SEATED_BOTH, number: step.cylinder, from: from(step.cylinder))
      end

      # Cylinders whose wire leaves a coil that sits on another plug: it is pulled off before the coil comes off.
      # @param step [Profile::Step]
      # @return [Array<Integer>]
      def leaving(step)
        coil = @engine.coils.find { |one| one.id == step.id }
        return [] unless coil && step.cylinder

        wired = coil.cylinders & wires.map(&:cylinder)
        two_plugs?(step.cylinder) ? wired : wired - [step.cylinder]
      end

      private

      def two_plugs?(cylinder) =
        @engine.targets.sum { |one| one.plug? && one.cylinders.include?(cylinder) ? one.plugs : 0 } > 1

      def coil_of(cylinder) = @engine.coils.find { |one| one.cylinders.include?(cylinder) }

      # The plug a coil sits on, where it is one of those it feeds.
      # @return [Integer, nil]
      def on_plug(coil)
        own = coil.cylinders.one? ? coil.cylinders : coil.cylinders - wires.map(&:cylinder)
        own.first if own.one?
      end

      def wires = @engine.targets.select { |target| target.work == "wire" && target.cylinder }

      # A coil in the wire's way comes off as a coil; the wire's own step says where it goes.
      def takes_off?(step)
        return false if @engine.coils.any? { |one| one.id == step.id }

        wires.any? do |target|
          target.cylinder == step.cylinder && target.ways.any? { |way| way.through.include?(step.id) }
        end
      end

      # The cylinder's own coil, one that sits on another plug, one of a pack, or the distributor's tower.
      def from(cylinder)
        coil = coil_of(cylinder) or return "tower #{cylinder} of the cap"

        on_plug(coil) ? "coil #{on_plug(coil)}" : "the coil of #{Quote::Words.list(coil.cylinders)}"
      end
    end
  end
end
