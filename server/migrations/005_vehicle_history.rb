# frozen_string_literal: true

# What plugs sit in a car, and who last noted something about it.
Sequel.migration do
  up do
    alter_table(:vehicles) do
      add_column :plug_fitted, String
      add_column :updated_by, :bigint
      add_column :updated_at, :timestamptz
      add_foreign_key [:updated_by], :accounts
    end
  end

  down { raise Sequel::Error, "Going back would drop what was noted about the cars." }
end
