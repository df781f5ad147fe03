# frozen_string_literal: true

require "icalendar"
require "icalendar/tzinfo"

module NimbleServer
  module Features
    module CalendarFiles
      # A calendar file (RFC 5545) whose times are the shop's wall clock.
      #
      #   file = IcsFile.new("Europe/London", name: "The shop")
      #   file.add("booking-1", from: "2026-11-27T08:00", to: "2026-11-27T11:15", summary: "4-TRE-1M")
      #   file.to_s  #=> "BEGIN:VCALENDAR…"
      class IcsFile
        TYPE = "text/calendar; charset=utf-8"

        # @param zone [String] as the time zone database names it
        def initialize(zone, name:)
          @zone = zone
          @calendar = ::Icalendar::Calendar.new
          @calendar.prodid = "-//Nimble Ledger//The day//EN"
          @calendar.append_custom_property("X-WR-CALNAME", name)
        end

        # @param uid [String] the same whenever it is written again
        # @param from [String] local instant, as to
        def add(uid, from:, to:, summary:, description: nil)
          timezone(from)
          event = ::Icalendar::Event.new
          event.uid = "#{uid}@nimble-ledger"
          event.dtstart, event.dtend = [from, to].map { |at| instant(at) }
          event.summary = summary
          event.description = description if description
          @calendar.add_event(event)
          self
        end

        # @return [String]
        def to_s = @calendar.to_ical

        private

        def instant(local) = ::Icalendar::Values::DateTime.new(DateTime.parse(local), "tzid" => @zone)

        # Once, with the rules of the year it is about.
        def timezone(local)
          return if @calendar.timezones.any?

          @calendar.add_timezone(TZInfo::Timezone.get(@zone).ical_timezone(DateTime.parse(local)))
        end
      end
    end
  end
end
