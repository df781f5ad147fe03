# frozen_string_literal: true

module NimbleLedger
  module Day
    # A board with one more job, tried at place after place of the lists (Offers): until that job's car is there every
    # scenario goes alike wherever it stands, and is played once.
    #
    #   tried = CommonBeginning.new(board, 120)
    #   tried.lists = lists
    #   tried.run  #=> SimulationResult, as Simulation.new(board, lists: lists).run has it
    class CommonBeginning < Simulation
      # Everybody's jobs in another order, on the same board.
      # @return [Array<Array<Integer>>]
      attr_writer :lists

      # @param board [Board] with the job, which nobody has begun
      # @param instant [Numeric] minutes after now at which its car is there
      def initialize(board, instant, effort: nil)
        super(board, effort: effort)
        @beginnings = Array.new(Board::SCENARIOS) { |k| beginning(scale_of(k), instant) }
      end

      # Jobs that are over in all scenarios by then.
      # @return [Array<Integer>] places among jobs
      def jobs_over
        ends = @beginnings.map { |state| state[ENDS] }
        @jobs.each_index.select { |job| ends.all? { |one| one[job] != NEVER } }
      end

      private

      ENDS = 4 # among the parts of a beginning
      private_constant :ENDS

      def played(scenario)
        now, @next_there, @left, @scale, *rest = @beginnings[scenario]
        @ends, @at, @until, @bay, @hands, @busy, @place, @next_start, @taken, @unbegun = rest.map(&:dup)
        go_on(now)
      end

      # Instants before one of them, and the state that is come to.
      def beginning(scale, instant)
        begin_scenario(scale)
        now = 0.0
        while now < instant - SAME
          turn(now)
          now = next_instant(now)
        end
        [
          now,
          @next_there,
          @left,
          @scale,
          @ends,
          @at,
          @until,
          @bay,
          @hands,
          @busy,
          @place,
          @next_start,
          @taken,
          @unbegun
        ]
      end
    end
  end
end
