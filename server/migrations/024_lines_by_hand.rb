# frozen_string_literal: true

# Other work and free parts by hand are lines of a kind of their own.
Sequel.migration do
  up do
    known = "'labor', 'part', 'by-hand', 'consumable', 'supplies', 'fee', 'discount', 'tax', 'diagnosis', 'warranty'"
    run "ALTER TABLE quote_lines DROP CONSTRAINT quote_lines_kind"
    run "ALTER TABLE quote_lines ADD CONSTRAINT quote_lines_kind CHECK (kind IN (#{known}))"
  end

  down do
    known = "'labor', 'part', 'consumable', 'supplies', 'fee', 'discount', 'tax', 'diagnosis', 'warranty'"
    run "ALTER TABLE quote_lines DROP CONSTRAINT quote_lines_kind"
    run "ALTER TABLE quote_lines ADD CONSTRAINT quote_lines_kind CHECK (kind IN (#{known}))"
  end
end
