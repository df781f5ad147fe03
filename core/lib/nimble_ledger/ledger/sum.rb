# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # A sum over jobs with the normal 95 % interval of that sum (model.md section 12, "Scorecard"): what is lost is
    # never a naked number. The interval is nil over one job.
    Sum =
      Struct.new(:sum, :low, :high) do
        # @param figures [Array<Float>] at least one
        # @return [Sum]
        def self.of(figures)
          sum = figures.sum
          mean = sum / figures.size
          return new(sum, nil, nil) if figures.size < 2

          variance = figures.sum { |one| (one - mean)**2 } / (figures.size - 1)
          half = Time::Normal::WITHIN_95 * Math.sqrt(variance * figures.size)
          new(sum, sum - half, sum + half)
        end

        # @param name [String]
        # @return [Hash] name, name_low, name_high
        def named(name) = { name => sum, "#{name}_low" => low, "#{name}_high" => high }
      end
  end
end
