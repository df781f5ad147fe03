# frozen_string_literal: true

# What was said is never taken out of the record, but it can be taken back: a yes that was given by mistake is struck
# beside itself, a job the customer no longer wants is called off and may be taken up again. Both bind (021). A
# quote nobody wants in sight is put away; a no is marked as read. A letter is of a kind, so that what is said later of
# an offer goes out beside what was said first.
Sequel.migration do
  taken_back = {
    struck_answers: %i[offer_id position reason called_off_id undone_at undone_by created_by created_at],
    called_off_jobs: %i[job_id reason struck undone_at undone_by created_by created_at]
  }

  up do
    shop_table(:called_off_jobs) do
      uuid :job_id, null: false
      String :reason, null: false
      TrueClass :struck, null: false # nobody called it off: its only yes was a mistake
      column :undone_at, :timestamptz
      Bignum :undone_by
      foreign_key %i[shop_id job_id], :jobs, key: %i[shop_id id]
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
    end
    run "CREATE UNIQUE INDEX called_off_jobs_once ON called_off_jobs (shop_id, job_id) WHERE undone_at IS NULL"

    shop_table(:struck_answers) do
      uuid :offer_id, null: false
      Integer :position, null: false
      String :reason, null: false
      uuid :called_off_id # together with a job that was called off
      column :undone_at, :timestamptz
      Bignum :undone_by
      foreign_key %i[shop_id offer_id position], :offer_scopes, key: %i[shop_id offer_id position]
      foreign_key %i[shop_id called_off_id], :called_off_jobs, key: %i[shop_id id]
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
    end
    run "CREATE UNIQUE INDEX struck_answers_once ON struck_answers (shop_id, offer_id, position) " \
          "WHERE undone_at IS NULL"

    taken_back.each do |table, columns|
      NimbleServer::Database.wall(self, table)
      run "GRANT SELECT, INSERT, UPDATE (undone_at, undone_by) ON #{table} TO nimble_web"
      changed = [:id, *columns].map { |name| %(OLD."#{name}" IS DISTINCT FROM NEW."#{name}") }.join(" OR ")
      note = ->(row) do
        "INSERT INTO record_touched (shop_id, xact, relation, key) VALUES (#{row}.shop_id, " \
          "pg_current_xact_id()::text::bigint, '#{table}', #{row}.id::text) ON CONFLICT DO NOTHING;"
      end
      run <<~SQL
        CREATE FUNCTION witness_#{table}() RETURNS trigger
          LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
        BEGIN
          IF TG_OP <> 'INSERT' THEN #{note.call("OLD")} END IF;
          IF TG_OP <> 'DELETE' THEN #{note.call("NEW")} END IF;
          RETURN NULL;
        END $$;
        CREATE TRIGGER witness AFTER INSERT OR DELETE ON #{table} FOR EACH ROW EXECUTE FUNCTION witness_#{table}();
        CREATE TRIGGER witness_change AFTER UPDATE ON #{table} FOR EACH ROW WHEN (#{changed})
          EXECUTE FUNCTION witness_#{table}();
      SQL
    end

    alter_table(:jobs) { add_column :called_off_at, :timestamptz }
    alter_table(:offers) { add_column :no_read_at, :timestamptz }
    alter_table(:quotes) { add_column :put_away_at, :timestamptz }
    alter_table(:messages) do
      add_column :kind, String, null: false, default: "offer"
      add_constraint(:messages_kind, kind: %w[offer struck called-off])
    end
    run "ALTER TABLE messages DROP CONSTRAINT messages_shop_id_offer_id_channel_address_key"
    run "ALTER TABLE messages ADD CONSTRAINT messages_once UNIQUE (shop_id, offer_id, channel, address, kind)"
    run "GRANT UPDATE (called_off_at) ON jobs TO nimble_web"
    run "GRANT UPDATE (no_read_at) ON offers TO nimble_web"
    run "GRANT UPDATE (put_away_at) ON quotes TO nimble_web"
  end

  down { raise Sequel::Error, "What was taken back would stand again unseen." }
end
