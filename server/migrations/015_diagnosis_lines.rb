# frozen_string_literal: true

# Finding out is a line of its own kind.
Sequel.migration do
  known = "'labor', 'part', 'consumable', 'supplies', 'fee', 'discount', 'tax'"

  up do
    run "ALTER TABLE quote_lines DROP CONSTRAINT quote_lines_kind"
    run "ALTER TABLE quote_lines ADD CONSTRAINT quote_lines_kind CHECK (kind IN (#{known}, 'diagnosis'))"
  end

  down do
    run "ALTER TABLE quote_lines DROP CONSTRAINT quote_lines_kind"
    run "ALTER TABLE quote_lines ADD CONSTRAINT quote_lines_kind CHECK (kind IN (#{known}))"
  end
end
