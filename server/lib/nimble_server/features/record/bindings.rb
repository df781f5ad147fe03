# frozen_string_literal: true

require "json"

module NimbleServer
  module Features
    module Record
      # What binds somebody: for each table the columns whose values stand in the record, and what its rows are called.
      # A row is witnessed by the SHA-256 of those values under its key; rows that share a key (the lines of a scope)
      # are one. Migrations note what was touched (021), ActLog takes the notes into the record, Verification compares.
      #
      # Every table and column of the database is classed here, in LEFT_OUT or in FREE, each of those with its reason
      # (server/spec/tamper_spec.rb holds it; docs/server.md, "The record").
      module Bindings
        # name: of the table; key: column that names what is witnessed; columns: those that bind; word: what one is
        # called in a sentence; on_act: witnessed by the act that names it, not whenever it is touched.
        Table =
          Struct.new(:name, :key, :columns, :word, :on_act, keyword_init: true) do
            def shop_column = name == :shops ? :id : :shop_id
          end

        MADE = %i[created_by created_at].freeze

        def self.table(name, word, columns, key: :id, made: MADE, on_act: false) =
          Table.new(name: name, key: key, columns: columns + made, word: word, on_act: on_act)
        private_class_method :table

        ALL =
          [
            table(
              :shops,
              "the shop's own details",
              %i[name slug locale distance_unit time_zone paper demo created_at],
              made: []
            ),
            table(:accounts, "the account", %i[email status_id name role created_at], made: []),
            table(:invitations, "the invitation", %i[email role digest expires_at used_at withdrawn_at]),
            table(:customers, "the customer", %i[name phone email wishes merged_into]),
            table(
              :vehicles,
              "the car",
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
              ]
            ),
            table(:odometer_readings, "the odometer reading", %i[vehicle_id km reason]),
            table(:former_owners, "the former owner", %i[vehicle_id customer_id]),
            table(:fittings, "the fitted part", %i[vehicle_id work cylinder km on ours by withdrawn_at]),
            table(:engine_profiles, "the engine's revision", %i[code revision profile why]),
            table(:price_lists, "the price list", %i[revision catalog]),
            table(:house_settings, "the house figures", %i[revision settings]),
            table(:quotes, "the quote", %i[number vehicle_id latest_revision total_cents currency]),
            table(
              :quote_revisions,
              "the saved revision",
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
              ]
            ),
            table(
              :quote_scopes,
              "the saved quote",
              %i[id position name request answer page quoted_tenths total_cents],
              key: :revision_id
            ),
            table(
              :quote_lines,
              "the list of saved lines",
              %i[id position kind label part quantity unit_cents cents],
              key: :scope_id
            ),
            table(:quote_seals, "the seal", %i[bytes sha256 created_at], key: :revision_id, made: []),
            table(
              :offers,
              "the offer",
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
              ]
            ),
            table(
              :offer_scopes,
              "the offer",
              %i[position scope_id title total_cents limit_cents agreed_before_cents],
              key: :offer_id,
              made: []
            ),
            table(:offer_answers, "the answer", %i[offer_id position answer how name limit_cents reason]),
            table(
              :struck_answers,
              "the striking of a yes",
              %i[offer_id position reason called_off_id undone_at undone_by]
            ),
            table(:called_off_jobs, "the calling off", %i[job_id reason struck undone_at undone_by]),
            table(:offer_questions, "the question", %i[offer_id words settled_at settled_by]),
            table(:messages, "the message", %i[offer_id channel address subject body]),
            table(
              :jobs,
              "the job",
              %i[number quote_id title agreed_cents limit_cents currency finished_at handed_over_at]
            ),
            table(:job_cards, "the bay card", %i[job_id revision agreed request sheet]),
            table(:job_marks, "the list of marks", %i[id device at mark], key: :job_id, made: [], on_act: true),
            table(
              :bills,
              "the bill",
              %i[
                number
                kind
                job_id
                credits_id
                issued_on
                supplied_on
                due_on
                payer
                address
                reason
                request
                answer
                currency
                currency_exponent
                total_cents
              ]
            ),
            table(:promises, "the promised time", %i[booking_id serial pick_up chance]),
            table(:payments, "the payment", %i[job_id on means cents note key]),
            table(:job_pictures, "the picture", %i[job_id type width height bytes]),
            table(:ledger_entries, "the ledger entry", %i[key source finished_at entry billed_cents parts against why]),
            table(:ledger_lessons, "the lesson", %i[number act state lesson in_force])
          ].to_h { |row| [row.name, row.freeze] }.freeze

        # Tables of which nothing binds anybody, and why.
        LEFT_OUT = {
          record_entries: "is the record: held by its own chain, and by the head outside the database",
          record_touched: "holds notes only for as long as a transaction runs",
          applied_migrations: "is compared with the files at every start",
          schema_info: "says how far migrations have come; compared with the files at every start",
          account_active_session_keys: "who is signed in just now",
          account_known_addresses: "from where somebody signed in before; only makes wrong tries cost less",
          counters: "wrong tries and progress, gone after minutes",
          idempotency_keys: "answers to retries, kept for days; what they did is witnessed where it was done",
          shop_counters: "the next number; numbers given are witnessed and unique",
          quote_drafts: "working copies, shown to nobody; what is saved of them is witnessed",
          engine_drafts: "engines under the pencil; what is kept of them is witnessed",
          traces: "notes on finding a fault; what is sold after it is in a revision",
          findings: "the shop's notes on a car; what is sold of them is in a revision",
          follow_ups: "reminders for the shop itself",
          calendar_feeds: "links to read a calendar by; nothing is agreed by one",
          calendars: "who works when; a time that was promised is witnessed",
          bookings: "who does what when; a time that was promised is witnessed",
          board_changes: "who moved what on the board",
          long_requests: "what was asked and takes long, gone when its answer is fetched",
          long_request_parts: "answers on their way, gone when they are fetched",
          carried: "what the stand-in for the carriers has taken along",
          ledger_learned: "worked out anew from the ledger at any time",
          que_jobs: "work in the background, done again from what is witnessed",
          que_lockers: "which process works off what",
          que_values: "of the background work's own"
        }.freeze

        # Columns of witnessed tables that bind nobody, and why.
        FREE = {
          shop_id: "part of the key: rows are looked for under their shop",
          updated_at: "when a row was last touched",
          updated_by: "who last noted something; what they noted is witnessed",
          search: "words for the search, made of other columns",
          accounts: {
            password_hash: "changed by its owner at the door, which holds no key"
          },
          vehicles: {
            lives: "a note on where the car stands",
            condition: "as it was last looked at; a quote carries its own",
            notes: "a note",
            plug_notes: "a note on gap and torque; a frozen card carries its own"
          },
          quotes: {
            status: "follows from offers and answers",
            summary: "words for lists",
            put_away_at: "whether lists show it",
            engine_profile_id: "what the working copy is priced with; a revision carries its own"
          },
          offers: {
            seen_at: "when the customer looked; nothing follows from it",
            no_read_at: "when the shop read a no; nothing follows from it"
          },
          messages: {
            kind: "which of the letters about an offer it is; its words are witnessed",
            nth: "which of its kind it is; its words are witnessed",
            state: "how far the carrier has come",
            tries: "how far the carrier has come",
            problem: "how far the carrier has come",
            next_try_at: "how far the carrier has come"
          },
          jobs: {
            technician_id: "who is to work on it; marks say who did",
            bay: "where the car stands",
            arrival: "how warm it came",
            arrived_at: "when it came",
            started_at: "follows from its marks",
            stopped: "follows from its marks",
            called_off_at: "follows from called_off_jobs",
            so_far_cents: "follows from its marks",
            actuals: "follows from its marks"
          },
          job_marks: {
            created_by: "the device's session; the mark says who",
            created_at: "when it was handed in; the mark says when it was made"
          }
        }.freeze

        module_function

        # The SHA-256 of each witnessed row of a shop, as the database has it now.
        # @param db [Sequel::Database]
        # @param table [Table]
        # @param keys [Array<String>, nil] nil: all of them
        # @return [Hash{String=>String}] key to 64 hex digits
        def digests(db, table, shop_id, keys: nil)
          key = Sequel[table.key].cast_string
          rows = db[table.name].where(table.shop_column => shop_id)
          rows = rows.where(table.key => keys) if keys
          texts = db.literal(values(table))
          whole = Sequel.lit("string_agg(#{texts}, ',' ORDER BY #{texts})")
          rows
            .group(table.key)
            .select_map(
              [
                key.as(:key),
                Sequel.function(
                  :encode,
                  Sequel.function(:sha256, Sequel.function(:convert_to, whole, "UTF8")),
                  "hex"
                ).as(:digest)
              ]
            )
            .to_h
        end

        # The values that bind, as one text that is the same in every session.
        def values(table)
          members = [table.key, *(table.columns - [table.key])].map { |name| text(name) }
          Sequel.function(:jsonb_build_array, *members).cast_string
        end

        def text(name)
          column = Sequel[name]
          if name == :at || name.end_with?("_at")
            Sequel.function(:to_char, Sequel.function(:timezone, "UTC", column), 'YYYY-MM-DD"T"HH24:MI:SS.US')
          elsif name == :bytes
            Sequel.function(:encode, Sequel.function(:sha256, column), "hex")
          else
            column.cast_string
          end
        end
        private_class_method :values, :text
      end
    end
  end
end
