# frozen_string_literal: true

# Quote (number from a locked counter row) -> revisions (append-only) -> scopes -> lines; one working copy per quote
# and user, with a version.
Sequel.migration do
  up do
    shop_table(:quotes) do
      Bignum :number, null: false
      uuid :vehicle_id, null: false
      String :status, null: false, default: "open"
      Integer :latest_revision, null: false, default: 0
      Bignum :total_cents
      String :currency
      String :summary, null: false, default: ""
      column :search, :text, null: false, default: ""
      column :updated_at, :timestamptz, null: false
      foreign_key %i[shop_id vehicle_id], :vehicles, key: %i[shop_id id]
      unique %i[shop_id number]
    end
    run "CREATE INDEX quotes_latest ON quotes (shop_id, updated_at DESC, id)"
    run "CREATE INDEX quotes_search ON quotes USING gin (search gin_trgm_ops)"

    shop_table(:quote_revisions) do
      uuid :quote_id, null: false
      Integer :revision, null: false
      Integer :rules, null: false
      uuid :engine_profile_id, null: false
      uuid :price_list_id, null: false
      uuid :house_settings_id, null: false
      jsonb :content, null: false
      String :currency, null: false
      Integer :currency_exponent, null: false
      Bignum :total_cents
      foreign_key %i[shop_id quote_id], :quotes, key: %i[shop_id id]
      foreign_key %i[shop_id engine_profile_id], :engine_profiles, key: %i[shop_id id]
      foreign_key %i[shop_id price_list_id], :price_lists, key: %i[shop_id id]
      foreign_key %i[shop_id house_settings_id], :house_settings, key: %i[shop_id id]
      unique %i[shop_id quote_id revision]
    end

    shop_table(:quote_scopes) do
      uuid :revision_id, null: false
      Integer :position, null: false
      String :name, null: false
      jsonb :request, null: false
      jsonb :answer, null: false
      jsonb :page, null: false
      Integer :quoted_tenths, null: false
      Bignum :total_cents, null: false
      foreign_key %i[shop_id revision_id], :quote_revisions, key: %i[shop_id id]
      unique %i[shop_id revision_id position]
    end

    shop_table(:quote_lines) do
      uuid :scope_id, null: false
      Integer :position, null: false
      String :kind, null: false
      String :label, null: false
      String :part
      BigDecimal :quantity, null: false
      Bignum :unit_cents, null: false
      Bignum :cents, null: false
      foreign_key %i[shop_id scope_id], :quote_scopes, key: %i[shop_id id]
      unique %i[shop_id scope_id position]
    end

    create_table(:quote_drafts) do
      uuid :shop_id, null: false
      uuid :quote_id, null: false
      foreign_key :account_id, :accounts, type: :Bignum, null: false
      Integer :version, null: false, default: 1
      Integer :base_revision, null: false, default: 0
      jsonb :content, null: false
      column :updated_at, :timestamptz, null: false
      primary_key %i[shop_id quote_id account_id]
      foreign_key %i[shop_id quote_id], :quotes, key: %i[shop_id id]
    end

    create_table(:idempotency_keys) do
      uuid :shop_id, null: false
      Bignum :account_id, null: false
      String :key, null: false
      String :route, null: false
      Integer :status, null: false
      jsonb :body, null: false
      column :created_at, :timestamptz, null: false
      primary_key %i[shop_id account_id key]
    end

    run <<~SQL
      CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
      BEGIN
        RAISE EXCEPTION '% is append-only: what a customer was shown stays as it was', TG_TABLE_NAME;
      END $$;
    SQL
    %i[quote_revisions quote_scopes quote_lines engine_profiles price_lists house_settings].each do |table|
      run "CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON #{table} FOR EACH ROW EXECUTE FUNCTION refuse_change()"
      run "CREATE TRIGGER append_only_whole BEFORE TRUNCATE ON #{table} " \
            "FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()"
    end
  end

  down { raise Sequel::Error, "Going back would drop the shop's quotes." }
end
