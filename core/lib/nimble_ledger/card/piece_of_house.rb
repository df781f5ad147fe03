# frozen_string_literal: true

module NimbleLedger
  module Card
    # What is done at a piece of no step and no target: house tasks, the wells cleaned first, a cap once more, the soak
    # and its wait (model.md section 15).
    class PieceOfHouse
      # @param piece [Time::Sequence::Piece]
      # @param job [Job]
      def initialize(piece, job)
        @piece = piece
        @job = job
        freeze
      end

      # @return [Hash] does, and ticks, label, overnight where it has them
      def to_h
        case @piece.kind
        when "house", "clean"
          house
        when "again"
          again
        when "soak"
          soak
        when "wait"
          wait
        else
          {}
        end
      end

      private

      def house
        label, does = words
        return {} unless label

        ticks = Words::TICKS.fetch(@piece.ref, []).map { |item, said| tick(item, said) }
        { "label" => label, "does" => does, "ticks" => by_hand + cracked + ticks }
      end

      # Some are said by the house's schools.
      def words
        return Words::WARM_CHECK if @piece.ref == "cold_check" && @job.plan.cracked_warm?

        label, does = Words::HOUSE[@piece.ref]
        @piece.ref == "clean" ? [label, [Words::CLEAN.fetch(@job.car.house["wells"]).first]] : [label, does]
      end

      def cracked
        return [] unless @piece.ref == "crack-warm"

        [tick("crack", format(Words::SOAK_TICKS.fetch("crack"), numbers: Quote::Words.cylinders(wells)))]
      end

      # Other work that was agreed is done before the engine is started.
      def by_hand
        return [] unless @piece.ref == "leak_check"

        @job.lines.each_with_index.map { |line, i| tick("by-hand-#{i + 1}", format(Words::BY_HAND, label: line.label)) }
      end

      def again
        { "does" => [Words::AGAIN], "ticks" => [tick("on", Words::CAP_ON, must: true)] }
      end

      def soak
        acts = @job.plan.sequence.acts["soak"] || []
        {
          "label" => "Soak #{Quote::Words.cylinders(wells)}",
          "does" => Words::SOAK.fetch(@job.soak, []).map { |line| format(line, wait: minutes) } + [Words::SOAK_CARE],
          "ticks" =>
            acts.map { |act| tick(act, format(Words::SOAK_TICKS.fetch(act), numbers: Quote::Words.cylinders(wells))) }
        }
      end

      def wait
        return { "label" => Words::WAIT_COOL.first, "does" => [Words::WAIT_COOL.last] } if @piece.id == "wait:cool"
        return {} unless @piece.id == "wait:soak"

        label, does = @job.plan.overnight? ? Words::WAIT_OVERNIGHT : Words::WAIT_SOAK
        { "label" => label, "does" => [does], "overnight" => @job.plan.overnight? }
      end

      def wells = @job.targets.select(&:plug?).flat_map(&:cylinders).uniq.sort

      def minutes = @job.car.house["soaks"].dig(@job.soak, "wait")&.round

      def tick(item, label, must: false)
        row = { "item" => item, "label" => label, "count" => 1 }
        must ? row.merge("must" => true) : row
      end
    end
  end
end
