# frozen_string_literal: true

# What a job in the bay comes to by what happened on it, and what that was, while it is above what was agreed: the
# Counter names it without working out every card.
Sequel.migration do
  up do
    alter_table(:jobs) do
      add_column :so_far_cents, :Bignum
      add_column :stopped, :jsonb
    end
    run "GRANT UPDATE (so_far_cents, stopped) ON jobs TO nimble_web"
  end

  down do
    alter_table(:jobs) do
      drop_column :stopped
      drop_column :so_far_cents
    end
  end
end
