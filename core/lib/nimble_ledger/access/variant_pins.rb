# frozen_string_literal: true

module NimbleLedger
  module Access
    # Pins given for an engine as written, on one of its variants (model.md section 1, formats.md "pins"): they must
    # name what the profile has; what is absent on this car is ignored, with a warning.
    class VariantPins
      # @return [Pins] for the engine as built
      attr_reader :pins

      # @return [Array<Hash>] "path", "message"
      attr_reader :warnings

      # @param written [Profile::Engine] the profile as written
      # @param built [Profile::Engine] with the variants answered
      # @param hash [Hash, nil] pins as formats.md has them
      # @raise [InvalidInput] for what the profile does not have
      def initialize(written, built, hash, path: "/pins")
        @warnings = []
        checked = Pins.new(written, hash, path: path)
        @built = built
        @path = path
        @pins =
          (
            if written.equal?(built)
              checked
            else
              Pins.new(built, { "ways" => checked.ways, "choices" => still_there(checked) }, path: path)
            end
          )
      end

      private

      def still_there(checked) =
        (checked.to_h["choices"] || {}).filter_map { |key, members| kept(key, Array(members)) }.to_h

      # @return [Array(String, Array<String>), nil] what of a pin still means something
      def kept(key, members)
        kind, id = key.match(/\A(step|target):(.+)\z/m)&.captures || [nil, key]
        step = kind == "target" ? nil : @built.step(id)
        target = kind == "step" ? nil : @built.target(id)
        return warn(key, id) unless step || target

        absent, present = members.partition { |member| @built.step(member).nil? }
        absent.each { |member| warn(key, member) }
        choices = (step ? step.choices : []) + (target ? target.ways.flat_map(&:choices) : [])
        named = present.select { |member| choices.any? { |choice| choice.members.include?(member) } }
        named.empty? ? nil : [key, named]
      end

      def warn(key, id)
        @warnings << {
          "path" => "#{@path}/choices/#{Shape.key(key)}",
          "message" => "#{id} is not there on this car: the pin is ignored"
        }
        nil
      end
    end
  end
end
