# frozen_string_literal: true

module NimbleLedger
  module Card
    # What still keeps a card from being finished (model.md section 15): pieces that are not done, bolts, clips and
    # hoses that are not ticked, fights that are not over. Said why, a piece may stay open ("left off at the owner's
    # wish").
    class Open
      # @param standing [Standing]
      def initialize(standing)
        @state = standing.state
        @rows = Sheet.new(standing.job).to_h["pieces"]
        freeze
      end

      # @return [Array<Hash>] piece, and item where one tick is missing
      def list
        pieces = @rows.reject { |row| settled?(row) }.flat_map { |row| of(row) }
        pieces + @state["fights"].reject { |fight| fight["over_at"] }.map { |fight| { "fight" => fight["id"] } }
      end

      private

      def settled?(row) = @state["left"].key?(row["id"])

      def of(row)
        return [{ "piece" => row["id"], "label" => row["label"] }] unless @state["done"].key?(row["id"])

        ticked = @state["ticks"].fetch(row["id"], [])
        (row["ticks"] || [])
          .reject { |tick| ticked.include?(tick["item"]) }
          .map { |tick| { "piece" => row["id"], "label" => row["label"], "item" => tick["item"] } }
      end
    end
  end
end
