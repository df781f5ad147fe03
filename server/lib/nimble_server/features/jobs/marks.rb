# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # Marks made on a card, handed in by devices in any order and as often as they like: each is kept once, as it was
      # made. What they come to is the core's fold over all of them.
      class Marks
        # What became of what a device handed in. taken: ids that are kept now, new or not; refused: why not.
        Handed = Struct.new(:taken, :refused)

        def initialize(shop)
          @shop = shop
        end

        # @param job [Hash] row
        # @return [Array<NimbleLedger::Card::Event>]
        def of(job) =
          @shop[:job_marks]
            .where(job_id: job[:id])
            .select_map(:mark)
            .map { |mark| NimbleLedger::Card::Event.new(mark.to_h) }

        # @return [NimbleLedger::Card::Fold]
        def fold(job) = NimbleLedger::Card::Fold.new(of(job))

        # @param card [Cards::Card]
        # @param device [String] whose marks they are
        # @param given [Array<Hash>]
        # @return [Handed]
        def hand_in(card, device, given)
          @shop.transaction do
            @shop.alone("job:#{card.job[:id]}")
            handed = Handed.new([], [])
            given.each_with_index { |mark, i| take(card, device, mark, i, handed) }
            settle(card)
            Live.tell(@shop, "jobs")
            handed
          end
        end

        private

        def take(card, device, mark, index, handed)
          event = NimbleLedger::Card::Event.parse(mark, path: "/marks/#{index}")
          refuse_closed(card)
          refuse_time(card, event, index)
          refuse_open(card, event) if event.kind == "finished"
          store(card, device, event)
          handed.taken << event.id
        rescue NimbleLedger::InvalidInput, Refusal => e
          handed.refused << { "id" => mark["id"].to_s[0, 40], "code" => e.code, "message" => e.message }
        end

        def store(card, device, event)
          known = @shop[:job_marks].where(job_id: card.job[:id], id: event.id).get(:mark)
          return if known && known.to_h == event.to_h
          raise Refusal.new(409, "mark_differs", "Another mark has the id #{event.id}.") if known

          if @shop[:job_marks].where(job_id: card.job[:id]).count >= NimbleLedger::Card::Event::MOST
            raise Refusal.new(422, "too_many_marks", "This card holds all the marks it can.")
          end

          @shop.db[:job_marks].insert(
            shop_id: @shop.id,
            job_id: card.job[:id],
            id: event.id,
            device: device,
            at: event.at,
            mark: Sequel.pg_jsonb(event.to_h),
            created_by: @shop.actor.account_id,
            created_at: @shop.now
          )
        end

        def refuse_closed(card)
          return unless card.job[:handed_over_at]

          raise Refusal.new(409, "handed_over", "This job was handed over; its card is closed.")
        end

        EARLY = 7 * 86_400 # seconds before its job was opened that a mark may be from
        AHEAD = 86_400 # seconds a device's clock may be ahead of the server's

        # A device's clock may be wrong, but not by years.
        def refuse_time(card, event, index)
          at = event.at
          return if at.between?(card.job[:created_at] - EARLY, @shop.now + AHEAD)

          raise Refusal.new(
                  422,
                  "mark_time",
                  "The device's clock is wrong: it says #{event.at.getutc.iso8601}. Set it, then make the mark again.",
                  details: [{ "path" => "/marks/#{index}/at", "message" => "is far from the server's clock" }]
                )
        end

        # A card is not finished with something open, unless it is said why.
        def refuse_open(card, event)
          fold = NimbleLedger::Card::Fold.new(of(card.job))
          return if fold.state["finished_at"] == event["at"]

          open = NimbleLedger::Card::OpenItems.new(Standings.new(@shop).standing(card, fold)).list
          return if open.empty?

          named = open.first(3).filter_map { |row| row["label"] }.uniq.join(", ")
          raise Refusal.new(
                  422,
                  "card_open",
                  "#{open.size} #{open.one? ? "thing is" : "things are"} open: #{named}. Tick them, or say why not.",
                  details: open.first(10).map { |row| { "path" => row["piece"].to_s, "message" => row["item"].to_s } }
                )
        end

        # What the list of jobs shows, by the marks there are now.
        def settle(card)
          known = fold(card.job)
          state = known.state
          values = {
            started_at: state["started_at"] && ::Time.iso8601(state["started_at"]),
            finished_at: state["finished_at"] && ::Time.iso8601(state["finished_at"]),
            updated_at: @shop.now
          }
          values[:actuals] = Sequel.pg_jsonb(Standings.new(@shop).actuals(card, known)) if state["finished_at"]
          @shop[:jobs].where(id: card.job[:id]).update(values)
        end
      end
    end
  end
end
