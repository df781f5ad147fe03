# frozen_string_literal: true

module NimbleServer
  module Features
    module Customers
      # The people a shop knows, with their cars and wishes; doubles are merged into one.
      class Directory
        def initialize(shop)
          @shop = shop
        end

        def self.row(row)
          {
            "id" => row[:id],
            "name" => row[:name],
            "phone" => row[:phone],
            "email" => row[:email],
            "wishes" => row[:wishes]
          }
        end

        # One person with their cars and quotes, and others who may be the same.
        # @return [Hash] see the contract, CustomerPage
        # @raise [Refusal] 404
        def page(id)
          row = find(id)
          garage = Vehicles::Garage.new(@shop)
          cars = @shop[:vehicles].where(customer_id: row[:id]).order(:plate).select_map(:id)
          {
            "customer" => Directory.row(row),
            "vehicles" => cars.map { |car| Vehicles::Garage.card(garage.find(car), @shop.now) },
            "doubles" => doubles(row).map { |other| Directory.row(other) }
          }
        end

        # Changes how a customer is called and reached, and what they wish; their quotes are found by the new name.
        # @param given [Hash] see the contract, Customer
        # @raise [Refusal] 404
        def change(id, given)
          values = given.slice("name", "phone", "email", "wishes").transform_keys(&:to_sym)
          values = values.transform_values { |text| text.to_s.strip.then { |plain| plain.empty? ? nil : plain } }
          @shop.transaction do
            find(id)
            @shop[:customers].where(id: id).update(values)
            Vehicles::Garage.new(@shop).renew_search(id)
          end
          Directory.row(find(id))
        end

        # Two entries for one person become one: the cars of the double go over, what is missing is taken from it, and
        # the double is not found any more.
        # @param id [String] of the one that stays
        # @param double_id [String]
        # @raise [Refusal] 404, 422 for one person with themselves
        def merge(id, double_id)
          raise Refusal.new(422, "same_person", "These are the same entry.") if id == double_id

          @shop.transaction do
            kept = find(id)
            double = find(double_id)
            @shop[:customers].where(id: id).update(filled(kept, double))
            @shop[:vehicles].where(customer_id: double_id).update(customer_id: id)
            @shop[:customers].where(id: double_id).update(merged_into: id)
            Record::ActLog.new(@shop).append(
              "customers-merged",
              "customer #{kept[:name]}",
              { "kept" => id, "double" => double_id, "double_name" => double[:name] }
            )
            Vehicles::Garage.new(@shop).renew_search(id)
          end
          page(id)
        end

        private

        def find(id) = @shop[:customers].where(id: id, merged_into: nil).first || raise(Refusal.not_found("customer"))

        def filled(kept, double) =
          {
            phone: kept[:phone] || double[:phone],
            email: kept[:email] || double[:email],
            wishes: kept[:wishes] || double[:wishes]
          }

        # Others of the same telephone or mail, or of the same name.
        def doubles(row)
          same = [{ Sequel.function(:lower, :name) => row[:name].downcase }]
          same << { phone: row[:phone] } if row[:phone]
          same << { Sequel.function(:lower, :email) => row[:email].downcase } if row[:email]
          @shop[:customers]
            .where(merged_into: nil)
            .exclude(id: row[:id])
            .where(Sequel.|(*same))
            .order(:name)
            .limit(10)
            .all
        end
      end
    end
  end
end
