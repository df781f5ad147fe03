# frozen_string_literal: true

# Walls inside the database: the web process signs in as nimble_web, which owns nothing and sees the rows of one shop at
# a time; sign-in has a role of its own (nimble_door), which sees accounts and sessions and nothing else. A saved
# revision is sealed: nothing of it can be changed, removed or added to.
Sequel.migration do
  shop_tables = %i[
    customers
    vehicles
    engine_profiles
    price_lists
    house_settings
    quotes
    quote_revisions
    quote_scopes
    quote_lines
  ]
  frozen = %i[engine_profiles price_lists house_settings quote_revisions quote_scopes quote_lines]

  up do
    # Accounts belong to a shop in every key that names them.
    alter_table(:accounts) { add_unique_constraint %i[shop_id id], name: :accounts_of_shop }
    shop_tables.each do |table|
      run "ALTER TABLE #{table} DROP CONSTRAINT IF EXISTS #{table}_created_by_fkey"
      alter_table(table) do
        add_foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id], name: :"#{table}_actor"
      end
    end
    run "ALTER TABLE quote_drafts DROP CONSTRAINT IF EXISTS quote_drafts_account_id_fkey"
    alter_table(:quote_drafts) do
      add_foreign_key %i[shop_id account_id], :accounts, key: %i[shop_id id], name: :quote_drafts_actor
    end
    alter_table(:vehicles) do
      add_foreign_key %i[shop_id updated_by], :accounts, key: %i[shop_id id], name: :vehicles_updated_by
    end
    alter_table(:idempotency_keys) do
      add_column :digest, String, null: false, default: ""
      add_foreign_key %i[shop_id account_id], :accounts, key: %i[shop_id id], name: :idempotency_keys_actor
      add_index %i[created_at], name: :idempotency_keys_age
    end
    alter_table(:shop_counters) { add_foreign_key [:shop_id], :shops, key: :id, name: :shop_counters_shop }
    alter_table(:shops) { add_column :demo, TrueClass, null: false, default: false }
    run "UPDATE shops SET demo = true WHERE slug IN ('merrow-quay', 'hollow-lane')"

    # Values that name a state or a kind are known ones.
    run "ALTER TABLE accounts ADD CONSTRAINT accounts_status CHECK (status_id IN (2, 3))"
    run "ALTER TABLE quotes ADD CONSTRAINT quotes_status CHECK " \
          "(status IN ('open', 'sent', 'authorized', 'declined', 'expired', 'superseded'))"
    run "ALTER TABLE quote_lines ADD CONSTRAINT quote_lines_kind CHECK " \
          "(kind IN ('labor', 'part', 'consumable', 'supplies', 'fee', 'discount', 'tax'))"
    run "ALTER TABLE quote_drafts ADD CONSTRAINT quote_drafts_counts CHECK (version > 0 AND base_revision >= 0)"
    run "ALTER TABLE quotes ADD CONSTRAINT quotes_counts CHECK (number > 0 AND latest_revision >= 0)"
    run "ALTER TABLE shops ADD CONSTRAINT shops_unit CHECK (distance_unit IN ('km', 'mi'))"

    # One revision for one version of a working copy, however often and in parallel it is saved.
    alter_table(:quote_revisions) { add_column :draft_version, Integer }
    run "CREATE UNIQUE INDEX quote_revisions_once ON quote_revisions (shop_id, quote_id, created_by, draft_version)"

    # The seal of a revision: its canonical bytes and their digest, put on in the transaction that made it.
    create_table(:quote_seals) do
      uuid :shop_id, null: false
      uuid :revision_id, null: false
      bytea :bytes, null: false
      String :sha256, null: false
      column :created_at, :timestamptz, null: false
      primary_key %i[shop_id revision_id]
      foreign_key %i[shop_id revision_id], :quote_revisions, key: %i[shop_id id]
    end
    NimbleServer::Seal.existing(self)
    run <<~SQL
      CREATE FUNCTION refuse_after_seal() RETURNS trigger LANGUAGE plpgsql AS $$
      DECLARE revision uuid;
      BEGIN
        IF TG_TABLE_NAME = 'quote_scopes' THEN revision := NEW.revision_id;
        ELSE
          SELECT s.revision_id INTO revision
          FROM quote_scopes s WHERE s.shop_id = NEW.shop_id AND s.id = NEW.scope_id;
        END IF;
        IF EXISTS (SELECT 1 FROM quote_seals q WHERE q.shop_id = NEW.shop_id AND q.revision_id = revision) THEN
          RAISE EXCEPTION '% is sealed: nothing is added to what a customer was shown', TG_TABLE_NAME;
        END IF;
        RETURN NEW;
      END $$;

      CREATE FUNCTION must_be_sealed() RETURNS trigger LANGUAGE plpgsql AS $$
      BEGIN
        IF NOT EXISTS (SELECT 1 FROM quote_seals q WHERE q.shop_id = NEW.shop_id AND q.revision_id = NEW.id) THEN
          RAISE EXCEPTION 'a revision is sealed in the transaction that makes it';
        END IF;
        RETURN NULL;
      END $$;
    SQL
    %i[quote_scopes quote_lines].each do |table|
      run "CREATE TRIGGER sealed BEFORE INSERT ON #{table} FOR EACH ROW EXECUTE FUNCTION refuse_after_seal()"
    end
    run "CREATE CONSTRAINT TRIGGER sealed AFTER INSERT ON quote_revisions DEFERRABLE INITIALLY DEFERRED " \
          "FOR EACH ROW EXECUTE FUNCTION must_be_sealed()"
    run "CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON quote_seals " \
          "FOR EACH ROW EXECUTE FUNCTION refuse_change()"
    run "CREATE TRIGGER append_only_whole BEFORE TRUNCATE ON quote_seals " \
          "FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()"

    # Sessions end on the server; wrong tries and throttles are counted for all web processes together.
    drop_table(:account_login_failures, :account_lockouts)
    create_table(:account_active_session_keys) do
      foreign_key :account_id, :accounts, type: :Bignum, null: false
      String :session_id, null: false
      column :created_at, :timestamptz, null: false, default: Sequel::CURRENT_TIMESTAMP
      column :last_use, :timestamptz, null: false, default: Sequel::CURRENT_TIMESTAMP
      primary_key %i[account_id session_id]
    end
    create_table(:account_known_addresses) do
      foreign_key :account_id, :accounts, type: :Bignum, null: false
      String :digest, null: false
      column :seen_at, :timestamptz, null: false
      primary_key %i[account_id digest]
    end
    run "CREATE UNLOGGED TABLE counters (key text PRIMARY KEY, count integer NOT NULL, until timestamptz NOT NULL)"
    run "CREATE INDEX counters_age ON counters (until)"

    # Who may do what.
    run <<~SQL
      DO $$ BEGIN
        IF NOT EXISTS (SELECT 1 FROM pg_roles WHERE rolname = 'nimble_web') THEN
          CREATE ROLE nimble_web NOLOGIN NOSUPERUSER NOBYPASSRLS;
        END IF;
        IF NOT EXISTS (SELECT 1 FROM pg_roles WHERE rolname = 'nimble_door') THEN
          CREATE ROLE nimble_door NOLOGIN NOSUPERUSER NOBYPASSRLS;
        END IF;
      END $$;
      REVOKE ALL ON SCHEMA public FROM PUBLIC;
      GRANT USAGE ON SCHEMA public TO nimble_web, nimble_door;
    SQL
    (shop_tables + %i[quote_seals quote_drafts idempotency_keys shop_counters]).each do |table|
      NimbleServer::Database.wall(self, table)
    end
    (frozen + [:quote_seals]).each { |table| run "GRANT SELECT, INSERT ON #{table} TO nimble_web" }
    %i[customers vehicles quotes quote_drafts shop_counters].each do |table|
      run "GRANT SELECT, INSERT, UPDATE ON #{table} TO nimble_web"
    end
    run "GRANT SELECT, INSERT, DELETE ON idempotency_keys TO nimble_web"
    run "ALTER TABLE shops ENABLE ROW LEVEL SECURITY"
    run "CREATE POLICY own_shop ON shops USING (id = nullif(current_setting('nimble.shop', true), '')::uuid)"
    run "GRANT SELECT ON shops TO nimble_web"
    run "ALTER TABLE accounts ENABLE ROW LEVEL SECURITY"
    run "CREATE POLICY own_shop ON accounts TO nimble_web " \
          "USING (shop_id = nullif(current_setting('nimble.shop', true), '')::uuid)"
    run "CREATE POLICY door ON accounts TO nimble_door USING (true)"
    run "GRANT SELECT (id, shop_id, email, status_id, name, role, created_at) ON accounts TO nimble_web"
    run "GRANT SELECT, UPDATE (password_hash) ON accounts TO nimble_door"
    %i[account_active_session_keys account_known_addresses counters].each do |table|
      run "GRANT SELECT, INSERT, UPDATE, DELETE ON #{table} TO nimble_door"
    end
  end

  down { raise Sequel::Error, "Going back would take the walls down." }
end
