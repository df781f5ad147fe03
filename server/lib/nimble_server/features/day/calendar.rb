# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # Who works when, in which bays, and when the shop is closed, apart from the weekly opening hours that stand among
      # the house figures. Revision by revision, with who changed it and when.
      class Calendar
        # Before anybody has said anything: one bay, everybody as the shop is open.
        EMPTY = { "bays" => [{ "id" => "1", "equipment" => [] }], "people" => [], "away" => [], "closed" => [] }.freeze
        DAYS_AHEAD = 40
        LUNCH_WHY = "lunch"

        def initialize(shop)
          @shop = shop
        end

        def revision = newest ? newest[:revision] : 0

        # @return [Hash] see the contract, Calendar
        def to_h
          working = workers.map { |row| row[:id] }
          content.merge(
            "revision" => revision,
            "people" => everybody.map { |row| own(row[:id]).merge("works" => working.include?(row[:id])) },
            "everybody" => everybody.map { |row| { "id" => row[:id], "name" => row[:name] } },
            "opening" => house["opening_hours"]
          )
        end

        # @param given [Hash] see the contract, KeepCalendar
        # @return [Hash] see the contract, Calendar
        # @raise [NimbleLedger::InvalidInput] for what does not fit, with its path
        # @raise [Refusal] 409 when somebody changed it meanwhile
        def keep(given)
          kept = given.slice("bays", "people", "away", "closed")
          check(kept)
          @shop.transaction do
            @shop.alone("calendar")
            raise conflict unless revision == given["revision"]

            @shop.insert(:calendars, revision: revision + 1, content: Sequel.pg_jsonb(kept))
            @newest = nil
          end
          Live.tell(@shop, "day")
          to_h
        end

        # @return [Array<Hash>] rows of accounts that work on cars, in the order of their lists
        def workers
          chosen = content["people"].select { |row| row["works"] }.map { |row| row["id"] }
          rows = everybody.as_hash(:id)
          found = chosen.filter_map { |id| rows[id] }
          found.empty? ? default_workers(rows.values) : found
        end

        # @return [Array<Hash>] "id", "equipment"
        def bays = content["bays"]

        # @param equipment [Array<String>] that a job needs
        # @return [Array<String>] what its bay has to have of it
        def asked_of_a_bay(equipment) =
          NimbleLedger::Day::BayEquipment.asked(equipment, bays.map { |bay| bay["equipment"] })

        # What a day request asks of people, bays and closed dates (formats.md).
        # @param today [Date]
        # @return [Hash]
        def for_board(today)
          {
            "opening" => house["opening_hours"],
            "closed" => content["closed"],
            "people" => workers.map { |row| person(row, today) },
            "bays" => bays
          }
        end

        private

        def house = @house ||= HouseRules::House.new(@shop).settings
        def newest = @newest ||= @shop[:calendars].order(Sequel.desc(:revision)).first
        def content = newest ? JSON.parse(JSON.generate(newest[:content].to_h)) : EMPTY
        def everybody = @shop[:accounts].where(status_id: 2).order(:id).select(:id, :name, :role)

        # Nobody was chosen: technicians, else everybody.
        def default_workers(rows)
          technicians = rows.select { |row| row[:role] == "technician" }
          (technicians.empty? ? rows : technicians).first(12)
        end

        # What is said of somebody's hours.
        def own(id)
          said = content["people"].find { |one| one["id"] == id }
          said || { "id" => id, "works" => false, "hours" => nil, "lunch" => nil }
        end

        def person(row, today)
          own = own(row[:id])
          away = content["away"].select { |one| one["person"] == row[:id] }.map { |one| one.slice("from", "to") }
          { "id" => row[:id].to_s, "hours" => own["hours"], "away" => away + lunches(own["lunch"], today) }.compact
        end

        def lunches(lunch, today)
          return [] unless lunch

          (0...DAYS_AHEAD).map do |i|
            from, to = lunch.map { |time| "#{(today + i).iso8601}T#{time}" }
            { "from" => from, "to" => to }
          end
        end

        # By the core's own words: the calendar as an empty board.
        def check(kept)
          unknown = kept["people"].map { |row| row["id"] } - everybody.map { |row| row[:id] }
          raise NimbleLedger::InvalidInput.at("/people", "names somebody who is not here") if unknown.any?

          board = NimbleLedger::Day::Request
          board.build(
            {
              "format" => board::FORMAT,
              "version" => 1,
              "now" => "#{@shop.today.iso8601}T00:00",
              "opening" => house["opening_hours"],
              "closed" => kept["closed"],
              "bays" => kept["bays"],
              "people" => people_to_check(kept),
              "jobs" => []
            }
          )
        end

        def people_to_check(kept)
          rows = kept["people"].empty? ? [{ "id" => 0 }] : kept["people"]
          rows.map do |row|
            away = kept["away"].select { |one| one["person"] == row["id"] }.map { |one| one.slice("from", "to") }
            {
              "id" => row["id"].to_s,
              "hours" => row["hours"],
              "away" => away + lunches(row["lunch"], @shop.today)
            }.compact
          end
        end

        def conflict =
          Refusal.new(
            409,
            "calendar_conflict",
            "The calendar was changed meanwhile. Look at it again, then change yours."
          )
      end
    end
  end
end
