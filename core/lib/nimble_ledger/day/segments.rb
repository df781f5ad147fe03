# frozen_string_literal: true

module NimbleLedger
  module Day
    # A job's sequence drawn together as a board takes it (model.md section 11): neighboring pieces that need the same
    # number of people are one work, waits stand between them, cooling comes first.
    #
    #   Segments.of(job.plan.sequence.pieces, overnight: job.plan.overnight?)
    #   #=> [{"kind" => "work", "minutes" => 41.5, "people" => 1}, {"kind" => "wait", "minutes" => 15, …}, …]
    module Segments
      # A board takes no more of one job.
      MOST = 12
      SOAK = "wait:soak"

      module_function

      # @param pieces [Array<Time::Sequence::Piece>] in order
      # @param overnight [Boolean] whether the soak goes on at the next opening
      # @param cooling [Numeric] minutes before anything else
      # @return [Array<Hash>] "kind", "minutes" or "until", "people", "holds_bay" (formats.md); [] where no work is left
      def of(pieces, overnight:, cooling: 0)
        rows = pieces.filter_map { |piece| segment(piece, overnight) }
        rows = joined(rows)
        return [] if rows.none? { |row| row["kind"] == "work" }

        rows.unshift({ "kind" => "wait", "minutes" => cooling, "holds_bay" => false }) if cooling.positive?
        rows.size > MOST ? shortened(rows) : rows
      end

      def segment(piece, overnight)
        return { "kind" => "wait", "until" => "opening", "holds_bay" => true } if overnight && piece.id == SOAK
        return nil unless piece.clock_minutes.positive?
        return { "kind" => "work", "minutes" => piece.clock_minutes, "people" => piece.people } unless piece.waiting?

        { "kind" => "wait", "minutes" => piece.clock_minutes, "holds_bay" => piece.holds_bay }
      end

      def joined(rows)
        rows.each_with_object([]) do |row, kept|
          last = kept.last
          if last && last["kind"] == "work" && row["kind"] == "work" && last["people"] == row["people"]
            last["minutes"] += row["minutes"]
          else
            kept << row.dup
          end
        end
      end

      # One person through the whole of it, then the shortest waits within the work they part, until it fits.
      def shortened(rows)
        rows = joined(rows.map { |row| row["kind"] == "work" ? row.merge("people" => 1) : row })
        while rows.size > MOST
          waits = rows.each_index.select { |i| i.positive? && rows[i]["minutes"] && rows[i]["kind"] == "wait" }
          at = waits.min_by { |i| rows[i]["minutes"] } or break
          rows[at] = { "kind" => "work", "minutes" => rows[at]["minutes"], "people" => 1 }
          rows = joined(rows)
        end
        rows
      end
      private_class_method :segment, :joined, :shortened
    end
  end
end
