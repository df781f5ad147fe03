# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # What one device hands in at once, judged mark by mark against the card as it stands by those before, and stored
      # in one statement. Runs alone on its job, inside the caller's transaction.
      class MarkIntake
        # @return [Array<String>] ids that are kept now, new or not
        attr_reader :taken
        # @return [Array<Hash>] id, code, message
        attr_reader :refused

        # @param card [Cards::Card]
        # @param known [Array<NimbleLedger::Card::Event>] marks of the job so far
        def initialize(shop, card, known)
          @shop = shop
          @card = card
          @marks = known.to_h { |event| [event.id, event] }
          @standings = Standings.new(shop)
          @fresh = []
          @taken = []
          @refused = []
        end

        # @param mark [Hash] as the device wrote it
        # @param path [String] where it stands
        def take(mark, path:)
          event = NimbleLedger::Card::Event.parse(mark, path: path)
          refuse_closed
          refuse_time(event, path)
          refuse_open(event) if event.kind == "finished"
          add(event)
          @taken << event.id
        rescue NimbleLedger::InvalidInput, Refusal => e
          @refused << { "id" => mark["id"].to_s[0, 40], "code" => e.code, "message" => e.message }
        end

        # Keeps what is new, and what the list of jobs shows by it.
        def store(device)
          @shop.db[:job_marks].multi_insert(@fresh.map { |event| row(event, device) })
          @shop[:jobs].where(id: @card.job[:id]).update(shown)
        end

        # @return [Array<NimbleLedger::Card::Event>] that there are now, undone ones among them
        def marks = @marks.values

        # @return [Boolean] whether the card is finished by what was taken
        def finishes? = @fresh.any? { |event| event.kind == "finished" } && !fold.state["finished_at"].nil?

        # @return [NimbleLedger::Card::Fold] by the marks there are now
        def fold = @fold ||= NimbleLedger::Card::Fold.new(marks)

        private

        def add(event)
          known = @marks[event.id]
          return if known && known.to_h == event.to_h
          raise Refusal.new(409, "mark_differs", "Another mark has the id #{event.id}.") if known

          if @marks.size >= NimbleLedger::Card::Event::MOST
            raise Refusal.new(422, "too_many_marks", "This card holds all the marks it can.")
          end

          @marks[event.id] = event
          @fresh << event
          @fold = nil
        end

        def row(event, device)
          {
            shop_id: @shop.id,
            job_id: @card.job[:id],
            id: event.id,
            device: device,
            at: event.at,
            mark: Sequel.pg_jsonb(event.to_h),
            created_by: @shop.actor.account_id,
            created_at: @shop.now
          }
        end

        def refuse_closed
          return unless @card.job[:handed_over_at]

          raise Refusal.new(409, "handed_over", "This job was handed over; its card is closed.")
        end

        EARLY = 7 * 86_400 # seconds before its job was opened that a mark may be from
        AHEAD = 86_400 # seconds a device's clock may be ahead of the server's

        # A device's clock may be wrong, but not by years.
        def refuse_time(event, path)
          at = event.at
          return if at.between?(@card.job[:created_at] - EARLY, @shop.now + AHEAD)

          raise Refusal.new(
                  422,
                  "mark_time",
                  "The device's clock is wrong: it says #{at.getutc.iso8601}. Set it, then make the mark again.",
                  details: [{ "path" => "#{path}/at", "message" => "is far from the server's clock" }]
                )
        end

        # A card is not finished with something open, unless it is said why.
        def refuse_open(event)
          return if fold.state["finished_at"] == event["at"]

          open = NimbleLedger::Card::OpenItems.new(@standings.standing(@card, fold)).list
          return if open.empty?

          named = open.first(3).filter_map { |row| row["label"] }.uniq.join(", ")
          raise Refusal.new(
                  422,
                  "card_open",
                  "#{open.size} #{open.one? ? "thing is" : "things are"} open: #{named}. Tick them, or say why not.",
                  details: open.first(10).map { |row| { "path" => row["piece"].to_s, "message" => row["item"].to_s } }
                )
        end

        # @return [Hash] columns of the job
        def shown
          state = fold.state
          values = {
            started_at: state["started_at"] && ::Time.iso8601(state["started_at"]),
            finished_at: state["finished_at"] && ::Time.iso8601(state["finished_at"]),
            updated_at: @shop.now
          }
          values[:actuals] = Sequel.pg_jsonb(@standings.actuals(@card, fold)) if state["finished_at"]
          values
        end
      end
    end
  end
end
