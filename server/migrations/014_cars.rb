# frozen_string_literal: true

# What is known of a car over the years: the maker's number, every reading of the odometer, who owned it before, and
# what was fitted to which cylinder, when and by whom.
Sequel.migration do
  up do
    alter_table(:vehicles) { add_column :maker_number, String }
    shop_table(:odometer_readings) do
      uuid :vehicle_id, null: false
      Integer :km, null: false
      String :reason, null: false, default: ""
      foreign_key %i[shop_id vehicle_id], :vehicles, key: %i[shop_id id]
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
      index %i[shop_id vehicle_id created_at]
      check { km >= 0 }
    end
    shop_table(:former_owners) do
      uuid :vehicle_id, null: false
      uuid :customer_id, null: false
      foreign_key %i[shop_id vehicle_id], :vehicles, key: %i[shop_id id]
      foreign_key %i[shop_id customer_id], :customers, key: %i[shop_id id]
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
      index %i[shop_id vehicle_id]
    end
    shop_table(:fittings) do
      uuid :vehicle_id, null: false
      String :work, null: false
      Integer :cylinder
      Integer :km
      Date :on, null: false
      TrueClass :ours, null: false
      String :by, null: false, default: ""
      column :withdrawn_at, :timestamptz
      check(work: %w[plug coil wire boot])
      foreign_key %i[shop_id vehicle_id], :vehicles, key: %i[shop_id id]
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
      index %i[shop_id vehicle_id]
    end
    %i[odometer_readings former_owners fittings].each { |table| NimbleServer::Database.wall(self, table) }
    run "GRANT SELECT, INSERT ON odometer_readings, former_owners TO nimble_web"
    run "GRANT SELECT, INSERT, UPDATE (withdrawn_at) ON fittings TO nimble_web"
    run <<~SQL
      INSERT INTO odometer_readings (shop_id, id, created_at, vehicle_id, km)
        SELECT shop_id, gen_random_uuid(), now(), id, odometer_km FROM vehicles WHERE odometer_km IS NOT NULL;
    SQL
  end

  down { raise Sequel::Error, "Going back would lose what is known of cars." }
end
