# frozen_string_literal: true

module NimbleServer
  module Features
    module CalendarFiles
      # What the routes of calendar files take and answer: part of the contract (formats/contract.rb).
      module Contract
        Shape = NimbleLedger::Shape

        REQUESTS = {
          "MakeFeed" => Shape.object(required: { "person" => Shape.nullable(Shape.integer(max: 1_000_000_000_000)) }),
          "ReadCalendar" => Shape.object(required: { "text" => Shape.string(max: 1_000_000, lines: true) })
        }.freeze

        text = Answers::TEXT
        whole = Answers::INT
        day = Answers.object({ "date" => text, "name" => text })
        feed =
          Answers.object(
            { "id" => text, "person" => Answers.maybe(whole), "name" => Answers.maybe(text), "url" => text }
          )
        event = Answers.object({ "from" => text, "to" => text, "whole_days" => Answers::BOOL, "what" => text })
        left_out = Answers.object({ "why" => text, "count" => whole })

        ANSWERS = {
          "Holidays" =>
            Answers.object(
              { "regions" => Answers.list(text), "region" => Answers.maybe(text), "days" => Answers.list(day) }
            ),
          "CalendarFeeds" => Answers.object({ "feeds" => Answers.list(feed) }),
          "CalendarImport" => Answers.object({ "events" => Answers.list(event), "left_out" => Answers.list(left_out) })
        }.freeze

        # @param operation [Proc] makes one of a path's operations (formats/contract.rb)
        # @return [Hash] as OpenAPI names them
        def self.paths(operation)
          {
            "/api/calendar/holidays" => {
              "get" => operation.call("Days a country keeps", "Holidays", query: ["region"], refused: ["422"])
            },
            "/api/calendar/feeds" => {
              "get" => operation.call("Links to the calendar", "CalendarFeeds"),
              "post" =>
                operation.call(
                  "One more link",
                  "CalendarFeeds",
                  body: "MakeFeed",
                  status: "201",
                  once: true,
                  refused: %w[404 409]
                )
            },
            "/api/calendar/feeds/{id}" => {
              "delete" =>
                operation.call("The link opens nothing any more", "CalendarFeeds", path: ["id"], refused: ["404"])
            },
            "/api/calendar/import" => {
              "post" =>
                operation.call("What a calendar file holds", "CalendarImport", body: "ReadCalendar", refused: ["422"])
            }
          }
        end
      end
    end
  end
end
