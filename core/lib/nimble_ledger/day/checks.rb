# frozen_string_literal: true

module NimbleLedger
  module Day
    # What the shape of a day request cannot say: days that are in the calendar, names that are known, what cannot stand
    # on one board together (formats.md). Every fault with its path.
    class Checks
      # @param hash [Hash] that fits Request::SHAPE
      def initialize(hash)
        @hash = hash
        @faults = []
      end

      # @return [Array<Hash>] "path", "message"
      def faults
        calendar(@hash, "")
        return @faults if @faults.any?

        @clock = WallClock.new(@hash["now"])
        hours
        people_and_bays
        each_job { |row, path| job(row, path) }
        placed
        asked
        numbers
        @faults
      end

      private

      INSTANTS = %w[now arrives parts_at promise from to wanted].freeze

      def fault(path, message) = @faults << { "path" => path, "message" => message }

      # Days that are written well and do not exist.
      def calendar(value, path)
        case value
        when Hash
          value.each do |key, member|
            here = "#{path}/#{Shape.key(key)}"
            if INSTANTS.include?(key) && member.is_a?(String)
              day(member, here)
            elsif %w[closed drop_offs].include?(key)
              member.each_with_index { |text, i| day(text, "#{here}/#{i}") }
            else
              calendar(member, here)
            end
          end
        when Array
          value.each_with_index { |member, i| calendar(member, "#{path}/#{i}") }
        end
      end

      def day(text, path) = WallClock.date(text) || fault(path, "is a day that is not in the calendar")

      def hours
        week(@hash["opening"], "/opening")
        fault("/opening", "never opens") if @hash["opening"].values.none?
        fault("/share", "must lie between 0 and 1, ends excluded") unless open_share?
        @hash["people"].each_with_index do |person, i|
          week(person["hours"], "/people/#{i}/hours") if person["hours"]
          (person["away"] || []).each_with_index do |row, j|
            next if @clock.minutes(row["from"]) < @clock.minutes(row["to"])

            fault("/people/#{i}/away/#{j}/to", "must come after from")
          end
        end
      end

      def open_share? = @hash.fetch("share", 0.8).then { |share| share.positive? && share < 1 }

      def week(weekly, path)
        weekly.each do |name, pair|
          next if pair.nil?

          from, to = pair.map { |text| WallClock.of_day(text) }
          fault("#{path}/#{name}", "must open before it closes") unless from < to
        end
      end

      def people_and_bays
        @people = unique(@hash["people"], "/people")
        @bays = unique(@hash["bays"], "/bays")
      end

      def unique(rows, path, known = [])
        rows.each_with_index do |row, i|
          fault("#{path}/#{i}/id", "repeats #{row["id"]}") if known.include?(row["id"])
          known += [row["id"]]
        end
        known
      end

      def each_job
        @hash["jobs"].each_with_index { |row, i| yield row, "/jobs/#{i}" }
        yield @hash.dig("ask", "job"), "/ask/job" if @hash["ask"]
      end

      def job(row, path)
        row["segments"].each_with_index { |segment, i| segment(segment, "#{path}/segments/#{i}") }
        fault("#{path}/segments", "has no work") if row["segments"].none? { |segment| segment["kind"] == "work" }
        time(row["time"], "#{path}/time")
        needs = row["equipment"] || []
        return if @hash["bays"].any? { |bay| (needs - (bay["equipment"] || [])).empty? }

        fault("#{path}/equipment", "is in no single bay: #{needs.join(", ")}")
      end

      def segment(row, path)
        if row["kind"] == "work"
          fault(path, "is work and waits for nothing") if row.key?("until") || row.key?("holds_bay")
          fault("#{path}/minutes", "must be above 0") unless row["minutes"]&.positive?
        else
          fault("#{path}/people", "belongs to work") if row.key?("people")
          fault(path, "waits for minutes or until the opening, one of them") if row.key?("minutes") == row.key?("until")
          fault("#{path}/minutes", "must be above 0") if row.key?("minutes") && !row["minutes"].positive?
        end
      end

      def time(rows, path)
        rows.each_with_index do |row, i|
          fault("#{path}/#{i}/mean_minutes", "must be above 0") unless row["mean_minutes"].positive?
        end
        whole = rows.sum(0.0) { |row| row["chance"] }
        fault(path, "has chances that sum to #{whole}, not to 1") if (whole - 1).abs > 1e-6
      end

      def placed
        jobs = @hash["jobs"]
        ids = unique(jobs, "/jobs")
        asked = @hash.dig("ask", "job", "id")
        fault("/ask/job/id", "repeats #{asked}") if ids.include?(asked)
        held = {}
        busy = {}
        jobs.each_with_index do |row, i|
          path = "/jobs/#{i}"
          fault("#{path}/person", "names #{row["person"]}, who is not here") unless @people.include?(row["person"])
          bay(row, path, held)
          in_hand(row, path, busy)
        end
        jobs.each_with_index { |row, i| with(row, "/jobs/#{i}", busy) }
      end

      def bay(row, path, held)
        name = row["bay"] or return
        bay = @hash["bays"].find { |one| one["id"] == name } or
          return fault("#{path}/bay", "names #{name}, which is not here")
        fault("#{path}/bay", "is held twice") if held[name]
        held[name] = true
        lacks = (row["equipment"] || []) - (bay["equipment"] || [])
        fault("#{path}/bay", "has no #{lacks.first}, which the job needs") if lacks.any?
        fault("#{path}/arrives", "is still to come, but the car stands in a bay") if @clock.minutes(row["arrives"]) > 0
      end

      def in_hand(row, path, busy)
        return unless row["in_hand"]

        fault("#{path}/in_hand", "needs a bay") unless row["bay"]
        fault("#{path}/in_hand", "begins with no work") unless row["segments"].first["kind"] == "work"
        fault("#{path}/in_hand", "is the second that #{row["person"]} has in hand") if busy[row["person"]]
        busy[row["person"]] = true
      end

      def with(row, path, busy)
        name = row["with"] or return
        return fault("#{path}/with", "needs in_hand") unless row["in_hand"]
        return fault("#{path}/with", "names #{name}, who is not here") unless @people.include?(name)
        return fault("#{path}/with", "is the person themselves") if name == row["person"]

        fault("#{path}/with", "has a job in hand") if busy[name]
        busy[name] = true
      end

      def asked
        ask = @hash["ask"] or return
        ask["drop_offs"].each_with_index do |text, i|
          fault("/ask/drop_offs/#{i}", "lies before now") if @clock.minutes(text).negative?
        end
        fault("/ask/wanted", "lies before now") if ask["wanted"] && @clock.minutes(ask["wanted"]).negative?
      end

      def numbers
        seen = {}
        each_job do |row, path|
          same = seen[row["number"] % 250]
          fault("#{path}/number", "is alike #{same} modulo 250") if same
          seen[row["number"] % 250] ||= row["number"]
        end
      end
    end
  end
end
