# frozen_string_literal: true

module NimbleServer
  module Features
    module CalendarFiles
      # The shop's calendar for other programs: subscribed to by a secret link, read in from a file, holidays offered.
      Feature =
        NimbleServer::Feature.define(:calendar_files) do
          depends :day
          routes { [Routes] }
        end
    end
  end
end
