# frozen_string_literal: true

module NimbleLedger
  module Card
    # Hands-on minutes of each piece, from the marks (model.md section 15): the time between the mark before and its
    # own, pauses, waiting, nights and fights taken out. Pieces marked at one go share the time up to their marks by
    # their estimates. A correction with its reason takes the place of what was measured.
    class HandsOn
      # Marks closer together than this were made at one go: nobody does a piece in that time.
      AT_ONE_GO = 20

      # The piece that stands for adhesive in what is left of a plug.
      CURE = "cure"

      # What the card knows of a piece: its estimate in minutes, and whether it is waiting.
      Piece = Struct.new(:id, :minutes, :waiting)
      # Marks made at one go, with the time from the mark before up to the last of them.
      Stretch = Struct.new(:from, :to, :pieces)
      private_constant :Stretch

      # @param events [Array<Event>] in order, none of them undone: Fold#events
      # @param pieces [Array<Piece>]
      # @param nights [Nights]
      def initialize(events, pieces, nights:)
        @events = events
        @pieces = pieces.to_h { |piece| [piece.id, piece] }
        @nights = nights
        freeze
      end

      # @return [Hash{String=>Float}] measured or corrected minutes, by piece
      def minutes
        measured = stretches.each_with_object(Hash.new(0.0)) { |stretch, sums| share(stretch, sums) }
        @events.each { |event| measured[event["piece"]] = event["minutes"].to_f if event.kind == "correct" }
        measured
      end

      # @return [Float] minutes of what fought back; while adhesive cures nobody works
      def trouble = fights.sum(0.0) { |span| seconds(span, without: pauses + cures) } / 60

      # @return [Float] all hands-on minutes, trouble included
      def total = minutes.values.sum + trouble

      private

      def share(stretch, sums)
        hands = stretch.pieces.reject { |id| id == CURE || @pieces[id]&.waiting }.uniq
        return if hands.empty?

        spent = seconds(stretch.from..stretch.to, without: pauses + fights) / 60
        weights = hands.map { |id| @pieces[id]&.minutes.to_f }
        weights = hands.map { 1.0 } if weights.sum.zero?
        hands.zip(weights) { |id, weight| sums[id] += spent * weight / weights.sum }
      end

      # @return [Array<Stretch>]
      def stretches
        marks = @events.select { |event| event.kind == "start" || event.done? }
        return [] if marks.empty?

        before = marks.first.at
        marks
          .slice_when { |one, other| other.at - one.at >= AT_ONE_GO || one.kind == "start" }
          .filter_map do |group|
            stretch = Stretch.new(before, group.last.at, group.flat_map(&:pieces))
            before = group.last.at
            stretch if stretch.pieces.any?
          end
      end

      # From each pause to what resumes the work.
      def pauses
        open = nil
        spans = []
        @events.each do |event|
          open ||= event.at if event.kind == "pause"
          next unless open && %w[resume finished].include?(event.kind)

          spans << (open..event.at)
          open = nil
        end
        open ? spans << (open..[open, @events.last.at].max) : spans
      end

      # From each beginning of a cure to its end.
      def cures
        begun = nil
        @events.each_with_object([]) do |event, spans|
          next unless event.pieces.include?(CURE)

          begun ||= event.at if event.kind == "waiting"
          next unless begun && event.done?

          spans << (begun..event.at)
          begun = nil
        end
      end

      def fights
        begun = @events.select { |event| event.kind == "fight" }.to_h { |event| [event.id, event.at] }
        over = @events.select { |event| event.kind == "over" && begun.key?(event["of"]) }.uniq { |event| event["of"] }
        over.map { |event| begun.fetch(event["of"])..event.at }.reject { |span| span.end < span.begin }
      end

      # Seconds of a span that lie in none of the others, nor in a night.
      def seconds(span, without:)
        cut = (without + @nights.between(span.begin, span.end)).map { |other| clip(other, span) }.compact
        covered = 0.0
        reached = span.begin
        cut
          .sort_by(&:begin)
          .each do |other|
            from = [other.begin, reached].max
            next if other.end <= from

            covered += other.end - from
            reached = other.end
          end
        [(span.end - span.begin) - covered, 0.0].max
      end

      def clip(other, span)
        from = [other.begin, span.begin].max
        to = [other.end, span.end].min
        from < to ? from..to : nil
      end
    end
  end
end
