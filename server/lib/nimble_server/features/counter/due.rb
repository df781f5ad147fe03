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
        # @return [Array<Hash>] the longest overdue first
        def rows(within_days:)
          cars = @shop[:vehicles].exclude(plugs_changed_km: nil, plugs_changed_on: nil).all
          intervals = intervals_of(cars.map { |car| car[:engine_code] }.uniq)
          found = cars.filter_map { |car| due(car, intervals[car[:engine_code]] || {}, within_days) }
          owners = @shop[:customers].where(id: found.map { |row| row[:car][:customer_id] }.compact).as_hash(:id)
          found.sort_by { |row| [row[:on], row[:car][:plate]] }.first(MOST).map { |row| shown(row, owners) }
        end

        private

        def today = @shop.now.to_date

        # Interval of the plug each engine takes, in distance and months.
        def intervals_of(codes)
          Library
            .newest_of_each(@shop)
            .select { |row| codes.include?(row[:code]) }
            .to_h do |row|
              plug = Library.engine(@shop, row[:id]).source["plug"]
              [row[:code], { km: plug["interval_km"], months: plug["interval_months"] }]
            end
        end

        # When and by what a car is due, if that is soon.
        def due(car, interval, within_days)
          on = car[:plugs_changed_on] && interval[:months] && (car[:plugs_changed_on] >> interval[:months])
          over = over(car, interval)
          return { car: car, on: today, over_km: over } if over&.positive?

          on && on <= today + within_days ? { car: car, on: on } : nil
        end

        def over(car, interval)
          known = car[:odometer_km] && car[:plugs_changed_km] && interval[:km]
          known ? car[:odometer_km] - car[:plugs_changed_km] - interval[:km] : nil
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
            "over_km" => row[:over_km]
          }
        end
      end
    end
  end
end
