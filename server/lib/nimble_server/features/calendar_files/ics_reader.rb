# frozen_string_literal: true

require "icalendar"
require "tzinfo"

module NimbleServer
  module Features
    module CalendarFiles
      # Reads a calendar file that somebody else's program wrote: what could be an absence or a closed day, as the
      # shop's wall clock has it. Nothing is kept by it: the calendar's page shows it, and keeps what is wanted.
      class IcsReader
        LARGEST = 2_000 # events

        # @param zone [String] the shop's
        # @param today [Date] what was over by then is left out
        def initialize(zone, today)
          @zone = TZInfo::Timezone.get(zone)
          @today = today
        end

        # @param text [String]
        # @return [Hash] see the contract, CalendarImport
        # @raise [Refusal] 422 for what is no calendar file
        def read(text)
          events = parse(text)
          rows = events.first(LARGEST).map { |event| row(event) }
          {
            "events" => rows.grep(Hash).sort_by { |one| one["from"] },
            "left_out" => rows.grep(String).tally.map { |why, count| { "why" => why, "count" => count } }
          }
        end

        private

        def parse(text)
          calendars = ::Icalendar::Calendar.parse(text)
          raise no_calendar if calendars.empty?

          calendars.flat_map(&:events)
        rescue ArgumentError, NoMethodError, ::Icalendar::Parser::ParseError
          raise no_calendar
        end

        # @return [Hash, String] why not
        def row(event)
          return "no day or time" unless event.dtstart
          return "comes again and again: enter its days one by one" if event.rrule.any?

          whole = event.dtstart.is_a?(::Icalendar::Values::Date)
          from, to = whole ? days(event) : times(event)
          return "ends before it begins" unless to > from
          return "over already" if to[0, 10] < @today.iso8601

          { "from" => from, "to" => to, "whole_days" => whole, "what" => event.summary.to_s.scrub("")[0, 60] }
        end

        # The end of whole days is the day after the last.
        def days(event)
          first = event.dtstart.to_date
          last = event.dtend ? event.dtend.to_date : first + 1
          [first, last].map { |date| "#{date.iso8601}T00:00" }
        end

        def times(event)
          last = event.dtend || event.dtstart
          [event.dtstart, last].map { |at| local(at).strftime("%Y-%m-%dT%H:%M") }
        end

        # What its wall shows, taken from its zone to the shop's; a time without a zone, or with one that nobody knows,
        # is the shop's own.
        def local(at)
          wall = ::Time.utc(at.year, at.month, at.day, at.hour, at.min)
          zone = zone_of(at) or return wall
          @zone.utc_to_local(WallTime.utc(zone, wall))
        end

        def zone_of(at)
          name = Array(at.ical_params["tzid"]).first or return nil
          TZInfo::Timezone.get(name)
        rescue TZInfo::InvalidTimezoneIdentifier
          nil
        end

        def no_calendar =
          Refusal.new(
            422,
            "no_calendar",
            "This is no calendar file: choose one that ends in .ics.",
            details: [{ "path" => "/text", "message" => "is no calendar file" }]
          )
      end
    end
  end
end
