# frozen_string_literal: true

module NimbleLedger
  module Card
    # Where a job stands, from the marks on its card (model.md section 15): a fold over the set of them, ordered by
    # device time and id. They may arrive late, twice and in any order; the state is the same. The device folds by the
    # same rules while it is away (web/src/bay/fold.ts); formats/card-cases.json holds the two together.
    #
    #   Fold.new([start, off]).state["done"]  #=> {"step:cover:remove" => "2026-11-26T08:04:00.000Z"}
    class Fold
      EMPTY = {
        "started_at" => nil,
        "finished_at" => nil,
        "paused" => nil,
        "done" => {
        },
        "waiting" => {
        },
        "plugs" => {
        },
        "ticks" => {
        },
        "left" => {
        },
        "fights" => [],
        "found" => [],
        "notes" => [],
        "codes" => [],
        "corrected" => {
        },
        "undone" => []
      }.freeze

      # "plug-3", and "plug-3/2" for the second of two.
      def self.plug_key(target, nth) = nth.nil? || nth == 1 ? target : "#{target}/#{nth}"

      # @return [Array<Event>] in order, those undone left out
      attr_reader :events

      # @return [Hash] plain values, as the contract shows them
      attr_reader :state

      # @param events [Array<Event>] any order, any repeats
      def initialize(events)
        ordered = events.uniq(&:id).sort
        undone = undone(ordered)
        @events = ordered.reject { |event| undone.include?(event.id) || event.kind == "undo" }.freeze
        @state = EMPTY.transform_values(&:dup)
        @state["undone"] = undone.sort
        @events.each { |event| take(event) }
        @state.freeze
        freeze
      end

      private

      # An undo counts where it is made after what it undoes, and is not undone itself.
      def undone(ordered)
        place = ordered.each_with_index.to_h { |event, i| [event.id, i] }
        found = []
        ordered.each_with_index.reverse_each do |event, i|
          next if event.kind != "undo" || found.include?(event.id)

          of = place[event["of"]]
          found << event["of"] if of && of < i
        end
        found.uniq
      end

      def take(event)
        case event.kind
        when "start", "finished", "pause", "resume"
          clock(event)
        when "well", "out", "read", "dry", "new", "in"
          plug(event)
        when "off", "on", "check", "seated"
          event.pieces.each { |piece| done(piece, event) }
        else
          other(event)
        end
      end

      def clock(event)
        case event.kind
        when "start"
          @state["started_at"] ||= event["at"]
        when "finished"
          @state["finished_at"] = event["at"]
        when "pause"
          @state["paused"] = { "since" => event["at"], "why" => event["why"] }
        else
          @state["paused"] = nil
        end
      end

      def done(piece, event)
        @state["done"][piece] = event["at"]
        @state["waiting"].delete(piece)
      end

      def plug(event)
        key = Fold.plug_key(event["plug"], event["nth"])
        known = @state["plugs"][key] ||= {}
        case event.kind
        when "well", "dry"
          known[event.kind] = true
        when "out"
          known["out"] = event.values.slice("outcome", "sign")
        when "read"
          known["read"] = event.values.slice("conditions", "gap_mm")
        when "new"
          known["new"] = event.values.slice("gap_mm")
        else
          known["in"] = event.values.slice("how", "by_hand")
          event.pieces.each { |piece| done(piece, event) }
        end
      end

      def other(event)
        case event.kind
        when "waiting"
          event.pieces.each { |piece| @state["waiting"][piece] = event["at"] unless @state["done"].key?(piece) }
        when "tick"
          list = @state["ticks"][event["piece"]] ||= []
          list << event["item"] unless list.include?(event["item"])
        when "left"
          @state["left"][event["piece"]] = event["why"]
        when "correct"
          @state["corrected"][event["piece"]] = event.values.slice("minutes", "why")
        else
          listed(event)
        end
      end

      def listed(event)
        case event.kind
        when "fight"
          @state["fights"] << event
            .values
            .slice("id", "at", "what", "piece", "plug", "nth", "words")
            .merge("over_at" => nil)
        when "over"
          @state["fights"].find { |fight| fight["id"] == event["of"] }&.store("over_at", event["at"])
        when "found"
          @state["found"] << event.values.slice("id", "at", "finding", "cylinder", "words", "picture", "tell")
        when "note"
          @state["notes"] << event.values.slice("id", "at", "words")
        when "codes"
          @state["codes"] << event.values.slice("id", "at", "codes", "lamp", "again")
        end
      end
    end
  end
end
