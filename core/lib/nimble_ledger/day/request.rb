# frozen_string_literal: true

module NimbleLedger
  module Day
    # A day request (formats.md): a board, played through; offers for a job that is asked about; the one move that
    # would keep more promises.
    class Request
      FORMAT = "nimble-ledger.day-request"
      MOST_TRIED = 400
      MOST_MOVED = 24

      instant = Shape.string(max: 16, pattern: WallClock::INSTANT)
      date = Shape.string(max: 10, pattern: WallClock::DATE)
      time = Shape.string(max: 5, pattern: WallClock::TIME)
      id = Shape.string(max: 80)
      week =
        Shape.object(
          required: WallClock::WEEKDAYS.rotate.to_h { |day| [day, Shape.nullable(Shape.list(time, min: 2, max: 2))] }
        )
      minutes = Shape.number(max: 1_000_000)
      segment =
        Shape.object(
          required: {
            "kind" => Shape.one_of("work", "wait")
          },
          optional: {
            "minutes" => minutes,
            "people" => Shape.integer(min: 1, max: 2),
            "until" => Shape.const("opening"),
            "holds_bay" => Shape.boolean
          }
        )
      part =
        Shape.object(
          required: {
            "chance" => Shape.number(max: 1),
            "mean_minutes" => minutes,
            "variance" => Shape.number(max: 1e12)
          }
        )
      asked = {
        required: {
          "id" => id,
          "number" => Shape.integer(max: 1_000_000_000),
          "segments" => Shape.list(segment, min: 1, max: 12),
          "time" => Shape.list(part, min: 1, max: 400)
        },
        optional: {
          "parts_at" => instant,
          "equipment" => Shape.list(id, max: 40)
        }
      }
      placed = {
        required: asked[:required].merge("person" => id, "arrives" => instant),
        optional: asked[:optional].merge("promise" => instant, "bay" => id, "in_hand" => Shape.boolean, "with" => id)
      }
      SHAPE =
        Shape.object(
          required: {
            "format" => Shape.const(FORMAT),
            "version" => Shape.const(1),
            "now" => instant,
            "opening" => week,
            "people" =>
              Shape.list(
                Shape.object(
                  required: {
                    "id" => id
                  },
                  optional: {
                    "hours" => week,
                    "away" => Shape.list(Shape.object(required: { "from" => instant, "to" => instant }), max: 400)
                  }
                ),
                min: 1,
                max: 12
              ),
            "bays" =>
              Shape.list(
                Shape.object(required: { "id" => id }, optional: { "equipment" => Shape.list(id, max: 40) }),
                min: 1,
                max: 24
              ),
            "jobs" => Shape.list(Shape.object(**placed), max: 60)
          },
          optional: {
            "closed" => Shape.list(date, max: 400),
            "share" => Shape.number(max: 1),
            "last_start_minutes" => Shape.number(max: 600),
            "near_minutes" => Shape.number(max: 600),
            "ask" =>
              Shape.object(
                required: {
                  "job" => Shape.object(**asked),
                  "drop_offs" => Shape.list(instant, min: 1, max: 40)
                },
                optional: {
                  "wanted" => instant
                }
              ),
            "moves" => Shape.boolean
          }
        )

      # @param hash [Hash] parsed JSON
      # @raise [InvalidInput] with the path of every fault
      def self.build(hash, **)
        SHAPE.check!(hash, what: "request", code: "invalid_request")
        faults = Checks.new(hash).faults
        return new(hash) if faults.empty?

        first = faults.first
        raise InvalidInput.new(
                "The request has a fault: #{first["path"]} #{first["message"]}.",
                code: "invalid_request",
                details: faults
              )
      end

      def initialize(hash)
        @hash = hash
        @clock = WallClock.new(hash["now"])
        @opening = OpeningHours.new(@clock, hash["opening"], hash["closed"] || [])
        @board = laid_out
        refuse_size
        freeze
      end

      # @return [Hash] see formats.md
      def answer(effort: nil)
        result = Simulation.new(@board, load: true, effort: effort).run
        answer = {
          "format" => "nimble-ledger.day",
          "version" => 1,
          "jobs" => @board.jobs.each_index.map { |job| job_row(job, result) },
          "load" => load(result)
        }
        answer["offers"] = offers(result, effort) if @hash["ask"]
        answer["move"] = move(result, effort) if @hash["moves"]
        answer
      end

      # @return [Board]
      attr_reader :board

      private

      def share = @hash.fetch("share", 0.8).to_f

      def laid_out
        people =
          @hash["people"].map { |row| Board::Person.new(row["id"], @opening.at_work(row["hours"], row["away"] || [])) }
        bays = @hash["bays"].map { |row| Board::Bay.new(row["id"], row["equipment"] || []) }
        Board.new(
          clock: @clock,
          opening: @opening,
          people: people,
          bays: bays,
          jobs: @hash["jobs"].map { |row| job(row, people.map(&:id), bays.map(&:id)) },
          share: share,
          last_start: @hash.fetch("last_start_minutes", 15)
        )
      end

      def job(row, people, bays)
        segments = row["segments"].map { |segment| segment(segment) }
        works = segments.each_index.select { |i| segments[i].work? }
        Board::Job.new(
          id: row["id"],
          equipment: row["equipment"] || [],
          in_hand: row.fetch("in_hand", false),
          segments: segments,
          totals: Board.totals(row["number"], row["time"]),
          first_work: works.first,
          last_work: works.last,
          work_minutes: works.sum(0.0) { |i| segments[i].minutes },
          **placed(row, people, bays)
        )
      end

      # Who and where, and the instants, in minutes after now.
      def placed(row, people, bays)
        at = ->(key) { row[key] && @clock.minutes(row[key]) }
        {
          person: people.index(row["person"]),
          bay: bays.index(row["bay"]),
          with: people.index(row["with"]),
          arrives: at.call("arrives"),
          parts_at: at.call("parts_at"),
          promise: at.call("promise")
        }
      end

      def segment(row)
        kind =
          if row["kind"] == "work"
            :work
          else
            row["until"] ? :opening : :wait
          end
        Board::Segment.new(kind, row.fetch("minutes", 0).to_f, row.fetch("people", 1), row.fetch("holds_bay", false))
      end

      def refuse_size
        places = @board.lists.sum { |list| list.size + 1 - @board.first_place(list) }
        ask = @hash["ask"]
        if ask && ask["drop_offs"].size * places > MOST_TRIED
          raise InvalidInput.at(
                  "/ask/drop_offs",
                  "has #{ask["drop_offs"].size} instants for #{places} places: at most #{MOST_TRIED} are tried together"
                )
        end
        return unless @hash["moves"] && @board.jobs.size > MOST_MOVED

        raise InvalidInput.at("/moves", "is for boards of at most #{MOST_MOVED} jobs; this one has #{@board.jobs.size}")
      end

      def job_row(job, result)
        one = @board.jobs[job]
        end_at = result.quantile(job, share)
        row = { "id" => one.id }
        { "p50" => 0.5, "p80" => 0.8, "p95" => 0.95 }.each do |name, p|
          at = result.quantile(job, p)
          row[name] = at.finite? ? at : nil
        end
        ready = end_at.finite? ? @opening.ready(@clock.quarter(end_at)) : nil
        row["ready"] = ready && @clock.text(ready)
        row["chance"] = chance(result.by(job, one.promise)) if one.promise
        row
      end

      def chance(scenarios) = scenarios.to_f / Board::SCENARIOS

      # From now's day to the last on which anybody has any.
      def load(result)
        last = result.minutes.select { |_key, minutes| minutes.positive? }.keys.map(&:last).max or return []
        @board.people.each_with_index.flat_map do |person, i|
          (@clock.today..last).map do |date|
            at_work = person.spans.select { |span| span.date == date }.sum(0.0) { |span| span.to - span.from }
            {
              "person" => person.id,
              "date" => date.iso8601,
              "minutes" => result.minutes[[i, date]] / Board::SCENARIOS,
              "at_work" => at_work
            }
          end
        end
      end

      def offers(result, effort)
        ask = @hash["ask"]
        wanted = ask["wanted"] && @clock.minutes(ask["wanted"])
        offers =
          Offers.new(
            @board,
            result,
            job(ask["job"], [], []),
            near: @hash.fetch("near_minutes", 30),
            wanted: wanted,
            effort: effort
          )
        ask["drop_offs"].map { |text| offer(text, offers.at(@clock.minutes(text)), wanted) }
      end

      def offer(drop_off, tried, wanted)
        return { "drop_off" => drop_off, "ready" => nil } unless tried

        {
          "drop_off" => drop_off,
          "ready" => tried.ready && @clock.text(tried.ready),
          "person" => @board.people[tried.person].id,
          "place" => tried.place,
          **(wanted ? { "chance" => chance(tried.chance) } : {}),
          "harm" =>
            tried.harm.map do |harm|
              { "job" => @board.jobs[harm.job].id, "before" => chance(harm.before), "after" => chance(harm.after) }
            end
        }
      end

      def move(result, effort)
        found = Move.new(@board, result, effort: effort).best or return nil
        {
          "job" => @board.jobs[found.job].id,
          "person" => @board.people[found.person].id,
          "place" => found.place,
          "raises" => chance(found.raises)
        }
      end
    end
  end
end
