# frozen_string_literal: true

module NimbleLedger
  module Trace
    # Fault codes read before the first test (model.md section 9, "Codes"): which cylinders they name, whether several
    # misfire, which are no evidence.
    class Codes
      NAMED = /\AP03(0[1-9]|1[0-2])\z/
      SEVERAL = "P0300"
      COLD = "P0316"
      OTHERS = { SEVERAL => "several", COLD => "cold", "P0420" => "catalyst", "P0430" => "catalyst" }.freeze
      SHAPE =
        Shape.list(
          Shape.object(
            required: {
              "code" => Shape.string(max: 12, pattern: /\A[A-Z][0-9A-F]{4}\z/)
            },
            optional: {
              "status" => Shape.one_of("stored", "pending", "permanent")
            }
          ),
          max: 100
        )

      # @param given [Array<Hash>, nil] nil: not read
      # @param engine [Profile::Engine]
      # @param tables [Tables]
      # @raise [InvalidInput] for a cylinder the engine does not have
      def initialize(given, engine, tables, path: "/codes")
        @read = !given.nil?
        @engine = engine
        @tables = tables
        @given = given || []
        @numbers = @given.filter_map { |row| row["code"][NAMED, 1]&.to_i }.uniq
        refuse_unknown(path)
        freeze
      end

      # @return [Array<String>] codes that are no evidence
      def others = codes.reject { |code| code.match?(NAMED) || code == SEVERAL }.uniq

      # What each code says: "cylinder" (which stands beside it), "several", "cold", "catalyst" (the misfire is mended
      # first, and looked at again) or "other".
      # @return [Array<Hash>] {"code", "status", "says", "cylinder"?}
      def told = @given.uniq { |row| row["code"] }.map { |row| told_of(row["code"], row["status"] || "stored") }

      # Whether a code says that it misfires cold.
      def cold? = codes.include?(COLD)

      def permanent? = @given.any? { |row| row["status"] == "permanent" }

      # @param hypothesis [Hypothesis]
      # @return [Float] how likely these codes are under it
      def likelihood(hypothesis)
        return 1.0 unless @read

        each =
          @engine.cylinders.map(&:number).map { |number| side(cylinder(hypothesis, number), @numbers.include?(number)) }
        each.reduce(:*) * side(several(hypothesis), codes.include?(SEVERAL))
      end

      # @param hypothesis [Hypothesis]
      # @param number [Integer] cylinder
      # @return [Float] how likely a code names that cylinder
      def chance(hypothesis, number) = cylinder(hypothesis, number)

      # @return [Float] how likely the code for several or random misfires is there
      def chance_of_several(hypothesis) = several(hypothesis)

      private

      def told_of(code, status)
        number = code[NAMED, 1]
        says = number ? "cylinder" : OTHERS.fetch(code, "other")
        { "code" => code, "status" => status, "says" => says, "cylinder" => number&.to_i }.compact
      end

      def codes = @given.map { |row| row["code"] }
      def side(chance, there) = there ? chance : 1 - chance

      def cylinder(hypothesis, number)
        return @tables.code("elsewhere") if hypothesis.elsewhere? || hypothesis.set?
        return @tables.code("hit") if hypothesis.cylinders.include?(number)

        @tables.code(partner?(hypothesis, number) ? "partner" : "stray")
      end

      # A plug or wire fails at its own cylinder and shows at the others its paired coil feeds.
      def partner?(hypothesis, number)
        return false unless @engine.ignition == "paired" && %w[plug wire].include?(hypothesis.cause)

        @engine.coils.any? { |coil| coil.cylinders.include?(number) && coil.cylinders.intersect?(hypothesis.cylinders) }
      end

      def several(hypothesis)
        return @tables.several("elsewhere") if hypothesis.elsewhere?

        @tables.several({ 1 => "one", 2 => "two" }.fetch(hypothesis.cylinders.size, "more"))
      end

      def refuse_unknown(path)
        known = @engine.cylinders.map(&:number)
        @given.each_with_index do |row, i|
          number = row["code"][NAMED, 1]&.to_i
          next if number.nil? || known.include?(number)

          message = "names cylinder #{number}, which #{@engine.code} does not have"
          raise InvalidInput.at("#{path}/#{i}/code", message)
        end
      end
    end
  end
end
