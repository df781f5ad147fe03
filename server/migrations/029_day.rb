# frozen_string_literal: true

# When? The shop's calendar (people, lunch, absences, closed dates, bays), revision by revision; what is booked, for
# whom, at which place of whose list, with what was promised; and every change of the board with its number, so that
# two who move at one moment are told of each other. A promise binds: each is a row that is never changed, witnessed as
# those of 028 are.
Sequel.migration do
  promise = %i[id booking_id serial pick_up chance created_by created_at]

  up do
    shop_table(:calendars) do
      Integer :revision, null: false
      column :content, :jsonb, null: false
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
      unique %i[shop_id revision]
    end

    shop_table(:bookings) do
      uuid :quote_id, null: false
      Integer :number, null: false # of the job's scenarios: no two on the board alike
      Bignum :person_id, null: false
      Integer :place, null: false # in that person's list
      String :arrives, null: false # the shop's wall clock, as all times here
      String :arrival, null: false, default: "cold"
      String :parts_at
      column :work, :jsonb, null: false # segments and time, what they were worked out from
      column :hold_until, :timestamptz # where nothing is agreed yet
      column :ended_at, :timestamptz
      String :called # what was said when the promise could not be kept
      check(arrival: %w[cold warm hot])
      foreign_key %i[shop_id quote_id], :quotes, key: %i[shop_id id]
      foreign_key %i[shop_id person_id], :accounts, key: %i[shop_id id]
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
    end
    run "CREATE UNIQUE INDEX bookings_once ON bookings (shop_id, quote_id) WHERE ended_at IS NULL"
    run "CREATE UNIQUE INDEX bookings_numbers ON bookings (shop_id, number) WHERE ended_at IS NULL"

    shop_table(:promises) do
      uuid :booking_id, null: false
      Bignum :serial, null: false # the newest of a booking is in force
      String :pick_up # nothing is promised any more where there is none
      Integer :chance # per cent, as it was when it was given
      foreign_key %i[shop_id booking_id], :bookings, key: %i[shop_id id]
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
      unique %i[shop_id booking_id serial]
    end

    shop_table(:board_changes) do
      Integer :version, null: false
      String :what, null: false
      column :detail, :jsonb, null: false
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
      unique %i[shop_id version]
    end

    %i[calendars bookings promises board_changes].each do |table|
      NimbleServer::Database.wall(self, table)
      run "GRANT SELECT, INSERT ON #{table} TO nimble_web"
    end
    run "GRANT UPDATE (person_id, place, arrives, arrival, parts_at, work, hold_until, " \
          "ended_at, called) ON bookings TO nimble_web"
    %w[calendars promises board_changes].each do |table|
      run "CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON #{table} " \
            "FOR EACH ROW EXECUTE FUNCTION refuse_change()"
      run "CREATE TRIGGER append_only_whole BEFORE TRUNCATE ON #{table} " \
            "FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()"
    end

    changed = promise.map { |name| %(OLD."#{name}" IS DISTINCT FROM NEW."#{name}") }.join(" OR ")
    note = ->(row) do
      "INSERT INTO record_touched (shop_id, xact, relation, key) VALUES (#{row}.shop_id, " \
        "pg_current_xact_id()::text::bigint, 'promises', #{row}.id::text) ON CONFLICT DO NOTHING;"
    end
    run <<~SQL
      CREATE FUNCTION witness_promises() RETURNS trigger
        LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
      BEGIN
        IF TG_OP <> 'INSERT' THEN #{note.call("OLD")} END IF;
        IF TG_OP <> 'DELETE' THEN #{note.call("NEW")} END IF;
        RETURN NULL;
      END $$;
      CREATE TRIGGER witness AFTER INSERT OR DELETE ON promises FOR EACH ROW EXECUTE FUNCTION witness_promises();
      CREATE TRIGGER witness_change AFTER UPDATE ON promises FOR EACH ROW WHEN (#{changed})
        EXECUTE FUNCTION witness_promises();
    SQL
  end

  down do
    %i[board_changes promises bookings calendars].each { |table| drop_table(table) }
    run "DROP FUNCTION witness_promises()"
  end
end
