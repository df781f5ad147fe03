# frozen_string_literal: true

module NimbleLedger
  module Day
    # How a board most likely goes, for drawing: every job takes the middle of its time (model.md section 11). Promises
    # and chances rest on all scenarios, never on this one.
    #
    #   Course.new(board).stretches[0]  #=> [#<Stretch segment=0 kind=:work from=0.0 to=41.5 person=1 bay=0>, …]
    class Course < Simulation
      # A part of a segment without interruption: from, to in minutes after now; places of person and bay, nil without.
      Stretch = Struct.new(:segment, :kind, :from, :to, :person, :bay)

      # @return [Array<Array<Stretch>>] by job, in order
      def stretches
        @stretches = Array.new(@jobs.size) { [] }
        middle = Board::SCENARIOS / 2
        play(@jobs.map { |job| job.totals.sort[middle] / job.work_minutes })
        @stretches
      end

      private

      def take_in_hand(job, person, second, now)
        super
        hands = second ? shared_spans([person, second]) : @spans[person]
        hands.each do |span|
          from = [span.from, now].max
          to = [span.to, @until[job]].min
          add(job, from, to, person) if to - from > SAME
        end
      end

      def begin_wait(job, now)
        super
        add(job, now, @until[job], nil) if @until[job].finite?
        true
      end

      def add(job, from, to, person)
        at = @at[job]
        @stretches[job] << Stretch.new(at, @segments[job][at].kind, from, to, person, @bay[job])
      end
    end
  end
end
