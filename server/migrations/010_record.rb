# frozen_string_literal: true

# The shop's record: every act that binds somebody, chained (core record/chain.rb). Rows are only ever added.
Sequel.migration do
  up do
    create_table(:record_entries) do
      uuid :shop_id, null: false
      Bignum :seq, null: false
      column :at, :timestamptz, null: false
      String :kind, null: false
      String :subject, null: false
      bytea :bytes, null: false
      String :mac, null: false
      String :key_id, null: false
      primary_key %i[shop_id seq]
      foreign_key [:shop_id], :shops, key: :id
      index %i[shop_id subject]
    end
    run "CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON record_entries " \
          "FOR EACH ROW EXECUTE FUNCTION refuse_change()"
    run "CREATE TRIGGER append_only_whole BEFORE TRUNCATE ON record_entries " \
          "FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()"
    NimbleServer::Database.wall(self, :record_entries)
    run "GRANT SELECT, INSERT ON record_entries TO nimble_web"
  end

  down { raise Sequel::Error, "Going back would lose the record." }
end
