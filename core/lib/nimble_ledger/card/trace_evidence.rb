# frozen_string_literal: true

module NimbleLedger
  module Card
    # What a card tells a trace without being typed again (model.md sections 9 and 15): codes and lamp as last read,
    # plugs as they were looked at, layers that are off now.
    class TraceEvidence
      # How a plug looks on the card (domain.md, "Reading a plug"), as the test that reads it has it. A plug both wet
      # and sooty is wet (model.md section 9): of several conditions the first that stands here tells.
      LOOKS = {
        "wet-fuel" => "wet",
        "wet-oil" => "oily",
        "cracked" => "cracked",
        "tracked" => "cracked",
        "worn" => "worn",
        "sooty" => "sooty",
        "normal" => "normal",
        "stained" => "normal"
      }.freeze

      # @param sheet [Hash] what the card shows, see Sheet
      # @param state [Hash] its fold, see Fold
      def initialize(sheet, state)
        @sheet = sheet
        @state = state
      end

      # @return [Array<Hash>, nil] {"code", "status"}; nil where nobody has read them
      def codes = read && read["codes"]

      # @return [String, nil]
      def lamp = read && read["lamp"]

      # @return [Array<Hash>] tests as a trace request has them
      def evidence
        @sheet["plugs"].filter_map do |plug|
          conditions = @state["plugs"].dig(plug["key"], "read", "conditions") || []
          seen = LOOKS.keys.find { |condition| conditions.include?(condition) } or next
          { "test" => "read-plug", "cylinder" => plug["cylinder"], "outcome" => LOOKS.fetch(seen) }
        end
      end

      # @return [Array<String>] ids of steps that are off
      def open
        off = @sheet["pieces"].select { |piece| piece["id"].match?(/\Astep:.*:remove\z/) && done?(piece["id"]) }
        off.map { |piece| piece["ref"] }.reject { |id| done?(Time::PieceId.step(id, "refit").to_s) }
      end

      private

      def read = @state["codes"].last
      def done?(piece) = @state["done"].key?(piece)
    end
  end
end
