# frozen_string_literal: true

module NimbleLedger
  module Profile
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
        @crank = hash["crank"] || false
        @plugs_out = hash["plugs_out"] || work == "compression" || @crank
        @extraction_factor = hash["extraction_factor"] || 1.0
        read_parts(hash, per_cylinder)
        @label ||= usual_label
        freeze
      end

      def plug? = work == "plug"

      # Whether it is done with every plug out: a compression test, a crank that clears the cylinders of fluid.
      def plugs_out? = @plugs_out

      # Whether it is the turning over that clears the bores after a soak.
      def crank? = @crank

      # Whether it is done at the cylinders it serves; a cap and rotor serve them from where they sit.
      def at_cylinders? = cylinders.any? && work != "cap-and-rotor"

      # Part number of the plug where it differs from the engine's, or nil.
      def plug_part = @own_plug["part"]

      OPENED = %w[id cylinder cylinders label position ways extraction_factor].freeze

      # A target as a profile says it, without its work: what is on its way is all that is done.
      # @param hash [Hash]
      # The same beside the target itself, by a name of its own, through what was taken off for it.
      # @param hash [Hash]
      # @param through [Array<String>] ids of steps
      # @return [Hash]
      def self.left(hash, through)
        made = opened(hash)
        ways = [{ "id" => "opened", "through" => through }]
        made.merge("id" => left_id(hash["id"]), "label" => "#{made["label"]}, left as it is", "ways" => ways)
      end

      def self.left_id(id) = "left-#{id}"

      # @return [Hash]
      def self.opened(hash)
        label = hash["label"] || hash["id"]
        hash.slice(*OPENED).merge("work" => "other", "label" => label, "minutes" => [0, 0, 0])
      end

      # @return [Hash] what its plug differs in from the engine's
      attr_reader :own_plug

      def wrench_fits? = @wrench_fits

      # The cylinder this target serves alone, or nil.
      def cylinder = cylinders.size == 1 ? cylinders.first : nil

      # @return [String] "Plug 5", "Coil 2, intake side", or the profile's own label
      attr_reader :label

      private

      def usual_label
        numbers = cylinders.size < 3 ? cylinders.join(" and ") : "#{cylinders[0..-2].join(", ")} and #{cylinders.last}"
        ["#{work.capitalize.tr("-", " ")} #{numbers}".strip, place].compact.join(", ")
      end

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
