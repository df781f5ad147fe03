# frozen_string_literal: true

module NimbleLedger
  module Day
    # Plays a board through in each of its scenarios (model.md section 11, "What happens in a scenario"): nothing is
    # random, the same board gives the same ends.
    #
    #   Simulation.new(board).run.ends[0]  #=> 251 instants, minutes after now; infinite without an end
    #
    # Inside, people, bays and jobs are their places in the board's lists, and a scenario's state is a handful of
    # arrays.
    class Simulation
      SAME = WallClock::SAME
      NEVER = Float::INFINITY
      HORIZON = OpeningHours::HORIZON_DAYS * WallClock::MINUTES_A_DAY
      NOBODY = -1

      # ends: by job, then by scenario; minutes: of each person and date, summed over scenarios.
      Result =
        Struct.new(:ends, :minutes) do
          # @return [Integer] in how many scenarios a job ends by then
          def by(job, instant) = ends[job].count { |at| at <= instant + SAME }

          # @param share [Float]
          # @return [Float] the end that so many of the scenarios keep
          def quantile(job, share) = ends[job].sort[((share * ends[job].size) - 1e-9).ceil.clamp(1, ends[job].size) - 1]
        end

      # @param board [Board]
      # @param lists [Array<Array<Integer>>] everybody's jobs in their order
      # @param load [Boolean] whether minutes are counted
      def initialize(board, lists: board.lists, load: false)
        @board = board
        @lists = lists
        @load = load
        @jobs = board.jobs
        @spans = board.people.map(&:spans)
        @starts = @spans.map { |spans| spans.map(&:from) << NEVER }
        @together = {}
        @instants = (@jobs.flat_map { |job| [job.arrives, job.there] }.select(&:positive?).uniq.sort << NEVER)
        @least_bays = @jobs.map { |job| bays_for(job) }
      end

      # @return [Result]
      def run
        @minutes = Hash.new(0.0)
        ends = Array.new(@jobs.size) { [] }
        Board::SCENARIOS.times { |k| play(k).each_with_index { |at, job| ends[job] << at } }
        Result.new(ends, @minutes)
      end

      private

      # Bays that have all a job needs, the one with the least equipment first, then as listed.
      def bays_for(job)
        fitting = @board.bays.each_index.select { |i| (job.equipment - @board.bays[i].equipment).empty? }
        fitting.sort_by { |i| [@board.bays[i].equipment.size, i] }
      end

      # @return [Array<Float>] by job
      def play(scenario)
        begin_scenario(scenario)
        now = 0.0
        while now <= HORIZON + SAME
          turn(now)
          break if @left.zero?

          now = next_instant(now)
        end
        @ends
      end

      def begin_scenario(scenario)
        count = @jobs.size
        @scale = @jobs.map { |job| job.totals[scenario] / job.work_minutes }
        @at = Array.new(count, 0)
        @until = Array.new(count, NEVER)
        @running = Array.new(count, false)
        @ends = Array.new(count, NEVER)
        @bay = @jobs.map(&:bay)
        @hands = Array.new(count)
        @busy = Array.new(@spans.size, NOBODY)
        @place = Array.new(@spans.size, 0)
        @next_start = Array.new(@spans.size, 0)
        @next_there = 0
        @taken = Array.new(@board.bays.size, false)
        @bay.each { |bay| @taken[bay] = true if bay }
        @left = count
        under_way
      end

      # What is in hand at the beginning, and waits that run then.
      def under_way
        held = @jobs.each_index.select { |job| @jobs[job].in_hand }
        for_two = held.select { |job| @jobs[job].segments.first.people == 2 }
        held.each { |job| @busy[@jobs[job].person] = job }
        for_two.each { |job| @busy[@jobs[job].with] = job if @jobs[job].with }
        held.each { |job| take_in_hand(job, @jobs[job].person, for_two.include?(job) ? helper(job) : nil, 0.0) }
        @jobs.each_index { |job| begin_wait(job, 0.0) if @jobs[job].bay && !@jobs[job].segments.first.work? }
      end

      def helper(job) = @jobs[job].with || idle(@jobs[job].person, 0.0)

      # Everything that happens at one instant.
      def turn(now)
        job = 0
        count = @jobs.size
        while job < count
          if @running[job]
            over(job, now) if @until[job] <= now + SAME
          elsif @at[job].zero? && !@jobs[job].bay && !@jobs[job].segments.first.work? &&
                @jobs[job].arrives <= now + SAME
            begin_wait(job, now)
          end
          job += 1
        end
        @spans.each_index { |person| start_something(person, now) if @busy[person] == NOBODY && at_work?(person, now) }
      end

      # A segment has ended: what comes next begins if it is a wait.
      def over(job, now)
        let_go(job)
        @running[job] = false
        @until[job] = NEVER
        @at[job] += 1
        segments = @jobs[job].segments
        if @at[job] == segments.size
          @ends[job] = now
          @left -= 1
          leave_bay(job)
        elsif !segments[@at[job]].work?
          begin_wait(job, now)
        end
      end

      def let_go(job)
        return unless @hands[job]

        @hands[job].each { |person| @busy[person] = NOBODY }
        @hands[job] = nil
      end

      def begin_wait(job, now)
        segment = @jobs[job].segments[@at[job]]
        @running[job] = true
        @until[job] = segment.kind == :wait ? now + segment.minutes : @board.opening.next_opening(now) || NEVER
        leave_bay(job) unless segment.holds_bay && @at[job] < @jobs[job].last_work
      end

      def leave_bay(job)
        bay = @bay[job] or return
        @taken[bay] = false
        @bay[job] = nil
      end

      # The first of somebody's jobs whose next work can start and is not passed over.
      def start_something(person, now)
        least_left = NEVER
        @lists[person].each do |job|
          next if @ends[job] != NEVER

          if @running[job]
            left = left_of_wait(job, now)
            least_left = left if left && left < least_left
          elsif can_start?(job, now) && !passed_over?(job, person, now, least_left)
            second = second_for(job, person, now)
            next if second == NOBODY

            take_bay(job)
            return take_in_hand(job, person, second, now)
          end
        end
      end

      # What is left of a wait of minutes that somebody stands by; nil for work, for one until the opening, and for one
      # that comes before any work is done (cooling).
      def left_of_wait(job, now)
        segment = @jobs[job].segments[@at[job]]
        return nil unless segment.kind == :wait
        return nil if @at[job] < @jobs[job].first_work && @jobs[job].bay.nil?

        @until[job] - now
      end

      def can_start?(job, now) =
        @jobs[job].segments[@at[job]].work? && @jobs[job].there <= now + SAME && (@bay[job] || free_bay(job))

      def free_bay(job) = @least_bays[job].find { |bay| !@taken[bay] }

      def passed_over?(job, person, now, least_left)
        return true if @jobs[job].segments[@at[job]].minutes > least_left + SAME
        return false if @at[job] != @jobs[job].first_work || @jobs[job].bay

        now >= @spans[person][@place[person]].hours_end - @board.last_start - SAME
      end

      # @return [Integer, nil] who helps; nil: nobody is needed; NOBODY: one is, and there is none
      def second_for(job, person, now)
        return nil if @jobs[job].segments[@at[job]].people == 1 || @spans.size == 1

        idle(person, now) || NOBODY
      end

      def idle(person, now) =
        @spans.each_index.find { |other| other != person && @busy[other] == NOBODY && at_work?(other, now) }

      def take_bay(job)
        return if @bay[job]

        @bay[job] = free_bay(job)
        @taken[@bay[job]] = true
      end

      def take_in_hand(job, person, second, now)
        hands = [person, second].compact
        hands.each { |one| @busy[one] = job }
        @hands[job] = hands
        @running[job] = true
        @until[job] = work_ends(hands, now, @jobs[job].segments[@at[job]].minutes * @scale[job])
      end

      # Work stands still while anybody bound to it is not at work.
      # @return [Float]
      def work_ends(hands, now, minutes)
        spans_of(hands).each do |span|
          next if span.to <= now + SAME

          from = span.from > now ? span.from : now
          worked = span.to - from < minutes - SAME ? span.to - from : minutes
          count(hands, span.date, worked) if @load
          minutes -= worked
          return from + worked if minutes <= SAME
        end
        NEVER
      end

      def count(hands, date, minutes) = hands.each { |person| @minutes[[person, date]] += minutes }

      def spans_of(hands)
        return @spans[hands.first] if hands.one?

        @together[hands] ||= @spans[hands[0]].flat_map do |one|
          @spans[hands[1]].filter_map do |other|
            from = [one.from, other.from].max
            to = [one.to, other.to].min
            OpeningHours::Span.new(from, to, one.hours_end, one.date) if from < to
          end
        end
      end

      # Time only goes forward: so does the place among somebody's spans.
      def at_work?(person, now)
        spans = @spans[person]
        place = @place[person]
        place += 1 while place < spans.size && spans[place].to <= now + SAME
        @place[person] = place
        place < spans.size && spans[place].from <= now + SAME
      end

      # When something can change next: a segment ends, a car or its parts come, somebody comes to work.
      def next_instant(now)
        soonest = @until.min
        @next_there += 1 while @instants[@next_there] <= now + SAME
        soonest = @instants[@next_there] if @instants[@next_there] < soonest
        @spans.each_index do |person|
          next unless @busy[person] == NOBODY

          starts = @starts[person]
          place = @next_start[person]
          place += 1 while starts[place] <= now + SAME
          @next_start[person] = place
          soonest = starts[place] if starts[place] < soonest
        end
        soonest
      end
    end
  end
end
