# frozen_string_literal: true

require "tzinfo"

module NimbleServer
  module Features
    module Day
      # The shop's board as it stands this moment: what is booked and what is under way, as a day request takes it
      # (formats.md), with the rows it was made of.
      class Board
        # What is on it: the booking (nil for a job that was begun without one), the quote, the job (nil for a hold),
        # the job's entry in the request, and what is done of its way.
        Entry =
          Struct.new(:id, :booking, :quote, :job, :person, :asked, :work, :done_minutes, keyword_init: true) do
            def begun? = !job.nil? && !job[:started_at].nil?
          end

        def initialize(shop)
          @shop = shop
          @calendar = Calendar.new(shop)
          @work_of = WorkOf.new(shop)
        end

        attr_reader :calendar

        # Changes so far: whoever changes it names the version they looked at.
        def version = @shop[:board_changes].max(:version) || 0

        # This moment on the shop's wall, the minute that has begun.
        # @return [String]
        def now = @now ||= local(@shop.now)

        # @param time [Time]
        # @return [String] local instant
        def local(time) = zone.utc_to_local(time.getutc).strftime("%Y-%m-%dT%H:%M")

        # @return [Array<Entry>] everybody's jobs, each list in its order
        def entries = @entries ||= booked + begun_without

        # @return [Hash] a day request
        def request(**rest)
          hash = {
            "format" => NimbleLedger::Day::Request::FORMAT,
            "version" => 1,
            "now" => now,
            "share" => house["promise_share"],
            "last_start_minutes" => house["last_start_minutes"],
            "near_minutes" => house["near_minutes"],
            **calendar.for_board(Date.iso8601(now[0, 10])),
            "jobs" => placed(entries)
          }
          hash.merge(rest.transform_keys(&:to_s))
        end

        # The same jobs with one of them elsewhere.
        # @param id [String] of an entry
        # @return [Array<Entry>]
        def with_moved(id, person:, place:)
          moved = entries.find { |entry| entry.id == id } or raise Refusal.not_found("booking")
          rest = entries - [moved]
          moved = moved.dup.tap { |entry| entry.person = person }
          list, others = rest.partition { |entry| entry.person == person }
          others + list.insert(place.clamp(0, list.size), moved)
        end

        # @param entries [Array<Entry>]
        # @return [Array<Hash>] as the request takes them, bays given out to those that are under way
        def placed(entries)
          free = calendar.bays.map { |bay| bay["id"] }
          in_hand = []
          entries.filter_map do |entry|
            next entry.asked.merge("person" => entry.person.to_s) unless entry.begun?

            bay = free.delete(entry.job[:bay].to_s) || free.shift or next
            hand = entry.asked["in_hand"] && !in_hand.include?(entry.person)
            in_hand << entry.person if hand
            entry.asked.merge("person" => entry.person.to_s, "bay" => bay, "in_hand" => hand)
          end
        end

        # Jobs that are agreed and have no time yet.
        # @return [Array<Hash>] rows of jobs
        def unplaced
          taken = bookings.map { |row| row[:quote_id] }
          Offers::AgreedJobs
            .in_hand(@shop[:jobs])
            .where(started_at: nil, called_off_at: nil)
            .exclude(quote_id: taken)
            .order(:created_at)
            .all
        end

        # @return [Array<Hash>] bookings that stand
        def bookings
          @bookings ||=
            @shop[:bookings]
              .where(ended_at: nil)
              .where(Sequel.|({ hold_until: nil }, Sequel[:hold_until] > @shop.now))
              .order(:place, :created_at, :id)
              .all
        end

        # @return [Hash{String=>Hash}] what is promised, by booking
        def promises = @promises ||= Promises.of(@shop, bookings.map { |row| row[:id] })

        def house = @house ||= HouseRules::House.new(@shop).settings

        private

        def zone = @zone ||= TZInfo::Timezone.get(@shop.profile[:time_zone])
        def workers = @workers ||= calendar.workers.map { |row| row[:id] }

        # Somebody who no longer works on cars has no list: what was theirs is the first one's.
        def person(id) = workers.include?(id) ? id : workers.first

        def jobs = @jobs ||= @shop[:jobs].where(quote_id: bookings.map { |row| row[:quote_id] }).as_hash(:quote_id)

        def promised(booking) = promises[booking[:id]]&.fetch(:pick_up)

        def booked
          quotes = @shop[:quotes].where(id: bookings.map { |row| row[:quote_id] }).as_hash(:id)
          bookings.filter_map { |row| entry(row, quotes.fetch(row[:quote_id]), jobs[row[:quote_id]]) }
        end

        # A job that is finished, handed over or called off is not on the board any more.
        def entry(booking, quote, job)
          return nil if job && (job[:finished_at] || job[:handed_over_at] || job[:called_off_at])
          return begun(job, quote, booking) if job && job[:started_at]

          work = work(booking, quote, job) or return nil
          asked =
            work.slice("segments", "time").merge(
              "id" => booking[:id],
              "number" => booking[:number],
              "arrives" => booking[:arrives],
              "parts_at" => booking[:parts_at],
              "equipment" => calendar.asked_of_a_bay(work.fetch("equipment", [])),
              "promise" => promised(booking)
            )
          Entry.new(
            id: booking[:id],
            booking: booking,
            quote: quote,
            job: job,
            person: person(booking[:person_id]),
            asked: asked.compact,
            work: work,
            done_minutes: 0.0
          )
        end

        # What was worked out when it was booked, anew where something else was agreed since, or where the bay says how
        # warm it came.
        def work(booking, quote, job)
          known = booking[:work].to_h
          return known if job.nil? || known["of"] == "job #{job[:updated_at].to_f}"

          fresh = @work_of.to_h(quote, job, job[:arrival] || booking[:arrival]) or return nil
          @shop[:bookings].where(id: booking[:id]).update(work: Sequel.pg_jsonb(fresh))
          fresh
        end

        def begun_without
          started =
            Offers::AgreedJobs
              .in_hand(@shop[:jobs])
              .exclude(started_at: nil)
              .where(finished_at: nil, called_off_at: nil)
          started = started.exclude(quote_id: bookings.map { |row| row[:quote_id] }).order(:started_at).limit(24).all
          started.filter_map { |job| begun(job, @shop[:quotes].where(id: job[:quote_id]).first, nil) }
        end

        def begun(job, quote, booking)
          left = left_to_do(job)
          return nil unless left.any?

          Entry.new(
            id: booking ? booking[:id] : job[:id],
            booking: booking,
            quote: quote,
            job: job,
            person: person(job[:technician_id] || (booking && booking[:person_id])),
            asked: asked_of(job, booking, left),
            work: {
              "title" => job[:title],
              "descent" => NimbleLedger::Quote::Sheet.descent(left.job.plan)
            },
            done_minutes: left.done_minutes
          )
        end

        def left_to_do(job)
          card = Jobs::Cards.new(@shop).of(job)
          standing = Jobs::Standings.new(@shop).standing(card, Jobs::Marks.new(@shop).fold(job))
          NimbleLedger::Card::LeftToDo.new(standing, now: @shop.now)
        end

        def asked_of(job, booking, left)
          {
            "id" => booking ? booking[:id] : job[:id],
            "number" => booking ? booking[:number] : free_number,
            "arrives" => [local(job[:started_at]), now].min,
            "promise" => booking && promised(booking),
            "segments" => left.segments,
            "time" => left.time,
            "in_hand" => left.in_hand?
          }.compact
        end

        # The least that no booking has: for those begun without one.
        def free_number
          @numbers ||= bookings.map { |row| row[:number] % 250 }
          (0..).find { |one| !@numbers.include?(one) }.tap { |one| @numbers << one }
        end
      end
    end
  end
end
