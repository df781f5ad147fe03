# frozen_string_literal: true

require "tzinfo"

module NimbleServer
  # A time on a wall as an instant, in the two nights of the year too: of an hour that comes twice the first is meant,
  # and what stands in the hour that is left out is an hour later.
  #
  #   WallTime.utc(TZInfo::Timezone.get("Europe/London"), Time.utc(2027, 3, 28, 1, 30))  #=> 2027-03-28 01:30:00 UTC
  module WallTime
    HOUR = 3600

    module_function

    # @param zone [TZInfo::Timezone]
    # @param wall [Time] what the wall shows, as if it were UTC
    # @return [Time] in UTC
    def utc(zone, wall)
      zone.local_to_utc(wall, &:first)
    rescue TZInfo::PeriodNotFound
      zone.local_to_utc(wall + HOUR, &:first)
    end
  end
end
