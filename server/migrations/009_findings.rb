# frozen_string_literal: true

# What was found on a car at earlier visits, at its cylinder, until it is settled.
Sequel.migration do
  up do
    shop_table(:findings) do
      uuid :vehicle_id, null: false
      Integer :cylinder
      String :kind, null: false
      String :words, null: false, default: ""
      column :settled_at, :timestamptz
      foreign_key :settled_by, :accounts, type: :Bignum
      foreign_key %i[shop_id vehicle_id], :vehicles, key: %i[shop_id id]
      index %i[shop_id vehicle_id], where: { settled_at: nil }
    end
    NimbleServer::Database.wall(self, :findings)
    run "GRANT SELECT, INSERT, UPDATE (settled_at, settled_by) ON findings TO nimble_web"
  end

  down { drop_table(:findings) }
end
