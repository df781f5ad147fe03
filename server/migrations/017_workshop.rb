# frozen_string_literal: true

# Engines under the pencil: one draft of an engine for the whole shop, with a version; and why a revision was made.
Sequel.migration do
  up do
    alter_table(:engine_profiles) { add_column :why, String, null: false, default: "" }

    shop_table(:engine_drafts) do
      String :code, null: false
      Integer :base_revision
      String :began, null: false
      jsonb :profile, null: false
      Integer :version, null: false
      column :updated_at, :timestamptz, null: false
      foreign_key :updated_by, :accounts, type: :Bignum
      unique %i[shop_id code]
    end
    NimbleServer::Database.wall(self, :engine_drafts)
    run <<~SQL
      GRANT SELECT, INSERT, DELETE, UPDATE (code, profile, version, updated_at, updated_by)
        ON engine_drafts TO nimble_web;
    SQL
  end

  down { raise Sequel::Error, "Going back would lose why engines were changed." }
end
