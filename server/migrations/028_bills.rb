# frozen_string_literal: true

# Bills, credit notes and what was paid (model.md section 16). A bill is issued once, with the next number of the shop's
# gapless row, and never changed: it is put right by a credit note. A payment noted twice by a retry is one.
Sequel.migration do
  bound = {
    bills: %i[
      number
      kind
      job_id
      credits_id
      issued_on
      supplied_on
      due_on
      payer
      address
      reason
      request
      answer
      currency
      currency_exponent
      total_cents
      created_by
      created_at
    ],
    payments: %i[job_id on means cents note key created_by created_at]
  }

  up do
    shop_table(:bills) do
      Bignum :number, null: false
      String :kind, null: false
      uuid :job_id, null: false
      uuid :credits_id # the bill that a credit note puts right
      Date :issued_on, null: false
      Date :supplied_on, null: false
      Date :due_on, null: false
      String :payer, null: false
      String :address, null: false, default: ""
      String :reason, null: false, default: ""
      column :request, :jsonb, null: false
      column :answer, :jsonb, null: false
      String :currency, null: false
      Integer :currency_exponent, null: false
      Bignum :total_cents, null: false
      check(kind: %w[bill credit-note])
      foreign_key %i[shop_id job_id], :jobs, key: %i[shop_id id]
      foreign_key %i[shop_id credits_id], :bills, key: %i[shop_id id]
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
      unique %i[shop_id number]
      unique %i[shop_id credits_id]
      index %i[shop_id job_id]
    end
    shop_table(:payments) do
      uuid :job_id, null: false
      Date :on, null: false
      String :means, null: false
      Bignum :cents, null: false
      String :note, null: false, default: ""
      String :key, null: false
      check(means: %w[cash card bank other])
      constraint(:payments_some) { cents !~ 0 }
      foreign_key %i[shop_id job_id], :jobs, key: %i[shop_id id]
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
      unique %i[shop_id key]
      index %i[shop_id job_id]
    end

    bound.each do |table, columns|
      NimbleServer::Database.wall(self, table)
      run "GRANT SELECT, INSERT ON #{table} TO nimble_web"
      run "CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON #{table} " \
            "FOR EACH ROW EXECUTE FUNCTION refuse_change()"
      run "CREATE TRIGGER append_only_whole BEFORE TRUNCATE ON #{table} " \
            "FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()"
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
  end

  down do
    drop_table(:payments)
    drop_table(:bills)
    %w[bills payments].each { |table| run "DROP FUNCTION witness_#{table}()" }
  end
end
