# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # Gives a quote's work its person, place, drop-off and promise, and changes them: one change of the board at a
      # time, each with its number. A promise that is given stands in the record.
      class BookingDesk
        def initialize(shop)
          @shop = shop
        end

        # @param given [Hash] see the contract, BookTime
        # @return [String] id of the booking
        # @raise [Refusal] 404, 409 where the board moved meanwhile or the quote has a time, 422 for what does not fit
        def book(given)
          change("booked", given["version"]) do |board|
            quote = @shop[:quotes].where(id: given["quote_id"]).first or raise Refusal.not_found("quote")
            raise Refusal.new(409, "booked", "This quote has a time already: move it.") if booking_of(quote[:id])

            id = insert(board, quote, given)
            arrange(board, id, given["person"], given["place"])
            promised(id, given["promise"], given["chance"]) if given["promise"]
            time_given(id)
            id
          end
        end

        # Takes it elsewhere: another person's list, another place, another time to bring the car.
        # @param given [Hash] see the contract, MoveTime
        # @raise [Refusal] 404, 409 where the board moved meanwhile
        def move(id, given)
          change("moved", given["version"]) do |board|
            row = standing(id)
            values = given.slice("arrives", "parts_at").transform_keys(&:to_sym)
            @shop[:bookings].where(id: id).update(values) if values.any?
            person = given.fetch("person", row[:person_id])
            arrange(board, id, person, given.fetch("place", row[:place]))
            if given.key?("promise") && given["promise"] != Promises.of(@shop, [id])[id]&.fetch(:pick_up)
              promised(id, given["promise"], given["chance"])
            end
            time_given(id) if given["arrives"] && given["arrives"] != row[:arrives]
            id
          end
        end

        # The time is free again.
        # @raise [Refusal] 404, 409
        def give_back(id, version)
          change("given back", version) do |_board|
            standing(id)
            @shop[:bookings].where(id: id).update(ended_at: @shop.now)
            id
          end
        end

        # A yes makes firm what was only held.
        def agreed(quote_id)
          held = @shop[:bookings].where(quote_id: quote_id, ended_at: nil).exclude(hold_until: nil)
          ids = held.select_map(:id)
          return if ids.empty?

          held.update(hold_until: nil)
          ids.each { |id| time_given(id) }
          Live.tell(@shop, "day")
        end

        # What was said to a customer whose promise sinks: the row on the Counter is settled until it moves again.
        def called(id, words)
          row = standing(id)
          @shop.transaction do
            @shop[:bookings].where(id: id).update(called: words.strip)
            note("promise-called", row, { "words" => words.strip })
          end
          Live.tell(@shop, "day")
        end

        private

        def standing(id)
          rows = @shop[:bookings].where(id: id, ended_at: nil)
          rows.first || raise(Refusal.not_found("booking"))
        end

        def booking_of(quote_id)
          lapsed = Sequel[:hold_until] <= @shop.now
          @shop[:bookings].where(quote_id: quote_id, ended_at: nil).where(lapsed).update(ended_at: @shop.now)
          @shop[:bookings].where(quote_id: quote_id, ended_at: nil).first
        end

        def change(what, version)
          id =
            @shop.transaction do
              @shop.alone("board")
              board = Board.new(@shop)
              current = board.version
              raise moved_on unless version == current

              made = yield(board)
              @shop.insert(
                :board_changes,
                version: current + 1,
                what: what,
                detail: Sequel.pg_jsonb({ "booking" => made })
              )
              made
            end
          Live.tell(@shop, "day")
          id
        end

        def moved_on =
          Refusal.new(409, "board_moved", "The board was changed meanwhile. Look at it again, then change yours.")

        def insert(board, quote, given)
          job = Offers::AgreedJobs.in_hand(@shop[:jobs]).where(quote_id: quote[:id]).first
          refuse_person(board, given["person"])
          arrival = given.fetch("arrival", "cold")
          work = WorkOf.new(@shop).to_h(quote, job, arrival) or raise nothing_chosen
          @shop.insert(
            :bookings,
            quote_id: quote[:id],
            number: free_number,
            person_id: given["person"],
            place: given["place"],
            arrives: given["arrives"],
            arrival: arrival,
            parts_at: given["parts_at"],
            work: Sequel.pg_jsonb(work),
            hold_until: job ? nil : @shop.now + (board.house["hold_hours"] * 3600)
          )
        end

        def nothing_chosen =
          Refusal.new(422, "nothing_chosen", "Nothing is chosen on this quote yet: there is no work to give a time to.")

        def refuse_person(board, id)
          return if board.calendar.workers.any? { |row| row[:id] == id }

          raise Refusal.new(
                  422,
                  "not_working",
                  "This person does not work on cars.",
                  details: [{ "path" => "/person", "message" => "does not work on cars here" }]
                )
        end

        # The least number no booking on the board has: no two alike in their scenarios.
        def free_number
          lapsed = Sequel[:hold_until] <= @shop.now
          @shop[:bookings].where(ended_at: nil).where(lapsed).update(ended_at: @shop.now)
          taken = @shop[:bookings].where(ended_at: nil).select_map(:number)
          ((0...250).to_a - taken).first or
            raise Refusal.new(409, "board_full", "The board is full: 250 jobs have a time already.")
        end

        # Everybody's list numbered anew, with one of them at its place.
        def arrange(board, id, person, place)
          refuse_person(board, person)
          @shop[:bookings].where(id: id).update(person_id: person)
          others = @shop[:bookings].where(ended_at: nil, person_id: person).exclude(id: id)
          list = others.order(:place, :created_at, :id).select_map(:id)
          list.insert(place.clamp(0, list.size), id)
          list.each_with_index { |one, i| @shop[:bookings].where(id: one).exclude(place: i).update(place: i) }
        end

        # @param promise [String, nil] local instant; nil: nothing is promised any more
        def promised(id, promise, chance)
          per_cent = promise && (chance.to_f * 100).floor
          serial = (@shop[:promises].where(booking_id: id).max(:serial) || 0) + 1
          @shop.insert(:promises, booking_id: id, serial: serial, pick_up: promise, chance: per_cent)
          @shop[:bookings].where(id: id).update(called: nil)
          row = standing(id)
          note("promised", row, { "promise" => promise.to_s, "per_cent" => per_cent.to_i })
          Feature.publish(:promised, @shop, quote_id: row[:quote_id], serial: serial)
        end

        # Told of once it is firm.
        def time_given(id)
          row = standing(id)
          return if row[:hold_until]

          Feature.publish(:time_given, @shop, quote_id: row[:quote_id], arrives: row[:arrives])
        end

        def note(act, row, detail)
          quote = @shop[:quotes].where(id: row[:quote_id]).first
          Record::ActLog.new(@shop).append(act, "quote #{quote[:number]}", detail)
        end
      end
    end
  end
end
