# frozen_string_literal: true

module NimbleLedger
  module Profile
    # {"any" => [...]}: one of the members is enough. `position` is its place among the holder's entries.
    Choice = Struct.new(:members, :position)

    # Splits an `after` or `through` list into plain step ids and choices.
    module Entries
      module_function

      def plain(list) = (list || []).grep(String)

      def choices(list)
        (list || []).each_with_index.filter_map { |entry, i| Choice.new(entry["any"], i) if entry.is_a?(Hash) }
      end
    end

    # Something that comes off (or is done) to get access, and goes back (model.md section 1).
    class Step
      attr_reader :id,
                  :label,
                  :zone,
                  :remove,
                  :refit,
                  :after,
                  :choices,
                  :needs,
                  :cylinder,
                  :seals,
                  :fasteners,
                  :clips,
                  :mishaps,
                  :waits,
                  :releases,
                  :cautions,
                  :closing,
                  :people,
                  :position

      def initialize(hash, position)
        @id = hash["id"]
        @label = hash["label"]
        @zone = hash["zone"] || "top"
        @remove = ThreePoints.from(hash["remove"])
        @refit = ThreePoints.from(hash["refit"])
        @after = Entries.plain(hash["after"])
        @choices = Entries.choices(hash["after"])
        @people = (hash["people"] || 1).to_i
        @position = position
        @cylinder = hash["cylinder"]&.to_i
        read_lists(hash)
        read_marks(hash)
        freeze
      end

      # "at-once" (it goes straight back), "after-run" (it goes on after the running check), or nil: in its turn. Moves
      # order on the card, never minutes.
      attr_reader :back

      def battery? = @battery
      def rust_prone? = @rust_prone
      def brittle? = @brittle

      private

      def read_lists(hash)
        @needs = hash["needs"] || []
        @seals = hash["seals"] || []
        @fasteners = hash["fasteners"] || []
        @clips = hash["clips"] || []
        @mishaps = hash["mishaps"] || []
        @waits = hash["waits"] || []
        @releases = hash["releases"] || []
        @cautions = hash["cautions"] || []
        @closing =
          (hash["closing"] || [])
            .each_with_index
            .map { |task, i| Closing.new(task, i) }
            .sort_by { |task| [task.order, task.position] }
        @back = hash["back"]
      end

      def read_marks(hash)
        @battery = hash["battery"] || false
        @rust_prone = hash["rust_prone"] || false
        @brittle = hash["brittle"] || false
      end
    end

    # One way to a target: the steps it goes through, what it needs, and how awkward the reach is.
    class Way
      attr_reader :id, :through, :choices, :factor, :needs, :cautions

      def initialize(hash)
        @id = hash["id"]
        @through = Entries.plain(hash["through"])
        @choices = Entries.choices(hash["through"])
        @factor = hash["factor"] || 1.0
        @needs = hash["needs"] || []
        @cautions = hash["cautions"] || []
        freeze
      end
    end

    # Work at the bottom: a plug, a coil, a seal, a test (model.md section 1).
    class Target
      attr_reader :id,
                  :work,
                  :cylinders,
                  :minutes,
                  :ways,
                  :extraction_factor,
                  :own_parts,
                  :plugs,
                  :place,
                  :coil,
                  :tools,
                  :cautions,
                  :position

      def initialize(hash, position, per_cylinder)
        @id, @work, @label, @place, @coil = hash.values_at("id", "work", "label", "position", "coil")
        @position = position
        @cylinders = (hash["cylinders"] || [hash["cylinder"]].compact).map(&:to_i)
        @minutes = ThreePoints.from(hash["minutes"])
        @ways = hash["ways"].map { |way| Way.new(way) }
        @wrench_fits = hash.fetch("wrench_fits", true)
        @extraction_factor = hash["extraction_factor"] || 1.0
        read_parts(hash, per_cylinder)
        freeze
      end

      def plug? = work == "plug"

      # Whether it is done at the cylinders it serves; a cap and rotor serve them from where they sit.
      def at_cylinders? = cylinders.any? && work != "cap-and-rotor"

      # Part number of the plug where it differs from the engine's, or nil.
      def plug_part = @own_plug["part"]

      def wrench_fits? = @wrench_fits

      # The cylinder this target serves alone, or nil.
      def cylinder = cylinders.size == 1 ? cylinders.first : nil

      # "Plug 5", "Coil 2, intake side", or the profile's own label.
      def label
        return @label if @label

        numbers = cylinders.size < 3 ? cylinders.join(" and ") : "#{cylinders[0..-2].join(", ")} and #{cylinders.last}"
        ["#{work.capitalize.tr("-", " ")} #{numbers}".strip, place].compact.join(", ")
      end

      private

      def read_parts(hash, per_cylinder)
        @own_parts = hash["parts"] || []
        @plugs = plug? ? (hash["plugs"] || (per_cylinder * [@cylinders.size, 1].max)).to_i : 0
        @own_plug = hash["plug"] || {}
        @tools = hash["tools"] || []
        @cautions = hash["cautions"] || []
      end
    end
  end
end
