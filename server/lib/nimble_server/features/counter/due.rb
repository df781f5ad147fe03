# frozen_string_literal: true

module NimbleServer
  module Features
    module Counter
      # Cars whose plugs are due, by the interval of what their engine takes: by distance as far as the odometer is
      # known, by months since the last change.
      class Due
        MOST = 8

        def initialize(shop)
          @shop = shop
        end

        # @param within_days [Integer] how far to look ahead
        # @return [Array<Hash>] see the contract, Counter; the longest overdue first
        def rows(within_days:)
          cars = @shop[:vehicles].exclude(plugs_changed_km: nil, plugs_changed_on: nil).all
          engines = engines_of(cars.map { |car| car[:engine_code] }.uniq)
          found = cars.filter_map { |car| due(car, engines[car[:engine_code]], within_days) }
          owners = @shop[:customers].where(id: found.map { |row| row[:car][:customer_id] }.compact).as_hash(:id)
          found.sort_by { |row| [row[:on], row[:car][:plate]] }.first(MOST).map { |row| shown(row, owners) }
        end

        private

        def today = @shop.now.to_date

        # @return [Hash{String=>NimbleLedger::Profile::Engine}]
        def engines_of(codes)
          Library
            .newest_of_each(@shop)
            .select { |row| codes.include?(row[:code]) }
            .to_h { |row| [row[:code], Library.engine(@shop, row[:id])] }
        end

        # When and by what a car is due, if that is soon: by what is in its head.
        def due(car, engine, within_days)
          return nil unless engine

          interval = HouseRules::House.new(@shop).interval(engine, fitted_km: car[:fitted]&.to_h&.dig("interval_km"))
          over = interval.over_km(car[:plugs_changed_km], car[:odometer_km])
          return { car: car, on: today, over_km: over } if over&.positive?

          on = interval.due_on(car[:plugs_changed_on])
          on && on <= today + within_days ? { car: car, on: on } : nil
        end

        def shown(row, owners)
          car = row[:car]
          owner = owners[car[:customer_id]]
          {
            "vehicle_id" => car[:id],
            "plate" => car[:plate],
            "description" => car[:description],
            "customer" => owner && owner[:name],
            "phone" => owner && owner[:phone],
            "on" => row[:on].iso8601,
            "past" => row[:on] < today,
            "over_km" => row[:over_km]
          }
        end
      end
    end
  end
end
