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
      plugs = (piece["plugs"] || []).flat_map { |plug| (1..plug["count"]).map { |nth| [plug, nth] } }
      plugs.each { |plug, nth| plug(piece, plug, nth, piece["minutes"] * PACE / plugs.size) }
      @minute += piece["minutes"] * PACE if plugs.empty?
      (piece["ticks"] || []).each { |tick| mark("tick", piece: piece["id"], item: tick["item"]) }
      mark({ "remove" => "off", "refit" => "on" }.fetch(piece["kind"], "check"), piece: piece["id"])
    end

    def plug(piece, plug, nth, minutes)
      @minute += minutes
      about = { plug: plug["target"], nth: nth }
      piece["acts"].each { |act| act(act["act"], piece, plug, about) }
    end

    def act(name, piece, plug, about)
      case name
      when "clean"
        mark("well", **about)
      when "out"
        mark("out", outcome: "free", **about)
      when "read"
        mark("read", conditions: LOOKS[(piece["cylinder"].to_i + about[:nth] - 1) % LOOKS.size], **about)
      when "dry"
        mark("dry", **about)
      when "in"
        mark("new", **about) if plug["renewed"]
      when "tighten"
        mark("in", how: piece["plug"]["by"], by_hand: true, **about)
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
