# frozen_string_literal: true

# A car as it is: what its engine's variants were answered with, what plugs are fitted, and what was done to which
# cylinder.
Sequel.migration do
  up do
    alter_table(:vehicles) do
      add_column :variants, :jsonb, null: false, default: Sequel.lit("'{}'::jsonb")
      add_column :fitted, :jsonb
      add_column :cylinders, :jsonb, null: false, default: Sequel.lit("'{}'::jsonb")
    end
  end

  down do
    alter_table(:vehicles) do
      drop_column :variants
      drop_column :fitted
      drop_column :cylinders
    end
  end
end
