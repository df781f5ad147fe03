# frozen_string_literal: true

module NimbleLedger
  module Day
    # What stands on a shop's board: hours, people, bays and jobs, in minutes after now (model.md section 11).
    class Board
      SCENARIOS = 251

      # Somebody who works: id, spans at work.
      Person = Struct.new(:id, :spans)

      # A bay: id, equipment.
      Bay = Struct.new(:id, :equipment)

      # A piece of a job drawn together. kind: :work, :wait, :opening (a wait until then).
      Segment = Struct.new(:kind, :minutes, :people, :holds_bay) { def work? = kind == :work }

      # A job. arrives, parts_at, promise: minutes after now; bay: index, nil while it is not under way; person, with:
      # indexes; totals: minutes of all its work in each scenario; first_work, last_work: places among its segments.
      Job =
        Struct.new(
          :id,
          :person,
          :arrives,
          :parts_at,
          :equipment,
          :promise,
          :bay,
          :in_hand,
          :with,
          :segments,
          :totals,
          :first_work,
          :last_work,
          :work_minutes,
          keyword_init: true
        ) do
          # @return [Float] the instant from which car and parts are both there
          def there = [arrives, parts_at || arrives].max
        end

      attr_reader :clock, :opening, :people, :bays, :jobs, :share, :last_start

      # @param clock [WallClock]
      # @param opening [OpeningHours]
      # @param people [Array<Person>]
      # @param bays [Array<Bay>]
      # @param jobs [Array<Job>]
      # @param share [Float] chance with which a car is promised
      # @param last_start [Integer] minutes before the end of one's hours in which no new job is begun
      def initialize(clock:, opening:, people:, bays:, jobs:, share:, last_start:)
        @clock = clock
        @opening = opening
        @people = people
        @bays = bays
        @jobs = jobs
        @share = share
        @last_start = last_start
        freeze
      end

      # Everybody's jobs in the order they do them.
      # @return [Array<Array<Integer>>] places among jobs, by person
      def lists = people.each_index.map { |person| jobs.each_index.select { |i| jobs[i].person == person } }

      # Bays that have all a job needs, the one with the least equipment first, then as listed.
      # @return [Array<Integer>] places among bays
      def bays_for(job)
        fitting = bays.each_index.select { |i| (job.equipment - bays[i].equipment).empty? }
        fitting.sort_by { |i| [bays[i].equipment.size, i] }
      end

      # The same board with one more job.
      def with(job) =
        Board.new(
          clock: clock,
          opening: opening,
          people: people,
          bays: bays,
          jobs: jobs + [job],
          share: share,
          last_start: last_start
        )

      # The place in somebody's list before which nothing can be put: after what is in hand.
      def first_place(list) = list.any? && jobs[list.first].in_hand ? 1 : 0

      # The minutes a job takes in each scenario: drawn up, not drawn.
      # @param number [Integer] of the job
      # @param time [Array<Hash>] "chance", "mean_minutes", "variance" (Duration)
      # @return [Array<Float>] by scenario
      def self.totals(number, time)
        a = 184.pow(number % 250, SCENARIOS)
        b = 101 * number % SCENARIOS
        known = Duration.table(time, SCENARIOS)
        Array.new(SCENARIOS) { |k| known[((k * a) + b) % SCENARIOS] }
      end
    end
  end
end
