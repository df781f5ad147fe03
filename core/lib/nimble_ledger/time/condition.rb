# frozen_string_literal: true

module NimbleLedger
  module Time
    # What the car's state does to the minutes (model.md section 3). Multipliers multiply.
    class Condition
      LEVELS = %w[none light heavy].freeze
      WELLS = %w[dry wet rusted].freeze

      # A multiplier in force, in codes. kind: "rust", "brittle", "bodge" or "reach"; level: how much rust, or which way
      # it is reached, else nil; source: whose figure it is, "house" or "engine".
      Reason = Struct.new(:kind, :level, :factor, :source)

      attr_reader :corrosion, :wells

      # @param hash [Hash, nil] {"corrosion", "brittle", "bodged", "wells"}; omitted means none or false
      def initialize(hash, house)
        hash ||= {}
        @corrosion = hash["corrosion"] || "none"
        @brittle = hash["brittle"] || false
        @bodged = hash["bodged"] || false
        @wells = hash["wells"] || {}
        @house = house
        @rust = { remove: house["corrosion_remove"][@corrosion], refit: house["corrosion_refit"][@corrosion] }
        freeze
      end

      def brittle? = @brittle
      def bodged? = @bodged

      # @return [Numeric] the multiplier on removing a step
      def remove_factor(step) = product(remove_reasons(step))

      def refit_factor(step) = product(refit_reasons(step))

      # @return [Numeric] the multiplier on a target's own minutes
      def target_factor = @bodged ? @house["bodge_factor"] : 1

      # All that the minutes of a profile depend on.
      # @return [Array<Numeric>]
      def multipliers = [@rust[:remove], @rust[:refit], @brittle ? @house["brittle_factor"] : 1, target_factor]

      # The multipliers in force, for "why?".
      # @return [Array<Reason>]
      def remove_reasons(step)
        reasons = []
        reasons << rust(:remove) if rusts?(step, :remove)
        reasons << Reason.new("brittle", nil, @house["brittle_factor"], "house") if step.brittle? && @brittle
        reasons << bodge if @bodged
        reasons
      end

      # @return [Array<Reason>]
      def refit_reasons(step)
        reasons = []
        reasons << rust(:refit) if rusts?(step, :refit)
        reasons << bodge if @bodged
        reasons
      end

      # An earlier bodge lies on everything that is done.
      def bodge = Reason.new("bodge", nil, @house["bodge_factor"], "house")

      # A product of decimals as an exact fraction, so that equal plans compare equal (model.md section 2, ties).
      def self.exact(reasons) = reasons.reduce(Rational(1)) { |all, reason| all * ThreePoints.exact(reason.factor) }

      private

      def rusts?(step, act) = step.rust_prone? && @rust[act] != 1
      def rust(act) = Reason.new("rust", @corrosion, @rust[act], "house")

      def product(reasons) = reasons.reduce(1) { |all, reason| all * reason.factor }
    end
  end
end
