# frozen_string_literal: true

# What holds for this car's plugs whatever its engine's profile says: the gap it was set up for, a note on the torque.
Sequel.migration do
  up { alter_table(:vehicles) { add_column :plug_notes, :jsonb } }
  down { alter_table(:vehicles) { drop_column :plug_notes } }
end
