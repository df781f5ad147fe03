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

      # What a place has to reach to matter beside the best of those before it: one that is ready later than that and
      # what lies near it, or keeps what is wanted less often, is not chosen whatever it spares.
      class Bar
        def initialize(share, near, wanted)
          @needed = ((share * Board::SCENARIOS) - 1e-9).ceil
          @near = near
          @wanted = wanted
          @latest = nil # end that still matters, minutes after now
          @most = nil # scenarios that keep what is wanted
        end

        # @param tried [Tried]
        def raise_to(tried)
          if @wanted
            @most = [@most, tried.chance].compact.max
          elsif tried.ready
            @latest = [@latest, tried.ready + @near].compact.min
          end
        end

        # Whether the job ends too late in a scenario.
        def missed?(end_at) = end_at > (@wanted || @latest || Float::INFINITY) + Simulation::SAME

        # Whether so many scenarios too late decide it.
        def lost?(late) = @wanted ? !@most.nil? && Board::SCENARIOS - late < @most : Board::SCENARIOS - late < @needed
      end
      private_constant :Bar

      # @param board [Board]
      # @param base [SimulationResult] without the job
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
        @worst_first = (0...Board::SCENARIOS).sort_by { |k| -(board.jobs + [job]).sum { |one| one.totals[k] } }
      end

      # @param drop_off [Integer] minutes after now
      # @return [Tried, nil] nil: no offer
      def at(drop_off)
        @bar = Bar.new(@board.share, @near, @wanted)
        @asked = @board.jobs.size
        @simulation = CommonBeginning.new(with_asked(drop_off), drop_off, effort: @effort)
        tried = places(@simulation.jobs_over).filter_map { |person, place| try(person, place) }
        tried = tried.select { |one| @wanted ? one.chance.positive? : one.ready }
        best(tried)
      end

      # Places of everybody's list that differ: beside a job that is over by then, before it and after it are one, and
      # the later place is named.
      # @param over [Array<Integer>] jobs
      # @return [Array<Array(Integer, Integer)>] person, place
      def places(over = [])
        @board.lists.each_with_index.flat_map do |list, person|
          kept = (@board.first_place(list)..list.size).reject { |place| over.include?(list[place]) }
          kept.map { |place| [person, place] }
        end
      end

      private

      # Whose list it stands in says who does it; a job that nobody has begun is bound to nobody.
      def with_asked(drop_off) =
        @board.with(
          @job.dup.tap do |job|
            job.arrives = drop_off
            job.person = 0
          end
        )

      # @return [Tried, nil] nil where a promise would be broken, or another place is better for certain
      def try(person, place)
        lists = @board.lists
        lists[person].insert(place, @asked)
        result = played(lists) or return nil
        harm = harm(result) or return nil
        end_at = result.quantile(@asked, @board.share)
        Tried
          .new(
            person: person,
            place: place,
            ready: end_at.finite? ? @board.opening.ready(@board.clock.quarter(end_at)) : nil,
            chance: @wanted && result.by(@asked, @wanted),
            harm: harm,
            lost: harm.sum(&:lost)
          )
          .tap { |one| @bar.raise_to(one) }
      end

      # @return [SimulationResult, nil] nil as soon as a promise is broken, or another place is better for certain
      def played(lists)
        @simulation.lists = lists
        broken = @promised.to_h { |job| [job, 0] }
        late = 0
        @simulation.run(@worst_first) do |ends|
          late += 1 if @bar.missed?(ends[@asked])
          next true if @bar.lost?(late)

          @promised.any? do |job|
            broken[job] += 1 if ends[job] > @board.jobs[job].promise + Simulation::SAME
            Board::SCENARIOS - broken[job] < [@before[job], @least].min
          end
        end
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
