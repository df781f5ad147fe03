# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # The estimate behind quoted hours, where a shop's past knows no more than those: the lognormal whose house quantile
    # they are, as wide as the shop believes its days to vary. Only for what is brought along; a job quoted here has its
    # own estimate.
    module EstimateFromQuotedHours
      module_function

      # @param hours [Numeric] quoted, above 0
      # @param house [House::Settings]
      # @return [Hash] mean_minutes, sd_minutes
      def estimate(hours, house)
        variation = house["common_variation"]
        spread = Math.log(1 + (variation**2))
        reach = (Math.sqrt(spread) * Time::Normal.quantile(house["quantile"])) - (spread / 2)
        mean = hours * 60 / Math.exp(reach)
        { "mean_minutes" => mean, "sd_minutes" => mean * variation }
      end
    end
  end
end
