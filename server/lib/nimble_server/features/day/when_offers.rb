# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # When a quote's work can be: at some drop-offs of the next days, with whom, ready when, and what it would cost
      # the promises that were given; and by when the car must come for a wished time.
      class WhenOffers
        # As many drop-offs as are tried: now, this evening, and the next mornings and noons.
        MOST = 5
        DAYS = 3
        EVENING = 15 # minutes before closing
        STEP = 15

        def initialize(shop, board: Board.new(shop))
          @shop = shop
          @board = board
        end

        # @param quote [Hash] row
        # @param wanted [String, nil] local instant of the pick-up
        # @param parts_at [String, nil] local instant from which the parts are there; nil: they are
        # @return [Hash] see the contract, WhenPage
        def of(quote, wanted: nil, parts_at: nil)
          booking = @board.bookings.find { |row| row[:quote_id] == quote[:id] }
          job = Offers::AgreedJobs.in_hand(@shop[:jobs]).where(quote_id: quote[:id]).first
          arrival = arrival(quote)
          work = booking || job&.fetch(:started_at) ? nil : WorkOf.new(@shop).to_h(quote, job, arrival)
          {
            "version" => @board.version,
            "now" => @board.now,
            "share" => @board.house["promise_share"],
            "arrival" => arrival,
            "booking" => booking && standing(booking),
            "offers" => work ? offers(asked(work, parts_at), arrival, wanted) : [],
            "people" => names
          }
        end

        private

        def names = @board.calendar.workers.to_h { |row| [row[:id].to_s, row[:name]] }

        # How the car comes, as the quote has it.
        def arrival(quote)
          content = Quotes::Drafts.new(@shop).of(quote)[:content].to_h
          content["arrival"] || "cold"
        end

        def standing(booking)
          row = NimbleLedger::Day::Request.build(@board.request).answer["jobs"].find { |one| one["id"] == booking[:id] }
          {
            "id" => booking[:id],
            "person" => booking[:person_id],
            "arrives" => booking[:arrives],
            "parts_at" => booking[:parts_at],
            "promise" => @board.promises[booking[:id]]&.fetch(:pick_up),
            "hold_until" => booking[:hold_until]&.iso8601,
            "chance" => row && row["chance"],
            "ready" => row && row["ready"]
          }
        end

        # The job in hand, as a board takes it.
        def asked(work, parts_at)
          {
            "id" => "asked",
            "number" => free_number,
            "parts_at" => parts_at,
            "equipment" => @board.calendar.asked_of_a_bay(work["equipment"]),
            **work.slice("segments", "time")
          }.compact
        end

        def offers(asked, arrival, wanted)
          found = request(asked, drop_offs, wanted)
          found.map { |row| offer(row, arrival) }
        end

        def request(asked, drop_offs, wanted)
          ask = { "job" => asked, "drop_offs" => drop_offs, "wanted" => wanted }.compact
          NimbleLedger::Day::Request.build(@board.request(ask: ask)).answer["offers"]
        end

        # A number that no two on the board have alike.
        def free_number
          taken = @board.request["jobs"].map { |row| row["number"] % 250 }
          (0..249).find { |number| !taken.include?(number) } ||
            raise(Refusal.new(409, "board_full", "The board is full."))
        end

        # Local instants: now, this evening, then opening and noon of the days to come.
        def drop_offs
          clock = NimbleLedger::WallClock.new(@board.now)
          days = opening(clock).days.select { |span| span.to - EVENING > 0 }.first(DAYS)
          instants = days.flat_map { |span| of_day(clock, span) }
          instants.select { |at| at >= 0 }.uniq.sort.first(MOST).map { |at| clock.text(at) }
        end

        def opening(clock)
          NimbleLedger::Day::OpeningHours.new(clock, @board.house["opening_hours"], @board.request["closed"])
        end

        def of_day(clock, span)
          evening = span.to - EVENING
          return clock.quarter(0), evening if span.from <= 0

          noon = clock.midnight(span.date) + (12 * 60)
          [span.from, noon.between?(span.from, span.to) ? noon : span.from]
        end

        def offer(row, arrival)
          harm = row.fetch("harm", []).map { |one| one.merge(plate_of(one["job"])) }
          row.merge("person" => row["person"] && Integer(row["person"]), "arrival" => arrival, "harm" => harm)
        end

        def plate_of(id)
          entry = @board.entries.find { |one| one.id == id }
          { "plate" => @shop[:vehicles].where(id: entry.quote[:vehicle_id]).get(:plate) }
        end
      end
    end
  end
end
