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

      private

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
        coil = @engine.coils.find { |one| one.cylinders.include?(cylinder) }
        return "tower #{cylinder} of the cap" unless coil

        on_plug = coil.cylinders.one? ? coil.cylinders : coil.cylinders - wires.map(&:cylinder)
        on_plug.one? ? "coil #{on_plug.first}" : "the coil of #{Quote::Words.list(coil.cylinders)}"
      end
    end
  end
end
