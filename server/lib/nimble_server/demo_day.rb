# frozen_string_literal: true

module NimbleServer
  # The demo shop's day: who works, in which bays, and the times its quotes have taken, each the soonest there was.
  class DemoDay
    # @param shop [Shop]
    # @param told [Hash] of shop.json: "bays", "people" (mail and lunch), "times" (plates)
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
      @told["times"].each { |plate| book(plate) }
    end

    private

    def book(plate)
      car = @shop[:vehicles].where(plate: plate).get(:id)
      quote = @shop[:quotes].where(vehicle_id: car).order(Sequel.desc(:number)).first
      page = Features::Day::WhenOffers.new(@shop).of(quote)
      offer = page["offers"].select { |one| one["ready"] }.min_by { |one| one["ready"] } or return
      Features::Day::BookingDesk.new(@shop).book(
        offer.slice("person", "place", "arrival").merge(
          "quote_id" => quote[:id],
          "version" => page["version"],
          "arrives" => offer["drop_off"],
          "promise" => offer["ready"],
          "chance" => page["share"]
        )
      )
    end
  end
end
