# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # How many of some jobs kept within their quantiles, each share with its Wilson 95 % interval (model.md section 12,
    # "Backtest").
    module Coverage
      QUANTILES = { "p50" => 0.5, "p80" => 0.8, "p95" => 0.95 }.freeze
      TOO_WIDE = 0.4

      module_function

      # @param within [Array<Hash{String=>Boolean}>] for each job, by quantile
      # @return [Hash] share, low, high by quantile; null over no jobs
      def of(within)
        QUANTILES.keys.to_h { |name| [name, interval(within.count { |one| one[name] }, within.size)] }
      end

      # @return [Hash]
      def interval(hits, count)
        return { "share" => nil, "low" => nil, "high" => nil } if count.zero?

        share = hits / count.to_f
        low, high = wilson(share, count)
        { "share" => share, "low" => hits.zero? ? 0.0 : low, "high" => hits == count ? 1.0 : high }
      end

      # @return [Array(Float, Float)] ends of the interval
      def wilson(share, count)
        square = (Time::Normal::WITHIN_95**2) / count
        middle = (share + (square / 2)) / (1 + square)
        half = Math.sqrt((share * (1 - share) * square) + (square * square / 4)) / (1 + square)
        [middle - half, middle + half].map { |end_| end_.clamp(0.0, 1.0) }
      end

      # Whether a group says nothing yet.
      # @param corrected [Hash] its coverage as corrected
      def too_few?(corrected)
        row = corrected["p80"]
        row["share"].nil? || row["high"] - row["low"] > TOO_WIDE
      end
    end
  end
end
