# frozen_string_literal: true

module NimbleLedger
  module Day
    # How long all work of a job may take on the clock: a mixture of lognormals (model.md sections 5 and 11).
    class Duration
      TOLERANCE = 1e-9

      # One part: how likely, and the lognormal's log mean and log spread; spread 0 is that many minutes exactly.
      Part =
        Struct.new(:chance, :minutes, :log_mean, :log_spread) do
          # @return [Float] P(time <= minutes)
          def cdf(at)
            return at >= minutes ? 1.0 : 0.0 if log_spread.zero?

            at.positive? ? 0.5 * Math.erfc((log_mean - Math.log(at)) / (log_spread * Math.sqrt(2))) : 0.0
          end

          def quantile(p) = log_spread.zero? ? minutes : Math.exp(log_mean + (log_spread * Time::Normal.quantile(p)))
        end

      # @param rows [Array<Hash>] "chance", "mean_minutes", "variance"; chances sum to 1
      def initialize(rows)
        whole = rows.sum(0.0) { |row| row["chance"] }
        @parts =
          rows
            .reject { |row| row["chance"].zero? }
            .map { |row| part(row["chance"] / whole, row["mean_minutes"].to_f, row["variance"].to_f) }
        freeze
      end

      # @return [Float] the least t with P(time <= t) ≥ u − 1e-9, to 1e-9 relative
      def quantile(u)
        target = u - TOLERANCE
        return @parts.first.quantile(target) if @parts.one?

        ends = @parts.map { |one| one.quantile(target) }
        low, high = ends.minmax
        low == high ? low : between(target, low * (1 - 1e-12), high * (1 + 1e-12))
      end

      # The quantiles at (rank + ½) / count, in order: each is looked for from the one before it.
      # @param count [Integer]
      # @return [Array<Float>]
      def table(count)
        shares = Array.new(count) { |rank| (rank + 0.5) / count }
        return shares.map { |share| quantile(share) } if @parts.one? || @parts.any? { |one| one.log_spread.zero? }

        at = Math.log(quantile(shares.first))
        shares.map { |share| Math.exp(at = from_neighbor(at, share - TOLERANCE)) }
      end

      # Tables that were asked for lately: a board asks for the same jobs over and over.
      TABLES = {} # rubocop:disable Style/MutableConstant -- the last few hundred, the oldest go
      MOST_TABLES = 400
      private_constant :TABLES, :MOST_TABLES

      # @param rows [Array<Hash>] see #initialize
      # @return [Array<Float>] frozen
      def self.table(rows, count)
        key = [rows, count]
        known = TABLES.delete(key)
        TABLES.shift if known.nil? && TABLES.size >= MOST_TABLES
        TABLES[key] = known || new(rows).table(count).freeze
      end

      private

      # Newton in the logarithm, kept between what is known to be below and above.
      # @param at [Float] log of a quantile below the target
      # @return [Float] log of the least t with P(time <= t) >= target
      def from_neighbor(at, target)
        low = at
        high = nil
        60.times do
          below, density = cdf_and_density(at)
          gap = below - target
          gap.negative? ? low = at : high = at
          step = density.positive? ? -gap / density : Float::INFINITY
          return at if step.abs <= 1e-13 * at.abs.clamp(1, nil)

          at = within(at + step, low, high)
        end
        high || at
      end

      def within(guess, low, high)
        return guess if guess > low && (high.nil? || guess < high)

        high ? (low + high) / 2 : low + 0.5
      end

      ROOT_2 = Math.sqrt(2)
      ROOT_2_PI = Math.sqrt(2 * Math::PI)
      private_constant :ROOT_2, :ROOT_2_PI

      # At a logarithm of minutes.
      # @return [Array(Float, Float)]
      def cdf_and_density(at)
        below = 0.0
        density = 0.0
        @parts.each do |one|
          z = (at - one.log_mean) / one.log_spread
          below += one.chance * 0.5 * Math.erfc(-z / ROOT_2)
          density += one.chance * Math.exp(-0.5 * z * z) / one.log_spread
        end
        [below, density / ROOT_2_PI]
      end

      def part(chance, mean, variance)
        return Part.new(chance, mean, 0.0, 0.0) if variance.zero?

        spread2 = Math.log(1 + (variance / (mean * mean)))
        Part.new(chance, mean, Math.log(mean) - (spread2 / 2), Math.sqrt(spread2))
      end

      def cdf(at) = @parts.sum(0.0) { |one| one.chance * one.cdf(at) }

      # Regula falsi in the logarithm with a halving where it creeps; the end that reaches the target is kept above it.
      def between(target, low, high)
        low_value = cdf(low) - target
        high_value = cdf(high) - target
        return low if low_value >= 0

        200.times do |i|
          break if high - low <= 1e-12 * high

          share = i % 3 == 2 ? 0.5 : (low_value / (low_value - high_value)).clamp(0.001, 0.999)
          at = low + ((high - low) * share)
          value = cdf(at) - target
          value >= 0 ? (high, high_value = at, value) : (low, low_value = at, value)
        end
        high
      end
    end
  end
end
