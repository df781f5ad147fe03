# frozen_string_literal: true

module NimbleLedger
  module Time
    # What finished jobs have taught about the hours of an engine, as it is applied to an estimate (model.md section 12,
    # "Corrected estimate", "Calibration"): the log's center moves by the effect, its width is the learned one, and
    # quantiles bend toward what the shop's days were like.
    #
    #   correction.of(LognormalTotal.new(126.1, 400.0), common_variation: 0.12)   #=> LognormalTotal
    class Correction
      log = Shape.number(min: -20, max: 20)
      # jobs: of this engine; effect: of level, engine and technician on the log; common: κ; doubt: what their estimate
      # leaves open, as a variance of the log; z: calibrated quantiles.
      SHAPE =
        Shape.object(
          required: {
            "jobs" => Shape.integer(max: 1_000_000),
            "effect" => log,
            "common" => Shape.number(max: 20),
            "doubt" => Shape.number(max: 20),
            "z" => Shape.list(Shape.object(required: { "p" => Shape.number(above: 0, max: 1), "z" => log }), max: 20)
          }
        )
      # The spread of a log, s², of an estimate.
      # @param mean [Float] minutes
      # @param variance [Float] minutes squared
      def self.spread(mean, variance) = Math.log(1 + (variance / (mean * mean)))

      # ln(1+u): what of a spread is the estimate's own, the common factor apart; not below 0.
      def self.own(spread, common_variation) = [spread - Math.log(1 + (common_variation**2)), 0.0].max

      # How far beyond the estimate an effect on the log is, as a share of it.
      def self.share(effect) = Math.exp(effect) - 1

      # Mean and spread of the log after correction.
      Moved =
        Struct.new(:mean, :spread) do
          # @param z [Float] calibrated
          # @return [Float] minutes
          def quantile(z) = Math.exp(Math.log(mean) - (spread / 2) + (Math.sqrt(spread) * z))
        end

      attr_reader :jobs, :effect, :common, :doubt

      # @param hash [Hash] fitting SHAPE
      def self.from(hash)
        bent = hash["z"].to_h { |row| [row["p"].to_f, row["z"].to_f] }
        new(**hash.slice("jobs", "effect", "common", "doubt").transform_keys(&:to_sym), bent: bent)
      end

      # @param bent [Hash{Float=>Float}] ẑ by p
      def initialize(effect:, common:, doubt:, jobs: 0, bent: {})
        @jobs = jobs
        @effect = effect
        @common = common
        @doubt = doubt
        @bent = bent.freeze
        freeze
      end

      # @param mean [Float] minutes, before any correction
      # @param spread [Float] s²
      # @param own [Float] ln(1+u)
      # @return [Moved] m′ and s′²
      def moved(mean, spread, own)
        width = own + common + doubt
        Moved.new(mean * Math.exp(effect + ((width - spread) / 2)), width)
      end

      # @param total [LognormalTotal] as estimated
      # @param common_variation [Float] c₀
      # @return [LognormalTotal] m′ and v′ = m′²(e^(s′²) − 1), with the calibrated quantiles
      def of(total, common_variation:)
        return total unless total.mean.positive?

        spread = Correction.spread(total.mean, total.variance)
        found = moved(total.mean, spread, Correction.own(spread, common_variation))
        LognormalTotal.new(found.mean, found.mean * found.mean * (Math.exp(found.spread) - 1), bent: @bent)
      end

      # @return [Hash] fitting SHAPE
      def to_h
        {
          "jobs" => jobs,
          "effect" => effect,
          "common" => common,
          "doubt" => doubt,
          "z" => @bent.map { |p, z| { "p" => p, "z" => z } }
        }
      end

      # By how much work takes longer than estimated, as shares: likely between these (95 of 100).
      # @return [Range]
      def over
        half = Normal::WITHIN_95 * Math.sqrt(doubt)
        Correction.share(effect - half)..Correction.share(effect + half)
      end
    end
  end
end
