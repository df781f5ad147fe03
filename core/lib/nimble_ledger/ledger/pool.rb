# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # What several shops have learned, put together from their shares: sums and nothing else (model.md section 17). A
    # shop that starts from it is left out of it.
    #
    #   Pool.new(shares_by_shop).engines  #=> { "PLOVER-V6" => Pool::Engine }
    class Pool
      LIKE_ONE_SHOP = 10.0 # jobs after which one shop weighs hardly more
      DOUBT = 5.0
      SHOPS = 2
      JOBS = 5
      PLUGS = 400.0 # of one row of one shop, at most

      # An engine: the effect others start from, and what it rests on.
      Engine = Struct.new(:mean_log, :jobs, :shops)

      # @param shares [Array<Hash>] of each shop but the one that asks (formats.md)
      # @param house [House::Settings] for the base chances
      def initialize(shares, house)
        @shares = shares
        @house = house
        freeze
      end

      # @return [Hash{String=>Engine}]
      def engines
        rows = @shares.flat_map { |one| one["engines"].to_a }.group_by(&:first)
        rows.transform_values { |same| same.map(&:last) }.sort.to_h.filter_map { |code, same| engine(code, same) }.to_h
      end

      # @return [Hash] see formats.md, pool
      def outcomes
        by_name = @shares.flat_map { |one| one["outcomes"]["broken"].to_a }.group_by(&:first)
        broken = by_name.sort.to_h.filter_map { |name, rows| construction(name, rows.map(&:last)) }.to_h
        { "broken" => broken, "thread" => over_all("thread"), "stubborn" => over_all("stubborn") }
      end

      private

      def engine(code, rows)
        jobs = rows.sum { |row| row["jobs"] }
        return nil if rows.size < SHOPS || jobs < JOBS

        weights = rows.map { |row| row["jobs"] / (1 + (row["jobs"] / LIKE_ONE_SHOP)) }
        mean = rows.zip(weights).sum(0.0) { |row, weight| weight * row["mean_log"] } / (weights.sum + DOUBT)
        [code, Engine.new(mean, jobs, rows.size)]
      end

      def construction(name, rows)
        base = @house["break_chance"][name]
        factor = factor(rows, base) or return nil
        soaks = rows.flat_map { |row| row["soaks"].to_a }.group_by(&:first).sort.to_h
        known = soaks.transform_values { |same| factor(same.map(&:last), base) }.compact
        [name, { "factor" => factor, "soaks" => known }]
      end

      def over_all(name) = factor(@shares.map { |one| one["outcomes"][name] }, @house["#{name}_chance"]) || 1.0

      # @return [Float, nil] nil where fewer than two shops have seen such plugs
      def factor(rows, base)
        rows = rows.select { |row| row["plugs"].positive? }
        return nil if rows.size < SHOPS

        sums =
          rows.map { |row| row.values_at("broken_sum", "whole_sum").map { |sum| sum * [1, PLUGS / row["plugs"]].min } }
        Outcomes::Seen.new(0, sums.sum(0.0, &:first), sums.sum(0.0, &:last)).factor(base)
      end
    end
  end
end
