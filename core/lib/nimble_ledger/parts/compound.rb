# frozen_string_literal: true

module NimbleLedger
  module Parts
    # Whether thread compound is in force: the profile decides unless the house or the job is set otherwise.
    module Compound
      # @param engine [Profile::Engine]
      # @param house [House::Settings] resolved for the job
      def self.used?(engine, house)
        rule = house["compound"]
        (rule == "profile" ? engine.plug("compound") : rule) == "film"
      end
    end
  end
end
