# frozen_string_literal: true

module NimbleLedger
  module Day
    # Plays a board through in each of its scenarios (model.md section 11, "What happens in a scenario"): nothing is
    # random, the same board gives the same ends.
    #
    #   Simulation.new(board).run.ends[0]  #=> 251 instants, minutes after now; infinite without an end
    class Simulation
      SAME = WallClock::SAME
      NEVER = Float::INFINITY
      HORIZON = OpeningHours::HORIZON_DAYS * WallClock::MINUTES_A_DAY
      NOBODY = -1

      # @param board [Board]
      # @param lists [Array<Array<Integer>>] everybody's jobs in their order
      # @param load [Boolean] whether minutes are counted
      # @param effort [Access::NodeBudget, nil] told of every scenario, so that others run and nobody computes for
      #   nobody
      def initialize(board, lists: board.lists, load: false, effort: nil)
        @board = board
        @lists = lists
        @load = load
        @effort = effort
        @jobs = board.jobs
        @spans = board.people.map(&:spans)
        @starts = @spans.map { |spans| [*spans.map(&:from), NEVER] }
        @together = {}
        @instants = (@jobs.flat_map { |job| [job.arrives, job.there] }.select(&:positive?).uniq.sort << NEVER)
        read_jobs
        read_beginning
      end

      # @param order [Enumerable<Integer>] of the scenarios; what comes of them does not depend on it
      # @yieldparam ends [Array<Float>] of a scenario, by job
      # @yieldreturn [Boolean] whether nobody needs the rest
      # @return [SimulationResult, nil] nil where it was given up
      def run(order = (0...Board::SCENARIOS))
        @minutes = Hash.new(0.0)
        ends = Array.new(@jobs.size) { [] }
        order.each do |k|
          @effort&.visit
          played(k).each_with_index { |at, job| ends[job] << at }
          return nil if block_given? && yield(@ends)
        end
        SimulationResult.new(ends, @minutes)
      end

      private

      # @return [Array<Float>] ends by job in a scenario
      def played(scenario) = play(scale_of(scenario))

      # @return [Array<Float>] how much longer than stated the works of each job take in a scenario
      def scale_of(scenario) = @jobs.map { |job| job.totals[scenario] / job.work_minutes }

      # What is asked of jobs over and over, by place.
      def read_jobs
        @segments = @jobs.map(&:segments)
        @there = @jobs.map(&:there)
        @first_work = @jobs.map(&:first_work)
        @last_work = @jobs.map(&:last_work)
        @least_bays = @jobs.map { |job| @board.bays_for(job) }
        @waits_first = @jobs.map { |job| !job.segments.first.work? }
      end

      # What is the same at the beginning of every scenario.
      def read_beginning
        @bays = @jobs.map(&:bay)
        @held = @jobs.each_index.select { |job| @jobs[job].in_hand }
        @for_two = @held.select { |job| @segments[job].first.people == 2 }
        @waiting = @jobs.each_index.select { |job| @bays[job] && @waits_first[job] }
        @cooling = @jobs.each_index.select { |job| @bays[job].nil? && @waits_first[job] }
      end

      # @param scale [Array<Float>] how much longer than stated the works of each job take
      # @return [Array<Float>] ends by job
      def play(scale)
        begin_scenario(scale)
        go_on(0.0)
      end

      def go_on(now)
        while now <= HORIZON + SAME
          turn(now)
          break if @left.zero?

          now = next_instant(now)
        end
        @ends
      end

      def begin_scenario(scale)
        count = @jobs.size
        @scale = scale
        @at = Array.new(count, 0)
        @until = Array.new(count, NEVER)
        @ends = Array.new(count, NEVER)
        @bay = @bays.dup
        @hands = Array.new(count)
        @busy = Array.new(@spans.size, NOBODY)
        @place = Array.new(@spans.size, 0)
        @next_start = Array.new(@spans.size, 0)
        @next_there = 0
        @taken = Array.new(@board.bays.size, false)
        @bay.each { |bay| @taken[bay] = true if bay }
        @unbegun = @cooling.dup
        @left = count
        under_way
      end

      # What is in hand at the beginning, and waits that run then.
      def under_way
        @held.each { |job| @busy[@jobs[job].person] = job }
        @for_two.each { |job| @busy[@jobs[job].with] = job if @jobs[job].with }
        @held.each { |job| take_in_hand(job, @jobs[job].person, helper(job), 0.0) }
        @waiting.each { |job| begin_wait(job, 0.0) }
      end

      # @return [Integer, nil] who helps with what is in hand at the beginning
      def helper(job) = @for_two.include?(job) ? @jobs[job].with || idle(@jobs[job].person, 0.0) : nil

      # Everything that happens at one instant.
      def turn(now)
        soon = now + SAME
        begin_cooling(now) unless @unbegun.empty?
        job = 0
        while job < @until.size
          over(job, now) if @until[job] <= soon
          job += 1
        end
        person = 0
        people = @busy.size
        while person < people
          start_something(person, now) if @busy[person] == NOBODY && at_work?(person, soon)
          person += 1
        end
      end

      # Waits before any work begin when the car is there.
      def begin_cooling(now)
        @unbegun.reject! { |job| begin_wait(job, now) if @jobs[job].arrives <= now + SAME }
      end

      # A segment has ended: what comes next begins if it is a wait.
      def over(job, now)
        let_go(job)
        @until[job] = NEVER
        segments = @segments[job]
        at = @at[job] += 1
        if at == segments.size
          @ends[job] = now
          @left -= 1
          leave_bay(job)
        elsif !segments[at].work?
          begin_wait(job, now)
        end
      end

      def let_go(job)
        return unless @hands[job]

        @hands[job].each { |person| @busy[person] = NOBODY }
        @hands[job] = nil
      end

      # One that does not hold the bay, or comes when all work is done, frees it.
      def begin_wait(job, now)
        segment = @segments[job][@at[job]]
        @until[job] = segment.kind == :wait ? now + segment.minutes : @board.opening.next_opening(now) || NEVER
        @hands[job] = nil
        leave_bay(job) unless segment.holds_bay && @at[job] < @last_work[job]
        true
      end

      def leave_bay(job)
        @taken[@bay[job]] = false if @bay[job]
        @bay[job] = nil
      end

      # The first of somebody's jobs whose next work can start and is not passed over.
      def start_something(person, now)
        least_left = NEVER
        @lists[person].each do |job|
          next if @ends[job] != NEVER || @hands[job]

          segment = @segments[job][@at[job]]
          if segment.work?
            next unless can_start?(job, now) && !passed_over?(job, segment, person, now, least_left)

            second = second_for(segment, person, now)
            next if second == NOBODY

            take_bay(job)
            return take_in_hand(job, person, second, now)
          elsif segment.kind == :wait && @until[job] != NEVER && stood_by?(job)
            left = @until[job] - now
            least_left = left if left < least_left
          end
        end
      end

      # Nobody stands by a wait that comes before any work is done (cooling).
      def stood_by?(job) = @at[job] > @first_work[job] || !@bays[job].nil?

      def can_start?(job, now) = @there[job] <= now + SAME && (@bay[job] || free_bay(job))

      def free_bay(job) = @least_bays[job].find { |bay| !@taken[bay] }

      def passed_over?(job, segment, person, now, least_left)
        return true if segment.minutes > least_left + SAME
        return false if @at[job] != @first_work[job] || @bays[job]

        now >= @spans[person][@place[person]].hours_end - @board.last_start - SAME
      end

      # @return [Integer, nil] who helps; nil: nobody is needed; NOBODY: one is, and there is none
      def second_for(segment, person, now)
        return nil if segment.people == 1 || @spans.size == 1

        idle(person, now) || NOBODY
      end

      def idle(person, now)
        soon = now + SAME
        @spans.each_index.find { |other| other != person && @busy[other] == NOBODY && at_work?(other, soon) }
      end

      def take_bay(job)
        return if @bay[job]

        @bay[job] = free_bay(job)
        @taken[@bay[job]] = true
      end

      def take_in_hand(job, person, second, now)
        hands = second ? [person, second] : [person]
        hands.each { |one| @busy[one] = job }
        @hands[job] = hands
        @until[job] = work_ends(hands, now, @segments[job][@at[job]].minutes * @scale[job])
      end

      # Work stands still while anybody bound to it is not at work.
      # @return [Float]
      def work_ends(hands, now, minutes)
        spans = hands.one? ? @spans[hands.first] : shared_spans(hands)
        place = hands.one? ? @place[hands.first] : 0
        while (span = spans[place])
          place += 1
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

      def shared_spans(hands) = @together[hands] ||= OpeningHours.together(@spans[hands[0]], @spans[hands[1]])

      # Time only goes forward: so does the place among somebody's spans.
      # @param soon [Float] now, and what is one with it
      def at_work?(person, soon)
        spans = @spans[person]
        place = @place[person]
        place += 1 while place < spans.size && spans[place].to <= soon
        @place[person] = place
        place < spans.size && spans[place].from <= soon
      end

      # When something can change next: a segment ends, a car or its parts come, somebody comes to work.
      def next_instant(now)
        soon = now + SAME
        soonest = @until.min
        @next_there += 1 while @instants[@next_there] <= soon
        soonest = @instants[@next_there] if @instants[@next_there] < soonest
        person = 0
        people = @busy.size
        while person < people
          if @busy[person] == NOBODY
            starts = @starts[person]
            place = @next_start[person]
            place += 1 while starts[place] <= soon
            @next_start[person] = place
            soonest = starts[place] if starts[place] < soonest
          end
          person += 1
        end
        soonest
      end
    end
  end
end
