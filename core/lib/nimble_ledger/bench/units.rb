# frozen_string_literal: true

require "bigdecimal"

module NimbleLedger
  module Bench
    # Units of the bench (model.md, head and section 10): kept in mm and N·m, read and shown in others; and what a typed
    # value was probably meant as when its unit slipped.
    module Units
      MM_PER_INCH = 25.4
      NM_PER_LB_FT = 1.3558179483
      LB_IN_PER_LB_FT = 12

      # What a question is about and where it stands; `meant` is a code: the unit the value was probably in; `slips`
      # are readings that make sense, the likeliest first: [{"value", "unit"}].
      Question = Struct.new(:path, :code, :message, :meant, :slips) { def to_h = super.compact.transform_keys(&:to_s) }

      module_function

      # @param reading [Hash] "value", "unit" (mm or in)
      # @return [Float] mm
      def mm(reading) = reading["unit"] == "in" ? reading["value"] * MM_PER_INCH : reading["value"].to_f

      # @param nm [Float]
      # @return [Hash] the same torque in N·m, lb-ft and lb-in
      def torque(nm)
        lb_ft = nm / NM_PER_LB_FT
        { "nm" => nm, "lb_ft" => lb_ft, "lb_in" => lb_ft * LB_IN_PER_LB_FT }
      end

      # A reading as it was probably meant: the same unit ten, a hundred or a thousand times smaller or larger, or the
      # other unit (model.md section 10).
      # @param reading [Hash] "value", "unit"
      # @param range [Range] mm that are believed
      # @return [Array<Hash>] readings within the range
      #
      #   Units.meant({ "value" => 0.41, "unit" => "in" }, 0.04..2.0)  #=> [{ "value" => 0.041, "unit" => "in" },
      #                                                                #    { "value" => 0.41, "unit" => "mm" }]
      def meant(reading, range)
        typed = BigDecimal(reading["value"].to_s)
        powers = [0.1r, 0.01r, 0.001r, 10r, 100r, 1000r].map { |factor| (typed.to_r * factor).to_f }
        other = { "in" => "mm", "mm" => "in" }.fetch(reading["unit"])
        found = powers.map { |value| { "value" => value, "unit" => reading["unit"] } }
        [*found, reading.merge("unit" => other)].select { |one| range.cover?(mm(one)) }
      end

      # Slips of hands: what a value was typed as is off by one of these.
      SLIPS = { "in" => MM_PER_INCH, "mm" => 1 / MM_PER_INCH, "tenfold" => 0.1, "tenth" => 10.0 }.freeze

      # @param value [Numeric]
      # @param range [Range] what is believed
      # @param slips [Array<String>] in the order they are tried
      # @return [String, nil] the slip that makes sense of it
      def slip(value, range, slips: SLIPS.keys) = slips.find { |name| range.cover?(value * SLIPS.fetch(name)) }
    end
  end
end
