# frozen_string_literal: true

# The owner may say anew how the shop is called, where it is and how it writes. Row-level security keeps it to the own
# shop (006), and what tells shops apart (id, slug) stays out of reach.
Sequel.migration do
  up { run "GRANT UPDATE (name, locale, distance_unit, time_zone, paper) ON shops TO nimble_web" }
  down { run "REVOKE UPDATE (name, locale, distance_unit, time_zone, paper) ON shops FROM nimble_web" }
end
