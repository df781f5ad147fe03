# frozen_string_literal: true

# A shop that is not the demo: made once by whoever comes first, joined by invitation. Both go through functions that
# check what they do, so that the role at the door can neither make accounts nor shops by itself.
Sequel.migration do
  up do
    alter_table(:shops) { add_column :paper, String, null: false, default: "a4" }
    run "UPDATE shops SET paper = 'letter' WHERE locale = 'en-US'"
    run "ALTER TABLE shops ADD CONSTRAINT shops_paper CHECK (paper IN ('a4', 'letter'))"

    shop_table(:invitations) do
      citext :email, null: false
      String :role, null: false
      String :digest, null: false, unique: true
      column :expires_at, :timestamptz, null: false
      column :used_at, :timestamptz
      column :withdrawn_at, :timestamptz
      check(role: %w[owner advisor technician])
    end
    NimbleServer::Database.wall(self, :invitations)
    run "CREATE POLICY door ON invitations TO nimble_door USING (true)"
    run "GRANT SELECT, INSERT, UPDATE (withdrawn_at) ON invitations TO nimble_web"
    run "GRANT SELECT ON invitations TO nimble_door"
    run "CREATE POLICY door ON shops TO nimble_door USING (true)"
    run "GRANT SELECT (id, name, locale) ON shops TO nimble_door"
    run "GRANT UPDATE (role, status_id) ON accounts TO nimble_web"

    run <<~SQL
      CREATE FUNCTION any_shop() RETURNS boolean
        LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp
        AS $$ SELECT EXISTS (SELECT 1 FROM shops) $$;

      CREATE FUNCTION open_shop(shop jsonb, owner jsonb, settings jsonb, at timestamptz) RETURNS bigint
        LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
      DECLARE made uuid := gen_random_uuid(); account bigint;
      BEGIN
        PERFORM pg_advisory_xact_lock(hashtextextended('open_shop', 0));
        IF any_shop() THEN
          RETURN NULL;
        END IF;
        INSERT INTO shops (id, name, slug, locale, distance_unit, time_zone, paper, created_at)
          VALUES (made, shop->>'name', made::text, shop->>'locale', shop->>'distance_unit', shop->>'time_zone',
                  shop->>'paper', at);
        INSERT INTO accounts (shop_id, email, name, role, password_hash, created_at)
          VALUES (made, (owner->>'email')::citext, owner->>'name', 'owner', owner->>'password_hash', at)
          RETURNING id INTO account;
        INSERT INTO house_settings (shop_id, id, created_by, created_at, revision, settings)
          VALUES (made, gen_random_uuid(), account, at, 1,
                  jsonb_build_object('settings', settings, 'equipment', '[]'::jsonb));
        INSERT INTO price_lists (shop_id, id, created_by, created_at, revision, catalog)
          VALUES (made, gen_random_uuid(), account, at, 1,
                  '{"format": "nimble-ledger.catalog", "version": 1, "items": [], "offers": [], "shelf": []}'::jsonb);
        RETURN account;
      END $$;

      CREATE FUNCTION join_shop(token_digest text, person text, hash text, at timestamptz) RETURNS bigint
        LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
      DECLARE i invitations%ROWTYPE; account bigint;
      BEGIN
        SELECT * INTO i FROM invitations
          WHERE digest = token_digest AND used_at IS NULL AND withdrawn_at IS NULL AND expires_at > at FOR UPDATE;
        IF NOT FOUND THEN
          RETURN NULL;
        END IF;
        UPDATE invitations SET used_at = at WHERE shop_id = i.shop_id AND id = i.id;
        INSERT INTO accounts (shop_id, email, name, role, password_hash, created_at)
          VALUES (i.shop_id, i.email, person, i.role, hash, at) RETURNING id INTO account;
        RETURN account;
      END $$;

      REVOKE ALL ON FUNCTION any_shop(), open_shop(jsonb, jsonb, jsonb, timestamptz),
        join_shop(text, text, text, timestamptz) FROM PUBLIC;
      GRANT EXECUTE ON FUNCTION any_shop(), open_shop(jsonb, jsonb, jsonb, timestamptz),
        join_shop(text, text, text, timestamptz) TO nimble_door;
    SQL
  end

  down { raise Sequel::Error, "Going back would lose who was invited." }
end
