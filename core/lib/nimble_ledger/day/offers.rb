# frozen_string_literal: true

module NimbleLedger
  module Day
    # Where a job that is asked about would fit: at every drop-off, with everybody, at every place of their list; what
    # keeps the promises that were made, does least harm and is soonest ready (model.md section 11, "Offer").
    class Offers
      # One place tried. ready: minutes after now, nil without an end at the share; chance: scenarios that keep what is
      # wanted; harm: to promises that were made; lost: scenarios, their sum.
      Tried = Struct.new(:person, :place, :ready, :chance, :harm, :lost, keyword_init: true)

      # A promise that is kept in fewer scenarios than before.
      Harm = Struct.new(:job, :before, :after) { def lost = before - after }

      # @param board [Board]
      # @param base [Simulation::Result] without the job
      # @param job [Board::Job] without person and arrival
      # @param near [Numeric] minutes within which a later one may do less harm
      # @param wanted [Integer, nil] the instant it is wanted by
      def initialize(board, base, job, near:, wanted: nil, effort: nil)
        @board = board
        @job = job
        @near = near
        @effort = effort
        @wanted = wanted
        @promised = board.jobs.each_index.select { |i| board.jobs[i].promise }
        @before = @promised.to_h { |i| [i, base.by(i, board.jobs[i].promise)] }
        @least = (board.share * Board::SCENARIOS) - 1e-9
      end

      # @param drop_off [Integer] minutes after now
      # @return [Tried, nil] nil: no offer
      def at(drop_off)
        tried = places.filter_map { |person, place| try(drop_off, person, place) }
        tried = tried.select { |one| @wanted ? one.chance.positive? : one.ready }
        best(tried)
      end

      # Every place of everybody's list.
      # @return [Array<Array(Integer, Integer)>] person, place
      def places =
        @board.lists.each_with_index.flat_map do |list, person|
          (@board.first_place(list)..list.size).map { |place| [person, place] }
        end

      private

      # @return [Tried, nil] nil where a promise would be broken
      def try(drop_off, person, place)
        asked = @board.jobs.size
        board = @board.with(@job.dup.tap { |job| job.arrives = drop_off }.tap { |job| job.person = person })
        lists = @board.lists
        lists[person].insert(place, asked)
        result = Simulation.new(board, lists: lists, effort: @effort).run
        harm = harm(result) or return nil
        end_at = result.quantile(asked, @board.share)
        Tried.new(
          person: person,
          place: place,
          ready: end_at.finite? ? @board.opening.ready(@board.clock.quarter(end_at)) : nil,
          chance: @wanted && result.by(asked, @wanted),
          harm: harm,
          lost: harm.sum(&:lost)
        )
      end

      def harm(result)
        @promised.each_with_object([]) do |job, lost|
          after = result.by(job, @board.jobs[job].promise)
          return nil if after < [@before[job], @least].min

          lost << Harm.new(job, @before[job], after) if after < @before[job]
        end
      end

      def best(tried)
        return nil if tried.empty?

        near =
          if @wanted
            most = tried.map(&:chance).max
            tried.select { |one| one.chance == most }
          else
            soonest = tried.map(&:ready).min
            tried.select { |one| one.ready <= soonest + @near }
          end
        near.min_by { |one| [one.lost, one.ready || Float::INFINITY, one.person, -one.place] }
      end
    end
  end
end
