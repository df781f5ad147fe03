# frozen_string_literal: true

require "holidays"

module NimbleServer
  module Features
    module CalendarFiles
      # The days a country or a part of it keeps: offered, never taken for closed by themselves.
      module PublicHolidays
        REGION = /\A[a-z]{2}(_[a-z0-9]{1,3})?\z/
        DAYS = 365 # ahead

        module_function

        # @return [Array<String>] "gb", "gb_sct"
        def regions = @regions ||= Holidays.available_regions.map(&:to_s).grep(REGION).sort.freeze

        # Where the shop's language is at home.
        # @param locale [String] "en-GB"
        # @return [String, nil]
        def at_home(locale)
          code = locale.to_s[/-([A-Z]{2})\z/, 1].to_s.downcase
          regions.include?(code) ? code : nil
        end

        # @param region [String]
        # @param from [Date]
        # @return [Array<Hash>] "date", "name", each day once
        # @raise [Refusal] 422 for a region nobody knows
        def of(region, from)
          raise unknown(region) unless regions.include?(region)

          days = Holidays.between(from, from + DAYS, region.to_sym).group_by { |row| row[:date].iso8601 }
          days.map { |date, rows| { "date" => date, "name" => rows.map { |row| row[:name] }.uniq.join(", ") } }
        end

        def unknown(region) =
          Refusal.new(
            422,
            "no_region",
            "No holidays are known for #{region}.",
            details: [{ "path" => "/region", "message" => "is not known" }]
          )
      end
    end
  end
end
