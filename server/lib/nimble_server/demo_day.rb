# frozen_string_literal: true

module NimbleServer
  # The demo shop's day: who works, in which bays, and the times its quotes have taken, each the soonest there was.
  class DemoDay
    # @param shop [Shop]
    # @param told [Hash] of shop.json: "bays", "people" (mail and lunch), "times" (plate, whether later)
    def initialize(shop, told)
      @shop = shop
      @told = told
    end

    def load
      accounts = @shop[:accounts].as_hash(:email, :id)
      people =
        @told["people"].map do |row|
          { "id" => accounts.fetch(row["email"]), "works" => true, "hours" => nil, "lunch" => row["lunch"] }
        end
      calendar = { "revision" => 0, "bays" => @told["bays"], "people" => people, "away" => [], "closed" => [] }
      Features::Day::Calendar.new(@shop).keep(calendar)
      @told["times"].each { |row| book(row) }
    end

    private

    # Today what can be had soonest, unpromised; later days with a promise, which holds until somebody is late.
    def book(told)
      car = @shop[:vehicles].where(plate: told["plate"]).get(:id)
      quote = @shop[:quotes].where(vehicle_id: car).order(Sequel.desc(:number)).first
      page = Features::Day::WhenOffers.new(@shop).of(quote)
      offer = chosen(page, told["later"]) or return
      promise = told["later"] ? { "promise" => offer["ready"], "chance" => page["share"] } : {}
      given = { "quote_id" => quote[:id], "version" => page["version"], "arrives" => offer["drop_off"] }
      Features::Day::BookingDesk.new(@shop).book(offer.slice("person", "place", "arrival").merge(given, promise))
    end

    def chosen(page, later)
      today = page["now"][0, 10]
      offers = page["offers"].select { |one| one["ready"] && (!later || one["drop_off"][0, 10] > today) }
      offers.min_by { |one| one["ready"] }
    end
  end
end
