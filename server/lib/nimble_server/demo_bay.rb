# frozen_string_literal: true

module NimbleServer
  # Jobs of the demo as the bay left them: marks on their cards, made the way a technician makes them, piece after
  # piece, the last of them some minutes ago.
  class DemoBay
    # Hands that are a little slower than reckoned.
    PACE = 1.1
    SINCE_LAST = 4 * 60
    LOOKS = [%w[normal], %w[normal], %w[worn], %w[normal], %w[sooty], %w[normal]].freeze

    # @param shop [Shop] with the technician as its actor
    # @param job [Hash] row
    # @param told [Hash] of shop.json: "done" (share of the pieces), "bay", "arrival", "found"
    def initialize(shop, job, told)
      @shop = shop
      @job = job
      @told = told
      @card = Features::Jobs::Cards.new(shop).of(job)
      @marks = []
      @minute = 0.0
    end

    def load
      @shop[:jobs].where(id: @job[:id]).update(
        technician_id: @shop.actor.account_id,
        bay: @told["bay"],
        arrival: @told["arrival"],
        arrived_at: @shop.now - (8 * 3600)
      )
      make
      Features::Jobs::Marks.new(@shop).hand_in(@card, "demo tablet", timed)
    end

    private

    def make
      pieces = @card.sheet["pieces"]
      mark("start")
      pieces.first((pieces.size * @told["done"]).floor).each { |piece| done(piece) }
      (@told["found"] || []).each { |found| mark("found", **found.transform_keys(&:to_sym)) }
      mark("finished") if @told["done"] >= 1
    end

    def done(piece)
      piece["plug"] ? plug(piece) : @minute += piece["minutes"] * PACE
      (piece["ticks"] || []).each { |tick| mark("tick", piece: piece["id"], item: tick["item"]) }
      return if piece["plug"]

      mark({ "remove" => "off", "refit" => "on" }.fetch(piece["kind"], "check"), piece: piece["id"])
    end

    def plug(piece)
      count = piece["plug"]["count"]
      count.times do |i|
        about = { plug: piece["ref"], nth: i + 1 }
        @minute += piece["minutes"] * PACE / count
        last = i + 1 == count ? { piece: piece["id"] } : {}
        mark("well", **about)
        mark("out", outcome: "free", **about)
        mark("read", conditions: LOOKS[(piece["cylinder"].to_i + i) % LOOKS.size], **about)
        mark("new", **about)
        mark("in", how: piece["plug"]["by"], by_hand: true, **about, **last)
      end
    end

    def mark(kind, **values)
      @marks << [@minute, { "id" => format("demo-%04d", @marks.size), "kind" => kind, **values.transform_keys(&:to_s) }]
    end

    # The last of them some minutes ago, those of one moment a hundredth of a second apart.
    def timed
      start = @shop.now.getutc - SINCE_LAST - (@minute * 60)
      @marks.each_with_index.map do |(minute, mark), i|
        mark.merge("at" => (start + (minute * 60) + (i * 0.01)).iso8601(3))
      end
    end
  end
end
