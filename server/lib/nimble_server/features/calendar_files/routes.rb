# frozen_string_literal: true

module NimbleServer
  module Features
    module CalendarFiles
      # Calendars for other programs. Adds: GET /api/calendar/holidays; GET, POST and DELETE of /api/calendar/feeds;
      # POST /api/calendar/import, which reads a file and keeps nothing.
      module Routes
        def self.registered(app)
          feeds(app)

          app.api(:get, "/api/calendar/holidays", role: :owner) do
            region = params["region"].to_s
            region = PublicHolidays.at_home(shop.profile[:locale]) if region.empty?
            days = region ? PublicHolidays.of(region, shop.today) : []
            { "regions" => PublicHolidays.regions, "region" => region, "days" => days }
          end

          app.api(:post, "/api/calendar/import", role: :owner, body: "ReadCalendar") do
            IcsReader.new(shop.profile[:time_zone], shop.today).read(body_json["text"])
          end
        end

        def self.feeds(app)
          app.api(:get, "/api/calendar/feeds", role: :owner) { Feeds.new(shop).to_h }

          app.api(:post, "/api/calendar/feeds", role: :owner, body: "MakeFeed") do
            once(201) { Feeds.new(shop).make(body_json["person"]) }
          end

          app.api(:delete, "/api/calendar/feeds/:id", role: :owner) do
            Feeds.new(shop).withdraw(uuid(params["id"], "link"))
          end
        end
      end
    end
  end
end
