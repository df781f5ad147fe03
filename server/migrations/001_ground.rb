# frozen_string_literal: true

# Every shop-owned table carries shop_id in its key, so that shops can share a server now and be partitioned later.
Sequel.migration do
  up do
    run "CREATE EXTENSION IF NOT EXISTS citext"
    run "CREATE EXTENSION IF NOT EXISTS pg_trgm"

    create_table(:shops) do
      uuid :id, primary_key: true
      String :name, null: false
      String :slug, null: false, unique: true
      String :locale, null: false, default: "en-US"
      String :distance_unit, null: false, default: "km"
      String :time_zone, null: false
      column :created_at, :timestamptz, null: false
    end

    create_table(:accounts) do
      primary_key :id, type: :Bignum
      foreign_key :shop_id, :shops, type: :uuid, null: false
      citext :email, null: false, unique: true
      Integer :status_id, null: false, default: 2
      String :password_hash, null: false
      String :name, null: false
      String :role, null: false
      column :created_at, :timestamptz, null: false
      check(role: %w[owner advisor technician])
    end

    create_table(:account_login_failures) do
      foreign_key :id, :accounts, primary_key: true, type: :Bignum
      Integer :number, null: false, default: 1
    end

    create_table(:account_lockouts) do
      foreign_key :id, :accounts, primary_key: true, type: :Bignum
      String :key, null: false
      DateTime :deadline, null: false
      DateTime :email_last_sent
    end

    create_table(:shop_counters) do
      uuid :shop_id, null: false
      String :name, null: false
      Bignum :value, null: false, default: 0
      primary_key %i[shop_id name]
    end

    shop_table(:customers) do
      String :name, null: false
      String :phone
      String :email
    end

    shop_table(:engine_profiles) do
      String :code, null: false
      Integer :revision, null: false
      jsonb :profile, null: false
      unique %i[shop_id code revision]
    end

    shop_table(:price_lists) do
      Integer :revision, null: false
      jsonb :catalog, null: false
      unique %i[shop_id revision]
    end

    shop_table(:house_settings) do
      Integer :revision, null: false
      jsonb :settings, null: false
      unique %i[shop_id revision]
    end

    shop_table(:vehicles) do
      uuid :customer_id
      String :plate, null: false
      String :description, null: false
      Integer :year
      String :engine_code, null: false
      Integer :odometer_km
      Integer :plugs_changed_km
      Date :plugs_changed_on
      TrueClass :compound_used
      String :lives
      jsonb :condition, null: false, default: Sequel.lit("'{}'::jsonb")
      String :notes
      foreign_key %i[shop_id customer_id], :customers, key: %i[shop_id id]
      unique %i[shop_id plate]
    end
  end

  down { raise Sequel::Error, "Going back below the first migration would drop the shop's data." }
end
