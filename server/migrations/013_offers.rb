# frozen_string_literal: true

# What was offered to whom, and what they said (model.md section 14). An offer is one saved revision, sent, read out or
# printed; its scopes and the answers to them are only ever added. A yes opens the job. Questions land on the Counter.
# Messages wait in the outbox for their own small process, which sees messages and nothing else.
Sequel.migration do
  up do
    shop_table(:offers) do
      uuid :quote_id, null: false
      uuid :revision_id, null: false
      uuid :job_id # of a supplement
      String :recipient, null: false
      String :channel, null: false
      String :address, null: false, default: ""
      String :language, null: false
      String :token_digest, null: false, unique: true
      column :expires_at, :timestamptz, null: false
      column :link_revoked_at, :timestamptz
      column :superseded_at, :timestamptz
      column :seen_at, :timestamptz
      check(channel: %w[text mail phone paper])
      foreign_key %i[shop_id quote_id], :quotes, key: %i[shop_id id]
      foreign_key %i[shop_id revision_id], :quote_revisions, key: %i[shop_id id]
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
      index %i[shop_id quote_id]
    end
    run "CREATE INDEX offers_waiting ON offers (shop_id, created_at) WHERE superseded_at IS NULL"

    create_table(:offer_scopes) do
      uuid :shop_id, null: false
      uuid :offer_id, null: false
      Integer :position, null: false
      uuid :scope_id, null: false
      String :title, null: false
      Bignum :total_cents, null: false
      Bignum :limit_cents, null: false
      Bignum :agreed_before_cents, null: false, default: 0
      primary_key %i[shop_id offer_id position]
      foreign_key %i[shop_id offer_id], :offers, key: %i[shop_id id]
      foreign_key %i[shop_id scope_id], :quote_scopes, key: %i[shop_id id]
    end

    shop_table(:offer_answers) do
      uuid :offer_id, null: false
      Integer :position, null: false
      String :answer, null: false
      String :how, null: false
      String :name, null: false
      Bignum :limit_cents
      String :reason, null: false, default: ""
      check(answer: %w[yes no])
      check(how: %w[in-person phone link paper])
      foreign_key %i[shop_id offer_id position], :offer_scopes, key: %i[shop_id offer_id position]
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
      unique %i[shop_id offer_id position]
    end

    shop_table(:offer_questions) do
      uuid :offer_id, null: false
      String :words, null: false
      column :settled_at, :timestamptz
      Bignum :settled_by
      foreign_key %i[shop_id offer_id], :offers, key: %i[shop_id id]
      foreign_key %i[shop_id settled_by], :accounts, key: %i[shop_id id]
    end
    run "CREATE INDEX offer_questions_open ON offer_questions (shop_id, created_at) WHERE settled_at IS NULL"

    shop_table(:jobs) do
      Bignum :number, null: false
      uuid :quote_id, null: false
      String :title, null: false
      Bignum :agreed_cents, null: false
      Bignum :limit_cents, null: false
      String :currency, null: false
      String :search, null: false, default: ""
      column :updated_at, :timestamptz, null: false
      foreign_key %i[shop_id quote_id], :quotes, key: %i[shop_id id]
      unique %i[shop_id number]
      unique %i[shop_id quote_id]
    end
    run "ALTER TABLE offers ADD CONSTRAINT offers_job FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id)"

    shop_table(:messages) do
      uuid :offer_id, null: false
      String :channel, null: false
      String :address, null: false
      String :subject, null: false, default: ""
      String :body, null: false
      String :state, null: false, default: "queued"
      Integer :tries, null: false, default: 0
      String :problem, null: false, default: ""
      column :next_try_at, :timestamptz, null: false
      column :updated_at, :timestamptz, null: false
      check(channel: %w[text mail])
      check(state: %w[queued sending delivered failed bounced])
      foreign_key %i[shop_id offer_id], :offers, key: %i[shop_id id]
      unique %i[shop_id offer_id channel address]
    end
    run "CREATE INDEX messages_due ON messages (next_try_at) WHERE state IN ('queued', 'sending')"

    # What has left this house, as the stand-in for the carriers keeps it: one line for one message, however often the
    # process before it was stopped.
    create_table(:carried) do
      uuid :message_id, primary_key: true
      column :at, :timestamptz, null: false
    end

    %i[offers offer_scopes offer_answers offer_questions jobs messages].each do |table|
      NimbleServer::Database.wall(self, table)
    end
    %i[offer_scopes offer_answers].each do |table|
      run "CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON #{table} " \
            "FOR EACH ROW EXECUTE FUNCTION refuse_change()"
      run "CREATE TRIGGER append_only_whole BEFORE TRUNCATE ON #{table} " \
            "FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()"
    end
    run <<~SQL
      GRANT SELECT, INSERT, UPDATE (link_revoked_at, superseded_at, seen_at) ON offers TO nimble_web;
      GRANT SELECT, INSERT ON offer_scopes, offer_answers TO nimble_web;
      GRANT SELECT, INSERT, UPDATE (settled_at, settled_by) ON offer_questions TO nimble_web;
      GRANT SELECT, INSERT, UPDATE (title, agreed_cents, limit_cents, updated_at) ON jobs TO nimble_web;
      GRANT SELECT, INSERT ON messages TO nimble_web;
      GRANT UPDATE (state, tries, problem, next_try_at, updated_at) ON messages TO nimble_web;

      DO $$ BEGIN
        IF NOT EXISTS (SELECT 1 FROM pg_roles WHERE rolname = 'nimble_post') THEN
          CREATE ROLE nimble_post NOLOGIN NOSUPERUSER NOBYPASSRLS;
        END IF;
      END $$;
      GRANT USAGE ON SCHEMA public TO nimble_post;
      CREATE POLICY post ON messages TO nimble_post USING (true) WITH CHECK (true);
      GRANT SELECT, UPDATE (state, tries, problem, next_try_at, updated_at) ON messages TO nimble_post;
      GRANT SELECT, INSERT ON carried TO nimble_post;

      CREATE FUNCTION offer_of_link(digest text) RETURNS TABLE (shop_id uuid, id uuid)
        LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp
        AS $$ SELECT o.shop_id, o.id FROM offers o WHERE o.token_digest = digest $$;
      REVOKE ALL ON FUNCTION offer_of_link(text) FROM PUBLIC;
      GRANT EXECUTE ON FUNCTION offer_of_link(text) TO nimble_door;
    SQL

    # Like quotes_found (migration 011): with the owner's eyes, in the shop that is said.
    run <<~SQL
      CREATE INDEX jobs_search ON jobs USING gin (search gin_trgm_ops);
      CREATE FUNCTION jobs_found(patterns text[], at_most integer) RETURNS SETOF uuid
        LANGUAGE plpgsql STABLE SECURITY DEFINER SET search_path = public, pg_temp
        AS $$
        BEGIN
          RETURN QUERY EXECUTE format(
            'SELECT id FROM jobs WHERE shop_id = %L::uuid AND %s ORDER BY updated_at DESC, id LIMIT %s',
            nullif(current_setting('nimble.shop', true), ''),
            (SELECT coalesce(string_agg(format('search LIKE %L', pattern), ' AND '), 'true')
               FROM unnest(patterns) pattern),
            at_most
          );
        END $$;
      REVOKE ALL ON FUNCTION jobs_found(text[], integer) FROM PUBLIC;
      GRANT EXECUTE ON FUNCTION jobs_found(text[], integer) TO nimble_web;
    SQL

    alter_table(:customers) do
      add_column :wishes, String
      add_column :merged_into, :uuid
    end
  end

  down { raise Sequel::Error, "Going back would lose what was agreed." }
end
