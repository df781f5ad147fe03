# frozen_string_literal: true

module NimbleServer
  module Features
    module Counter
      # What somebody promised to look at again: it stands on the Counter when its day comes near, until somebody has.
      class FollowUps
        AHEAD_DAYS = 7
        MOST = 40

        def initialize(shop)
          @shop = shop
        end

        # @return [Array<Hash>] see the contract, Counter
        def rows
          open
            .join(:vehicles, shop_id: :shop_id, id: :vehicle_id)
            .left_join(:customers, shop_id: Sequel[:vehicles][:shop_id], id: Sequel[:vehicles][:customer_id])
            .where(Sequel[:follow_ups][:on] <= @shop.now.to_date + AHEAD_DAYS)
            .order(Sequel[:follow_ups][:on])
            .limit(MOST)
            .select_all(:follow_ups)
            .select_append(Sequel[:vehicles][:plate], Sequel[:customers][:name], Sequel[:customers][:phone])
            .map { |row| shown(row) }
        end

        # @raise [Refusal] 404 when it is not open here
        def settle(id)
          values = { settled_at: @shop.now, settled_by: @shop.actor.account_id }
          raise Refusal.not_found("follow-up") if open.where(id: id).update(values).zero?

          Live.tell(@shop, "jobs")
        end

        private

        def open = @shop[:follow_ups].where(settled_at: nil)

        def shown(row)
          {
            "id" => row[:id],
            "vehicle_id" => row[:vehicle_id],
            "plate" => row[:plate],
            "customer" => row[:name],
            "phone" => row[:phone],
            "on" => row[:on].iso8601,
            "words" => row[:words]
          }
        end
      end
    end
  end
end
