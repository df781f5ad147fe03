# frozen_string_literal: true

# The ledger: every finished job once, as it was estimated and as it went; what was corrected is an entry against it.
# What was learned from them is kept with the state of the ledger it was learned from.
Sequel.migration do
  up do
    shop_table(:ledger_entries) do
      String :key, null: false
      String :source, null: false
      column :finished_at, :timestamptz, null: false
      jsonb :entry, null: false
      uuid :against
      String :why, null: false, default: ""
      foreign_key %i[shop_id against], :ledger_entries, key: %i[shop_id id]
      unique %i[shop_id key]
      check(source: %w[job import demo])
    end

    create_table(:ledger_learned) do
      uuid :shop_id, primary_key: true
      String :state, null: false
      jsonb :answer, null: false
      column :learned_at, :timestamptz, null: false
    end

    %i[ledger_entries ledger_learned].each { |table| NimbleServer::Database.wall(self, table) }
    run "CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON ledger_entries " \
          "FOR EACH ROW EXECUTE FUNCTION refuse_change()"
    run "CREATE TRIGGER append_only_whole BEFORE TRUNCATE ON ledger_entries " \
          "FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()"
    run <<~SQL
      GRANT SELECT, INSERT ON ledger_entries TO nimble_web;
      GRANT SELECT, INSERT, UPDATE ON ledger_learned TO nimble_web;
    SQL
  end

  down { raise Sequel::Error, "Going back would lose what the shop has learned." }
end
