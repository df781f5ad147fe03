# frozen_string_literal: true

# Everything that binds somebody stands in the record by its digest (features/record/bindings.rb). A row that is made,
# changed or taken away is noted here for as long as its transaction runs; before it ends, the act that did it takes the
# notes into the record. The web process cannot leave one behind.
#
# Opening the first shop and joining one are acts of the record too: they are done by the role that serves, through the
# functions that check them, and no longer by the one at the door.
Sequel.migration do
  # Table, the column that names what is witnessed, the columns that bind.
  witnessed = {
    shops: [:id, %i[name slug locale distance_unit time_zone paper demo created_at]],
    accounts: [:id, %i[email status_id name role created_at]],
    invitations: [:id, %i[email role digest expires_at used_at withdrawn_at created_by created_at]],
    customers: [:id, %i[name phone email wishes merged_into created_by created_at]],
    vehicles: [
      :id,
      %i[
        plate
        description
        year
        engine_code
        customer_id
        maker_number
        odometer_km
        plugs_changed_km
        plugs_changed_on
        compound_used
        plug_fitted
        fitted
        cylinders
        variants
        created_by
        created_at
      ]
    ],
    odometer_readings: [:id, %i[vehicle_id km reason created_by created_at]],
    former_owners: [:id, %i[vehicle_id customer_id created_by created_at]],
    fittings: [:id, %i[vehicle_id work cylinder km on ours by withdrawn_at created_by created_at]],
    engine_profiles: [:id, %i[code revision profile why created_by created_at]],
    price_lists: [:id, %i[revision catalog created_by created_at]],
    house_settings: [:id, %i[revision settings created_by created_at]],
    quotes: [:id, %i[number vehicle_id latest_revision total_cents currency created_by created_at]],
    quote_revisions: [
      :id,
      %i[
        quote_id
        revision
        rules
        engine_profile_id
        price_list_id
        house_settings_id
        content
        currency
        currency_exponent
        total_cents
        draft_version
        created_by
        created_at
      ]
    ],
    quote_scopes: [
      :revision_id,
      %i[id position name request answer page quoted_tenths total_cents created_by created_at]
    ],
    quote_lines: [:scope_id, %i[id position kind label part quantity unit_cents cents created_by created_at]],
    quote_seals: [:revision_id, %i[bytes sha256 created_at]],
    offers: [
      :id,
      %i[
        quote_id
        revision_id
        job_id
        recipient
        channel
        address
        language
        token_digest
        expires_at
        link_revoked_at
        superseded_at
        created_by
        created_at
      ]
    ],
    offer_scopes: [:offer_id, %i[position scope_id title total_cents limit_cents agreed_before_cents]],
    offer_answers: [:id, %i[offer_id position answer how name limit_cents reason created_by created_at]],
    offer_questions: [:id, %i[offer_id words settled_at settled_by created_by created_at]],
    messages: [:id, %i[offer_id channel address subject body created_by created_at]],
    jobs: [
      :id,
      %i[number quote_id title agreed_cents limit_cents currency finished_at handed_over_at created_by created_at]
    ],
    job_cards: [:id, %i[job_id revision agreed request sheet created_by created_at]],
    job_pictures: [:id, %i[job_id type width height bytes created_by created_at]],
    ledger_entries: [:id, %i[key source finished_at entry billed_cents parts against why created_by created_at]],
    ledger_lessons: [:id, %i[number act state lesson in_force created_by created_at]]
  }

  up do
    create_table(:record_touched) do
      uuid :shop_id, null: false
      Bignum :xact, null: false
      String :relation, null: false
      String :key, null: false
      primary_key %i[shop_id xact relation key]
    end
    NimbleServer::Database.wall(self, :record_touched)
    run "GRANT SELECT, DELETE ON record_touched TO nimble_web"
    run <<~SQL
      CREATE FUNCTION must_be_recorded() RETURNS trigger LANGUAGE plpgsql AS $$
      BEGIN
        IF session_user = 'nimble_web' AND EXISTS (SELECT 1 FROM record_touched t WHERE t.shop_id = NEW.shop_id
            AND t.xact = NEW.xact AND t.relation = NEW.relation AND t.key = NEW.key) THEN
          RAISE EXCEPTION '%: what binds somebody goes into the record in the transaction that does it', NEW.relation;
        END IF;
        RETURN NULL;
      END $$;
      CREATE CONSTRAINT TRIGGER recorded AFTER INSERT ON record_touched DEFERRABLE INITIALLY DEFERRED
        FOR EACH ROW EXECUTE FUNCTION must_be_recorded();
    SQL

    witnessed.each do |table, (key, columns)|
      shop = table == :shops ? "id" : "shop_id"
      note = ->(row) do
        "INSERT INTO record_touched (shop_id, xact, relation, key) VALUES (#{row}.#{shop}, " \
          "pg_current_xact_id()::text::bigint, '#{table}', #{row}.#{key}::text) ON CONFLICT DO NOTHING;"
      end
      changed = [key, *columns].map { |name| %(OLD."#{name}" IS DISTINCT FROM NEW."#{name}") }.join(" OR ")
      run <<~SQL
        CREATE FUNCTION witness_#{table}() RETURNS trigger
          LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
        BEGIN
          IF TG_OP <> 'INSERT' THEN #{note.call("OLD")} END IF;
          IF TG_OP <> 'DELETE' THEN #{note.call("NEW")} END IF;
          RETURN NULL;
        END $$;
        CREATE TRIGGER witness AFTER INSERT OR DELETE ON #{table} FOR EACH ROW EXECUTE FUNCTION witness_#{table}();
        CREATE TRIGGER witness_change AFTER UPDATE ON #{table} FOR EACH ROW WHEN (#{changed})
          EXECUTE FUNCTION witness_#{table}();
      SQL
    end

    # The same as before (008), in the shop that the caller says it is opening or joining.
    run "DROP FUNCTION open_shop(jsonb, jsonb, jsonb, timestamptz)"
    run <<~SQL
      CREATE FUNCTION open_shop(made uuid, shop jsonb, owner jsonb, settings jsonb, at timestamptz) RETURNS bigint
        LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
      DECLARE account bigint;
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
      REVOKE ALL ON FUNCTION open_shop(uuid, jsonb, jsonb, jsonb, timestamptz) FROM PUBLIC;
      REVOKE EXECUTE ON FUNCTION join_shop(text, text, text, timestamptz) FROM nimble_door;
      GRANT EXECUTE ON FUNCTION open_shop(uuid, jsonb, jsonb, jsonb, timestamptz),
        join_shop(text, text, text, timestamptz) TO nimble_web;
    SQL
  end

  down { raise Sequel::Error, "Going back would let what binds be changed unseen." }
end
