# frozen_string_literal: true

module NimbleServer
  module Features
    module People
      # The accounts of a shop: roles and access. A shop keeps at least one owner who can sign in.
      class Staff
        OPEN = 2
        CLOSED = 3

        def initialize(shop)
          @shop = shop
        end

        # @return [Hash] see the contract, People
        def page
          {
            "people" => accounts.order(:id).map { |row| person(row) },
            "invitations" => Invitations.new(@shop).open.map { |row| Invitations.row(row) }
          }
        end

        # @param id [String] of the account
        # @param change [Hash] see the contract, ChangePerson
        # @return [Hash] the page
        # @raise [Refusal] 404 for nobody here, 409 when it would leave the shop without an owner
        def change(id, change)
          @shop.transaction do
            @shop.alone("people")
            row = accounts.where(Sequel.cast_string(:id) => id.to_s).first or raise Refusal.not_found("person")
            values = {}
            values[:role] = change["role"] if change["role"]
            values[:status_id] = change["access"] ? OPEN : CLOSED if change.key?("access")
            raise last_owner if owners_without(row[:id]).zero? && !owner?(row.merge(values))

            accounts.where(id: row[:id]).update(values) if values.any?
          end
          page
        end

        private

        def accounts = @shop[:accounts].select(:id, :email, :status_id, :name, :role)
        def owner?(row) = row[:role] == "owner" && row[:status_id] == OPEN
        def owners_without(id) = accounts.where(role: "owner", status_id: OPEN).exclude(id: id).count

        def person(row)
          {
            "id" => row[:id].to_s,
            "name" => row[:name],
            "email" => row[:email],
            "role" => row[:role],
            "access" => row[:status_id] == OPEN,
            "self" => row[:id] == @shop.actor.account_id
          }
        end

        def last_owner =
          Refusal.new(409, "last_owner", "A shop keeps at least one owner who can sign in. Make another one first.")
      end
    end
  end
end
