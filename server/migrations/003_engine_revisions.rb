# frozen_string_literal: true

# A quote keeps the engine revision it was started with; importing a newer one changes nothing behind its back.
Sequel.migration do
  up do
    alter_table(:quotes) { add_column :engine_profile_id, :uuid }
    run <<~SQL
      UPDATE quotes SET engine_profile_id = coalesce(
        (SELECT engine_profile_id FROM quote_revisions r
          WHERE r.shop_id = quotes.shop_id AND r.quote_id = quotes.id ORDER BY revision DESC LIMIT 1),
        (SELECT e.id FROM engine_profiles e JOIN vehicles v ON v.shop_id = e.shop_id AND v.engine_code = e.code
         WHERE v.shop_id = quotes.shop_id AND v.id = quotes.vehicle_id ORDER BY e.revision DESC LIMIT 1))
    SQL
    alter_table(:quotes) do
      set_column_not_null :engine_profile_id
      add_foreign_key %i[shop_id engine_profile_id], :engine_profiles, key: %i[shop_id id]
    end
  end

  down { raise Sequel::Error, "Going back would drop which engine revision each quote was made with." }
end
