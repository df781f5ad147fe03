# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # What the day's routes take and answer: part of the contract (formats/contract.rb puts the features' together).
      module Contract
        Shape = NimbleLedger::Shape

        instant = Shape.string(max: 16, pattern: NimbleLedger::WallClock::INSTANT)
        date = Shape.string(max: 10, pattern: NimbleLedger::WallClock::DATE)
        time = Shape.string(max: 5, pattern: NimbleLedger::WallClock::TIME)
        hours = Shape.list(time, min: 2, max: 2)
        id = Shape.string(max: 80)
        person = Shape.integer(max: 1_000_000_000_000)
        place = Shape.integer(max: 60)
        version = Shape.integer(max: 1_000_000_000)
        chance = Shape.number(max: 1)
        week = Shape.object(required: %w[mon tue wed thu fri sat sun].to_h { |day| [day, Shape.nullable(hours)] })
        bay = Shape.object(required: { "id" => Shape.string(max: 40), "equipment" => Shape.list(id, max: 40) })
        worker =
          Shape.object(
            required: {
              "id" => person,
              "works" => Shape.boolean
            },
            optional: {
              "hours" => Shape.nullable(week),
              "lunch" => Shape.nullable(hours)
            }
          )
        absence =
          Shape.object(
            required: {
              "person" => person,
              "from" => instant,
              "to" => instant,
              "why" => Shape.string(max: 60, empty: true)
            }
          )
        calendar = {
          "revision" => version,
          "bays" => Shape.list(bay, min: 1, max: 24),
          "people" => Shape.list(worker, max: 60),
          "away" => Shape.list(absence, max: 300),
          "closed" => Shape.list(date, max: 300, unique: true)
        }

        REQUESTS = {
          "KeepCalendar" => Shape.object(required: calendar),
          "BookTime" =>
            Shape.object(
              required: {
                "quote_id" => id,
                "version" => version,
                "person" => person,
                "place" => place,
                "arrives" => instant
              },
              optional: {
                "arrival" => Shape.one_of("cold", "warm", "hot"),
                "parts_at" => Shape.nullable(instant),
                "promise" => Shape.nullable(instant),
                "chance" => chance
              }
            ),
          "MoveTime" =>
            Shape.object(
              required: {
                "version" => version
              },
              optional: {
                "person" => person,
                "place" => place,
                "arrives" => instant,
                "parts_at" => Shape.nullable(instant),
                "promise" => Shape.nullable(instant),
                "chance" => chance
              }
            ),
          "PreviewMove" => Shape.object(required: { "job" => id, "person" => person, "place" => place }),
          "GiveTimeBack" => Shape.object(required: { "version" => version }),
          "PromiseCalled" => Shape.object(required: { "words" => Shape.string(max: 200) })
        }.freeze

        span = Answers.object({ "from" => Answers::NUM, "to" => Answers::NUM })
        change = Answers.object({ "job" => Answers::TEXT, "before" => Answers::NUM, "after" => Answers::NUM })
        text = Answers::TEXT
        number = Answers::NUM
        whole = Answers::INT
        maybe = ->(shape) { Answers.maybe(shape) }
        segment =
          Answers.object(
            { "kind" => Answers.words("work", "wait") },
            {
              "minutes" => number,
              "people" => whole,
              "until" => Answers.words("opening"),
              "holds_bay" => Answers::BOOL
            }
          )
        stretch =
          Answers.object(
            {
              "segment" => whole,
              "kind" => Answers.words("work", "wait"),
              "from" => number,
              "to" => number,
              "bay" => maybe.call(text)
            }
          )
        job = {
          "id" => text,
          "booked" => Answers::BOOL,
          "quote_id" => text,
          "job_id" => maybe.call(text),
          "number" => whole,
          "plate" => text,
          "customer" => maybe.call(text),
          "phone" => maybe.call(text),
          "title" => text,
          "person" => whole,
          "begun" => Answers::BOOL,
          "hold_until" => maybe.call(text),
          "arrives" => text,
          "parts_at" => maybe.call(text),
          "promise" => maybe.call(text),
          "given_at" => maybe.call(whole),
          "called" => maybe.call(text),
          "chance" => maybe.call(number),
          "call_by" => maybe.call(text),
          "ready" => maybe.call(text),
          "p50" => maybe.call(number),
          "p80" => maybe.call(number),
          "p95" => maybe.call(number),
          "minutes" => number,
          "done_minutes" => number,
          "segments" => Answers.list(segment),
          "course" => Answers.list(stretch),
          "descent" => Answers.ref("Descent")
        }
        unplaced = {
          "quote_id" => text,
          "job_id" => text,
          "number" => whole,
          "plate" => text,
          "customer" => maybe.call(text),
          "title" => text
        }
        offer =
          Answers.object(
            { "drop_off" => text, "ready" => maybe.call(text), "arrival" => Answers.words("cold", "warm", "hot") },
            {
              "person" => maybe.call(whole),
              "place" => whole,
              "chance" => number,
              "harm" =>
                Answers.list(Answers.object({ "job" => text, "plate" => text, "before" => number, "after" => number }))
            }
          )
        booking = {
          "id" => text,
          "person" => whole,
          "arrives" => text,
          "parts_at" => maybe.call(text),
          "promise" => maybe.call(text),
          "hold_until" => maybe.call(text),
          "chance" => maybe.call(number),
          "ready" => maybe.call(text)
        }

        ANSWERS = {
          "Calendar" =>
            Answers.object(
              calendar.merge(
                "everybody" => Answers.list(Answers.object({ "id" => whole, "name" => text })),
                "opening" => week
              )
            ),
          "DayPage" =>
            Answers.object(
              {
                "version" => whole,
                "now" => text,
                "share" => number,
                "days" => Answers.list(Answers.object({ "date" => text, "from" => number, "to" => number })),
                "people" =>
                  Answers.list(Answers.object({ "id" => whole, "name" => text, "at_work" => Answers.list(span) })),
                "bays" => Answers.list(text),
                "jobs" => Answers.list(Answers.object(job)),
                "load" =>
                  Answers.list(
                    Answers.object({ "person" => text, "date" => text, "minutes" => number, "at_work" => number })
                  ),
                "unplaced" => Answers.list(Answers.object(unplaced))
              }
            ),
          "DayPreview" => Answers.object({ "ready" => maybe.call(text), "changes" => Answers.list(change) }),
          "DayMove" =>
            Answers.object(
              {
                "move" =>
                  maybe.call(
                    Answers.object(
                      {
                        "job" => text,
                        "person" => whole,
                        "place" => whole,
                        "raises" => number,
                        "ready" => maybe.call(text),
                        "changes" => Answers.list(change)
                      }
                    )
                  )
              }
            ),
          "KeptPromises" =>
            Answers.object(
              {
                "promises" => whole,
                "said" => maybe.call(number),
                "share" => maybe.call(number),
                "low" => maybe.call(number),
                "high" => maybe.call(number)
              }
            ),
          "SinkingPromise" =>
            Answers.object(job.slice(*%w[id quote_id number plate customer phone title promise chance ready call_by])),
          "WhenPage" =>
            Answers.object(
              {
                "version" => whole,
                "now" => text,
                "share" => number,
                "arrival" => Answers.words("cold", "warm", "hot"),
                "booking" => maybe.call(Answers.object(booking)),
                "offers" => Answers.list(offer),
                "people" => Answers.map(text)
              }
            )
        }.freeze

        # @param operation [Proc] makes one of a path's operations (formats/contract.rb)
        # @return [Hash] as OpenAPI names them
        def self.paths(operation)
          moved = { refused: %w[404 409 422] }
          {
            "/api/day" => {
              "get" => operation.call("The board: who works on what, when each car is ready, how sure", "DayPage")
            },
            "/api/day/kept" => {
              "get" => operation.call("Whether promises of a time were kept", "KeptPromises")
            },
            "/api/day/move" => {
              "get" => operation.call("The one move that keeps more promises", "DayMove")
            },
            "/api/day/preview" => {
              "post" => operation.call("What a move would do", "DayPreview", body: "PreviewMove", refused: ["404"])
            },
            "/api/quotes/{id}/when" => {
              "get" =>
                operation.call(
                  "When a quote's work can be",
                  "WhenPage",
                  path: ["id"],
                  query: %w[wanted parts_at],
                  refused: %w[404 409 422]
                )
            },
            "/api/bookings" => {
              "post" => operation.call("Book a time", "DayPage", body: "BookTime", status: "201", once: true, **moved)
            },
            "/api/bookings/{id}" => {
              "put" => operation.call("Move it", "DayPage", path: ["id"], body: "MoveTime", **moved)
            },
            "/api/bookings/{id}/give-back" => {
              "post" => operation.call("The time is free again", "DayPage", path: ["id"], body: "GiveTimeBack", **moved)
            },
            "/api/bookings/{id}/called" => {
              "post" =>
                operation.call("A customer was told", "DayPage", path: ["id"], body: "PromiseCalled", refused: ["404"])
            },
            "/api/calendar" => {
              "get" => operation.call("Who works when, in which bays", "Calendar"),
              "put" => operation.call("Keep it", "Calendar", body: "KeepCalendar", refused: %w[409 422])
            }
          }
        end
      end
    end
  end
end
