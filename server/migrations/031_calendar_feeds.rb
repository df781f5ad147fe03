# frozen_string_literal: true

# Calendars that phones and other programs subscribe to: one of the shop, one of each person, behind a secret link that
# can be withdrawn. The database holds the link's digest only.
Sequel.migration do
  up do
    shop_table(:calendar_feeds) do
      Bignum :person_id # the whole shop's where there is none
      String :digest, null: false, unique: true
      column :withdrawn_at, :timestamptz
      foreign_key %i[shop_id person_id], :accounts, key: %i[shop_id id]
      foreign_key %i[shop_id created_by], :accounts, key: %i[shop_id id]
    end
    NimbleServer::Database.wall(self, :calendar_feeds)
    run "GRANT SELECT, INSERT ON calendar_feeds TO nimble_web"
    run "GRANT UPDATE (withdrawn_at) ON calendar_feeds TO nimble_web"
    run <<~SQL
      CREATE FUNCTION feed_of_link(digest text) RETURNS TABLE (shop_id uuid, id uuid)
        LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp
        AS $$ SELECT f.shop_id, f.id FROM calendar_feeds f WHERE f.digest = $1 AND f.withdrawn_at IS NULL $$;
      REVOKE ALL ON FUNCTION feed_of_link(text) FROM PUBLIC;
      GRANT EXECUTE ON FUNCTION feed_of_link(text) TO nimble_door;
    SQL
  end

  down do
    run "DROP FUNCTION feed_of_link(text)"
    drop_table(:calendar_feeds)
  end
end
