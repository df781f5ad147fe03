# frozen_string_literal: true

# The ledger: every finished job once, as it was estimated and as it went; what was corrected is an entry against it.
# What was learned from them is kept with the state of the ledger it was learned from; what the shop takes of it is
# written down, act by act.
Sequel.migration do
  up do
    shop_table(:ledger_entries) do
      String :key, null: false
      String :source, null: false
      column :finished_at, :timestamptz, null: false
      jsonb :entry, null: false
      Bignum :billed_cents
      jsonb :parts
      uuid :against
      String :why, null: false, default: ""
      foreign_key %i[shop_id against], :ledger_entries, key: %i[shop_id id]
      unique %i[shop_id key]
      check(source: %w[job import demo])
    end

    # asked: the state that is to be learned; progress: the share of it that is done, null while nothing is learned.
    create_table(:ledger_learned) do
      uuid :shop_id, primary_key: true
      String :state
      jsonb :learned
      column :learned_at, :timestamptz
      String :asked
      Float :progress
    end

    # What the shop took of it, and took back; and whether it is taken by itself. in_force: the lesson that quotes are
    # corrected by since then.
    shop_table(:ledger_lessons) do
      bigint :number, null: false
      String :act, null: false
      String :state
      jsonb :lesson
      uuid :in_force
      foreign_key %i[shop_id in_force], :ledger_lessons, key: %i[shop_id id]
      unique %i[shop_id number]
      check(act: %w[take back automatic by-hand])
    end

    # Work in the background lives in the database (que).
    NimbleServer::Background.on(self) { Que.migrate!(version: 7) }

    %i[ledger_entries ledger_learned ledger_lessons].each { |table| NimbleServer::Database.wall(self, table) }
    run "CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON ledger_entries " \
          "FOR EACH ROW EXECUTE FUNCTION refuse_change()"
    run "CREATE TRIGGER append_only_whole BEFORE TRUNCATE ON ledger_entries " \
          "FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()"
    run "CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON ledger_lessons " \
          "FOR EACH ROW EXECUTE FUNCTION refuse_change()"
    run "CREATE TRIGGER append_only_whole BEFORE TRUNCATE ON ledger_lessons " \
          "FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()"
    run <<~SQL
      GRANT SELECT, INSERT ON ledger_entries, ledger_lessons TO nimble_web;
      GRANT SELECT, INSERT, UPDATE, DELETE ON que_jobs, que_lockers, que_values TO nimble_web;
      GRANT USAGE ON SEQUENCE que_jobs_id_seq TO nimble_web;
      GRANT SELECT, INSERT, UPDATE ON ledger_learned TO nimble_web;
    SQL
  end

  down { raise Sequel::Error, "Going back would lose what the shop has learned." }
end
