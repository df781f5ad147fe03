# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # Soak protocols compared by what came of them (model.md section 12, "Outcomes"): of plugs of one construction, how
    # many broke, how many were expected to, and between what shares that is likely to lie.
    module SoakProtocols
      module_function

      # @param plugs [Array<FinishedJob::Plug>]
      # @return [Array<Hash>] construction, soak, plugs, broken, expected, share, low, high, too_few
      def of(plugs)
        plugs
          .group_by { |plug| [plug.construction, plug.soak] }
          .sort
          .map { |(construction, soak), same| row(construction, soak, same) }
      end

      def row(construction, soak, same)
        broken = same.count { |plug| plug.outcome == "broken" }
        interval = Coverage.interval(broken, same.size)
        {
          "construction" => construction,
          "soak" => soak,
          "plugs" => same.size,
          "broken" => broken,
          "expected" => same.sum(&:broken),
          "too_few" => interval["high"] - interval["low"] > Coverage::TOO_WIDE
        }.merge(interval)
      end
    end
  end
end
