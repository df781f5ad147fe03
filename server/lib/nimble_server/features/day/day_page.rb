# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # The board as the Day screen shows it: everybody's jobs where they will most likely run, how sure each promise
      # is, how full the days are, what has no time yet.
      class DayPage
        SHOWN_DAYS = 7

        def initialize(shop, board: Board.new(shop))
          @shop = shop
          @board = board
        end

        # @return [Hash] see the contract, DayPage
        def to_h
          request = NimbleLedger::Day::Request.build(@board.request)
          answer = request.answer
          found = answer["jobs"].to_h { |row| [row["id"], row] }
          course = courses(request)
          {
            "version" => @board.version,
            "now" => @board.now,
            "share" => @board.house["promise_share"],
            "days" => days(request.board),
            "people" => people(request.board),
            "bays" => @board.calendar.bays.map { |bay| bay["id"] },
            "jobs" =>
              @board.entries.filter_map { |entry| found[entry.id] && row(entry, found[entry.id], course[entry.id]) },
            "load" => answer["load"],
            "unplaced" => unplaced
          }
        end

        # The one move that keeps more promises, where there is one; looked for only where a promise sinks.
        # @return [Hash, nil] see the contract, DayMove
        def move
          request = @board.request(moves: true)
          return nil if request["jobs"].size > NimbleLedger::Day::Request::MOST_MOVED

          found = NimbleLedger::Day::Request.build(request).answer["move"] or return nil
          found.merge(
            "person" => Integer(found["person"]),
            **Preview.new(@board).of(found["job"], Integer(found["person"]), found["place"])
          )
        end

        private

        def names = @names ||= @board.calendar.workers.to_h { |row| [row[:id], row[:name]] }

        def courses(request)
          ids = request.board.jobs.map(&:id)
          ids.zip(NimbleLedger::Day::Course.new(request.board).stretches).to_h
        end

        # Open days from now's on, minutes after now.
        def days(board)
          board
            .opening
            .days
            .select { |span| span.to > 0 }
            .first(SHOWN_DAYS)
            .map { |span| { "date" => span.date.iso8601, "from" => span.from, "to" => span.to } }
        end

        def people(board)
          last = days(board).last&.fetch("to") || 0
          board.people.map do |person|
            spans = person.spans.select { |span| span.from < last }
            {
              "id" => Integer(person.id),
              "name" => names.fetch(Integer(person.id)),
              "at_work" => spans.map { |span| { "from" => span.from, "to" => span.to } }
            }
          end
        end

        def row(entry, found, stretches)
          who(entry).merge(promised(entry)).merge(
            found.slice("ready", "p50", "p80", "p95"),
            "chance" => found["chance"],
            "call_by" => call_by(entry, found["chance"]),
            "minutes" => entry.asked["segments"].sum { |one| one["kind"] == "work" ? one["minutes"] : 0 },
            "done_minutes" => entry.done_minutes,
            "segments" => entry.asked["segments"],
            "course" => stretches.map { |one| stretch(one) },
            "descent" => entry.work["descent"]
          )
        end

        # By when to call where a promise holds less often than the house's share.
        # @return [String, nil] local instant, now at the earliest
        def call_by(entry, chance)
          return nil if chance.nil? || chance >= @board.house["promise_share"]

          clock = NimbleLedger::WallClock.new(@board.now)
          ahead = @board.house["call_ahead_minutes"].round
          clock.text([clock.minutes(entry.asked["promise"]) - ahead, 0].max)
        end

        def who(entry)
          vehicle = vehicle(entry.quote)
          {
            "id" => entry.id,
            "booked" => !entry.booking.nil?,
            "quote_id" => entry.quote[:id],
            "job_id" => entry.job && entry.job[:id],
            "number" => entry.quote[:number],
            "plate" => vehicle[:plate],
            "customer" => vehicle[:customer_name],
            "phone" => vehicle[:customer_phone],
            "title" => entry.work["title"].to_s,
            "person" => entry.person,
            "begun" => entry.begun?
          }
        end

        def promised(entry)
          booking = entry.booking || {}
          {
            "hold_until" => booking[:hold_until]&.iso8601,
            "arrives" => entry.asked["arrives"],
            "parts_at" => entry.asked["parts_at"],
            "promise" => entry.asked["promise"],
            "given_at" => @board.promises[entry.id]&.fetch(:chance),
            "called" => booking[:called]
          }
        end

        def stretch(one)
          {
            "segment" => one.segment,
            "kind" => one.kind == :work ? "work" : "wait",
            "from" => one.from,
            "to" => one.to,
            "bay" => one.bay && @board.calendar.bays[one.bay]["id"]
          }
        end

        def unplaced
          @board.unplaced.map do |job|
            quote = @shop[:quotes].where(id: job[:quote_id]).first
            {
              "quote_id" => quote[:id],
              "job_id" => job[:id],
              "number" => quote[:number],
              "plate" => vehicle(quote)[:plate],
              "customer" => vehicle(quote)[:customer_name],
              "title" => job[:title]
            }
          end
        end

        def vehicle(quote)
          @vehicles ||= {}
          @vehicles[quote[:vehicle_id]] ||= Vehicles::Garage.new(@shop).find(quote[:vehicle_id])
        end
      end
    end
  end
end
