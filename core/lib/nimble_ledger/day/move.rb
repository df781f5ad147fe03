# frozen_string_literal: true

module NimbleLedger
  module Day
    # The one job that, taken out of its list and put elsewhere, raises the sum of all chances most
    # (model.md section 11, "Move").
    class Move
      LEAST = 0.05 # of one chance

      # job, person: places on the board; place: within the list the job was taken out of; raises: scenarios.
      Found = Struct.new(:job, :person, :place, :raises)

      # @param board [Board]
      # @param base [SimulationResult]
      def initialize(board, base, effort: nil)
        @board = board
        @effort = effort
        @promised = board.jobs.each_index.select { |i| board.jobs[i].promise }
        @before = sum(base)
      end

      # @return [Found, nil]
      def best
        found = nil
        ways do |job, person, place, lists|
          raises = sum(Simulation.new(@board, lists: lists, effort: @effort).run) - @before
          found = Found.new(job, person, place, raises) if raises > (found ? found.raises : 0)
        end
        found && found.raises >= (LEAST * Board::SCENARIOS) - 1e-9 ? found : nil
      end

      private

      def sum(result) = @promised.sum { |job| result.by(job, @board.jobs[job].promise) }

      # By job, then person, then place.
      def ways
        @board.jobs.each_with_index do |one, job|
          next if one.in_hand

          lists = @board.lists
          was = lists[one.person].index(job)
          lists[one.person].delete_at(was)
          lists.each_with_index do |list, person|
            (@board.first_place(list)..list.size).each do |place|
              next if person == one.person && place == was

              moved = lists.map(&:dup)
              moved[person].insert(place, job)
              yield job, person, place, moved
            end
          end
        end
      end
    end
  end
end
