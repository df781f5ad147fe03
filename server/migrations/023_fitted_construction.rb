# frozen_string_literal: true

# A posted plug was filed under the construction of its engine's catalog plug, though its chances were worked out for
# what was fitted. Where the frozen card says one construction for the whole car, entries posted before are put right.
Sequel.migration do
  up do
    run "ALTER TABLE ledger_entries DISABLE TRIGGER append_only"
    run <<~SQL
      UPDATE ledger_entries e
      SET entry = jsonb_set(e.entry, '{plugs}', (
        SELECT coalesce(jsonb_agg(plug || jsonb_build_object('construction', c.fitted)), '[]'::jsonb)
        FROM jsonb_array_elements(e.entry -> 'plugs') plug))
      FROM (
        SELECT DISTINCT ON (shop_id, job_id) shop_id, job_id, request #>> '{history,fitted,construction}' AS fitted,
          coalesce(request #> '{history,cylinders}', '{}'::jsonb)::text AS cylinders
        FROM job_cards ORDER BY shop_id, job_id, revision DESC) c
      WHERE e.shop_id = c.shop_id AND e.key = 'job:' || c.job_id AND e.source = 'job'
        AND jsonb_typeof(e.entry -> 'plugs') = 'array' AND c.fitted IS NOT NULL AND c.cylinders NOT LIKE '%"fitted"%'
    SQL
    run "ALTER TABLE ledger_entries ENABLE TRIGGER append_only"
  end

  down { raise Sequel::Error, "What was put right stays right." }
end
