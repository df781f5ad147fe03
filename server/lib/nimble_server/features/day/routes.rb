# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # When? Adds: GET /api/day, its one move and whether promises were kept, the preview of a move; POST, PUT and the
      # giving back of bookings; GET when a quote's work can be; GET and PUT /api/calendar.
      module Routes
        def self.registered(app)
          board(app)
          bookings(app)
          after(app)
          calendar(app)
        end

        def self.board(app)
          app.api(:get, "/api/day", role: :technician) { DayPage.new(shop).to_h }
          app.api(:get, "/api/day/move", role: :advisor, beside: "papers") { { "move" => DayPage.new(shop).move } }

          app.api(:post, "/api/day/preview", role: :advisor, body: "PreviewMove") do
            Preview.new(Board.new(shop)).of(*body_json.values_at("job", "person", "place"))
          end

          app.api(:get, "/api/quotes/:id/when", role: :technician, beside: "papers") do
            quote = shop[:quotes].where(id: uuid(params["id"], "quote")).first or raise Refusal.not_found("quote")
            asked = %w[wanted parts_at].to_h { |name| [name.to_sym, Routes.instant(name, params[name])] }
            WhenOffers.new(shop).of(quote, **asked)
          end
        end

        def self.bookings(app)
          app.api(:post, "/api/bookings", role: :advisor, body: "BookTime") do
            once(201) do
              BookingDesk.new(shop).book(body_json)
              DayPage.new(shop).to_h
            end
          end

          app.api(:put, "/api/bookings/:id", role: :advisor, body: "MoveTime") do
            BookingDesk.new(shop).move(uuid(params["id"], "booking"), body_json)
            DayPage.new(shop).to_h
          end
        end

        def self.after(app)
          app.api(:get, "/api/day/kept", role: :advisor) { KeptPromises.new(shop).to_h }

          app.api(:post, "/api/bookings/:id/give-back", role: :advisor, body: "GiveTimeBack") do
            BookingDesk.new(shop).give_back(uuid(params["id"], "booking"), body_json["version"])
            DayPage.new(shop).to_h
          end

          app.api(:post, "/api/bookings/:id/called", role: :advisor, body: "PromiseCalled") do
            BookingDesk.new(shop).called(uuid(params["id"], "booking"), body_json["words"])
            DayPage.new(shop).to_h
          end
        end

        def self.calendar(app)
          app.api(:get, "/api/calendar", role: :technician) { Calendar.new(shop).to_h }
          app.api(:put, "/api/calendar", role: :owner, body: "KeepCalendar") { Calendar.new(shop).keep(body_json) }
        end

        # @param name [String] of the parameter
        # @raise [Refusal] 422 for what is no local instant
        def self.instant(name, text)
          return nil if text.to_s.empty?
          return text if text.match?(NimbleLedger::WallClock::INSTANT) && NimbleLedger::WallClock.date(text)

          raise Refusal.new(
                  422,
                  "no_instant",
                  "This is no day and time: write it like 2026-11-24T17:30.",
                  details: [{ "path" => "/#{name}", "message" => "is no day and time" }]
                )
        end
      end
    end
  end
end
