# frozen_string_literal: true

# Finding the fault: what is known of a misfire, for the quote it belongs to, with a version.
Sequel.migration do
  up do
    shop_table(:traces) do
      uuid :quote_id, null: false
      Integer :version, null: false
      jsonb :content, null: false
      column :updated_at, :timestamptz, null: false
      foreign_key :updated_by, :accounts, type: :Bignum
      foreign_key %i[shop_id quote_id], :quotes, key: %i[shop_id id]
      unique %i[shop_id quote_id]
    end
    NimbleServer::Database.wall(self, :traces)
    run "GRANT SELECT, INSERT, UPDATE (version, content, updated_at, updated_by) ON traces TO nimble_web"
  end

  down { raise Sequel::Error, "Going back would lose what was found out." }
end
