# frozen_string_literal: true

# What the ledger keeps beside an entry came into migration 019 after that had been applied in places: data made before
# gets it here. And which migrations made this database, by the digest of each: an applied one is never edited.
Sequel.migration do
  up do
    run "ALTER TABLE ledger_entries ADD COLUMN IF NOT EXISTS billed_cents bigint"
    run "ALTER TABLE ledger_entries ADD COLUMN IF NOT EXISTS parts jsonb"
    create_table(:applied_migrations) do
      Integer :number, primary_key: true
      String :name, null: false
      String :sha256, null: false
      column :at, :timestamptz, null: false, default: Sequel::CURRENT_TIMESTAMP
    end
  end

  down { raise Sequel::Error, "Going back would forget how this database was made." }
end
