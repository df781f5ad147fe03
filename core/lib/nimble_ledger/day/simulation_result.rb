# frozen_string_literal: true

module NimbleLedger
  module Day
    # What a board played through came to: ends by job, then by scenario, in minutes after now; minutes of each person
    # and date, summed over scenarios (model.md section 11, "Chance").
    SimulationResult =
      Struct.new(:ends, :minutes) do
        # @return [Integer] in how many scenarios a job ends by then
        def by(job, instant) = ends[job].count { |at| at <= instant + WallClock::SAME }

        # @param share [Float]
        # @return [Float] the end that so many of the scenarios keep
        def quantile(job, share) = ends[job].sort[((share * ends[job].size) - 1e-9).ceil.clamp(1, ends[job].size) - 1]
      end
  end
end
