# frozen_string_literal: true

# What a customer is told by itself: the day before, when the car is ready, when it will be later. A letter of a kind
# may go out again, for another day or another promise: which of them it is stands in nth.
Sequel.migration do
  up do
    alter_table(:messages) do
      add_column :nth, :bigint, null: false, default: 0
      drop_constraint :messages_kind
      add_constraint(:messages_kind, kind: %w[offer struck called-off reminder ready late])
    end
    run "ALTER TABLE messages DROP CONSTRAINT messages_once"
    run "ALTER TABLE messages ADD CONSTRAINT messages_once UNIQUE (shop_id, offer_id, channel, address, kind, nth)"
  end

  down { raise Sequel::Error, "What customers were told would be lost." }
end
