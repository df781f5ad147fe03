# frozen_string_literal: true

module NimbleLedger
  module Card
    # What still keeps a card from being finished (model.md section 15): pieces that are not done, bolts, clips and
    # hoses that are not ticked, fights that are not over. Said why, a piece may stay open ("left off at the owner's
    # wish"); what a must names (ports uncovered, a cap that is on) may not.
    class OpenItems
      # @param standing [Standing]
      def initialize(standing)
        @state = standing.state
        @rows = Sheet.new(standing.job).to_h["pieces"]
        freeze
      end

      # @return [Array<Hash>] piece, and item where one tick is missing
      def list
        @rows.flat_map { |row| settled?(row) ? musts(row) : of(row) } +
          @state["fights"].reject { |fight| fight["over_at"] }.map { |fight| { "fight" => fight["id"] } }
      end

      private

      def settled?(row) = @state["left"].key?(row["id"])

      def of(row)
        return [{ "piece" => row["id"], "label" => row["label"] }] unless @state["done"].key?(row["id"])

        missing(row).map { |tick| open_tick(row, tick) }
      end

      # Left off, a piece that was never opened has nothing to close.
      def musts(row)
        return [] unless opened?(row)

        missing(row).select { |tick| tick["must"] }.map { |tick| open_tick(row, tick) }
      end

      # Whether its step came off.
      def opened?(row) = @state["done"].key?(Time::PieceId.step(row["ref"], "remove").to_s)

      def missing(row)
        ticked = @state["ticks"].fetch(row["id"], [])
        (row["ticks"] || []).reject { |tick| ticked.include?(tick["item"]) }
      end

      def open_tick(row, tick) = { "piece" => row["id"], "label" => row["label"], "item" => tick["item"] }
    end
  end
end
