# frozen_string_literal: true

module NimbleServer
  module Features
    module Counter
      # Everything the shop has on one car: what it is, its quotes and how far each has come, what was found and fitted,
      # what was written to its owner. Looking at it starts nothing.
      class CarFile
        MOST = 60

        # @raise [Refusal] 404
        def initialize(shop, vehicle_id)
          @shop = shop
          @id = vehicle_id
          @car = Vehicles::Car.new(shop, vehicle_id).page
        end

        # @return [Hash] see the contract, CarFile
        def to_h =
          {
            "car" => @car,
            "cylinders" => engine.cylinders.map(&:number),
            "quotes" => Quotes::Desk.new(@shop).cards(quotes),
            "findings" => Vehicles::Findings.new(@shop).of(@id),
            "letters" => letters
          }

        private

        def engine = Library.engine(@shop, Library.newest_engine(@shop, @car.dig("vehicle", "engine_code"))[:id])

        def quotes = @quotes ||= @shop[:quotes].where(vehicle_id: @id).reverse(:created_at).limit(MOST).all

        def letters
          numbers = quotes.to_h { |quote| [quote[:id], quote[:number]] }
          offers = @shop[:offers].where(quote_id: numbers.keys).select_hash(:id, :quote_id)
          rows = @shop[:messages].where(offer_id: offers.keys).reverse(:created_at).limit(MOST)
          rows.map do |row|
            {
              "quote_id" => offers[row[:offer_id]],
              "number" => numbers[offers[row[:offer_id]]],
              "kind" => row[:kind],
              "channel" => row[:channel],
              "address" => row[:address],
              "state" => row[:state],
              "at" => row[:created_at].iso8601
            }
          end
        end
      end
    end
  end
end
