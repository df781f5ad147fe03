# frozen_string_literal: true

# The bay: who works on a job and where, what its card shows (frozen as it was agreed), the marks made on it, pictures,
# and what somebody has to look at again. Work under warranty is a line of its own kind.
Sequel.migration do
  up do
    known = "'labor', 'part', 'consumable', 'supplies', 'fee', 'discount', 'tax', 'diagnosis', 'warranty'"
    run "ALTER TABLE quote_lines DROP CONSTRAINT quote_lines_kind"
    run "ALTER TABLE quote_lines ADD CONSTRAINT quote_lines_kind CHECK (kind IN (#{known}))"

    alter_table(:jobs) do
      add_column :technician_id, :Bignum
      add_column :bay, String, null: false, default: ""
      add_column :arrival, String
      add_column :arrived_at, :timestamptz
      add_column :started_at, :timestamptz
      add_column :finished_at, :timestamptz
      add_column :handed_over_at, :timestamptz
      add_column :actuals, :jsonb
    end
    run "ALTER TABLE jobs ADD CONSTRAINT jobs_arrival CHECK (arrival IN ('cold', 'warm', 'hot'))"
    run "ALTER TABLE jobs ADD CONSTRAINT jobs_technician FOREIGN KEY (technician_id) REFERENCES accounts (id)"

    shop_table(:job_cards) do
      uuid :job_id, null: false
      Integer :revision, null: false
      String :agreed, null: false
      jsonb :request, null: false
      jsonb :sheet, null: false
      foreign_key %i[shop_id job_id], :jobs, key: %i[shop_id id]
      unique %i[shop_id job_id revision]
    end

    create_table(:job_marks) do
      uuid :shop_id, null: false
      uuid :job_id, null: false
      String :id, null: false
      String :device, null: false
      column :at, :timestamptz, null: false
      jsonb :mark, null: false
      foreign_key :created_by, :accounts, type: :Bignum
      column :created_at, :timestamptz, null: false
      primary_key %i[shop_id job_id id]
      foreign_key %i[shop_id job_id], :jobs, key: %i[shop_id id]
    end

    shop_table(:job_pictures) do
      uuid :job_id, null: false
      String :type, null: false
      Integer :width, null: false
      Integer :height, null: false
      File :bytes, null: false
      foreign_key %i[shop_id job_id], :jobs, key: %i[shop_id id]
      check(type: %w[image/jpeg image/png image/webp])
    end

    shop_table(:follow_ups) do
      uuid :vehicle_id, null: false
      uuid :job_id
      Date :on, null: false
      String :words, null: false
      column :settled_at, :timestamptz
      foreign_key :settled_by, :accounts, type: :Bignum
      foreign_key %i[shop_id vehicle_id], :vehicles, key: %i[shop_id id]
      foreign_key %i[shop_id job_id], :jobs, key: %i[shop_id id]
    end
    run "CREATE INDEX follow_ups_open ON follow_ups (shop_id, \"on\") WHERE settled_at IS NULL"

    %i[job_cards job_marks job_pictures follow_ups].each { |table| NimbleServer::Database.wall(self, table) }
    %i[job_cards job_marks job_pictures].each do |table|
      run "CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON #{table} " \
            "FOR EACH ROW EXECUTE FUNCTION refuse_change()"
      run "CREATE TRIGGER append_only_whole BEFORE TRUNCATE ON #{table} " \
            "FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()"
    end
    run <<~SQL
      GRANT SELECT, INSERT ON job_cards, job_marks, job_pictures TO nimble_web;
      GRANT SELECT, INSERT, UPDATE (settled_at, settled_by) ON follow_ups TO nimble_web;
      GRANT UPDATE (technician_id, bay, arrival, arrived_at, started_at, finished_at, handed_over_at, actuals)
        ON jobs TO nimble_web;
    SQL
  end

  down { raise Sequel::Error, "Going back would lose what was done in the bay." }
end
