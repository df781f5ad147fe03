# frozen_string_literal: true

module NimbleLedger
  module Profile
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

      # Vacuum, fuel and water hoses that come off with it: {"what", "to"}; connectors: {"what", "count"}.
      # @return [Array<Hash>]
      attr_reader :hoses, :connectors

      # Whether intake ports lie open once it is off.
      def opens_ports? = @opens_ports

      # Whether its removal takes a plug out (rules 3): said, or told by its id.
      def takes_out_plug? = @takes_out ? @takes_out == "plug" : id == "plug-out" || id.start_with?("plug-out-")

      def battery? = @battery
      def rust_prone? = @rust_prone
      def brittle? = @brittle

      private

      def read_lists(hash)
        @needs = hash["needs"] || []
        @seals = hash["seals"] || []
        @fasteners = hash["fasteners"] || []
        @clips = hash["clips"] || []
        @mishaps = (hash["mishaps"] || []).map { |mishap| Mishap.new(mishap) }
        @hoses = hash["hoses"] || []
        @connectors = hash["connectors"] || []
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
        @opens_ports = hash["opens_ports"] || false
        @takes_out = hash["takes_out"]
        @battery = hash["battery"] || false
        @rust_prone = hash["rust_prone"] || false
        @brittle = hash["brittle"] || false
      end
    end
  end
end
