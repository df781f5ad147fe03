# frozen_string_literal: true

require "tempfile"
require "zip"

module NimbleServer
  module Features
    module Everything
      # All a shop owns, in open files in one archive: its engines and price list in the formats that can be read back,
      # cars and owners as CSV, and every row of every table as a line of JSON. What is secret, or means nothing outside
      # the running server, stays here.
      #
      #   Archive.new(shop).write  #=> an open Tempfile
      class Archive
        FORMAT = "nimble-ledger.everything"
        VERSION = 1
        # Tables that hold nothing of the shop's own: sessions, counters, and what retries and waiting need.
        LEFT_OUT = %i[
          idempotency_keys
          account_active_session_keys
          account_known_addresses
          record_touched
          long_requests
          long_request_parts
        ].freeze
        # Columns nobody outside may read, or that only a search needs.
        SECRET = %i[password_hash token_digest digest search].freeze

        def initialize(shop)
          @shop = shop
        end

        # @return [Tempfile] the archive, at its beginning
        def write
          file = Tempfile.new(%w[everything .zip], binmode: true)
          Zip::OutputStream.open(file.path) { |zip| fill(zip) }
          file.tap(&:rewind)
        end

        # Tables whose rows belong to shops, as far as they are written.
        # @return [Array<Symbol>]
        def tables
          @shop
            .db
            .from(:pg_attribute)
            .join(:pg_class, oid: :attrelid)
            .where(attname: "shop_id", relkind: %w[r p])
            .where(Sequel.lit("relnamespace = 'public'::regnamespace"))
            .select_order_map(:relname)
            .map(&:to_sym) - LEFT_OUT
        end

        private

        def fill(zip)
          entry(zip, "about.json", JSON.pretty_generate(about))
          engines(zip)
          prices(zip)
          entry(zip, "garage.csv", Customers::GarageList.new(@shop).csv)
          entry(zip, "history.json", JSON.generate(Ledger::Posting.new(@shop).history))
          tables.each { |table| rows(zip, table) }
        end

        def entry(zip, name, text)
          zip.put_next_entry(name)
          zip.write(text)
        end

        def about
          {
            "format" => FORMAT,
            "version" => VERSION,
            "written_at" => @shop.now.getutc.iso8601,
            "shop" => @shop.profile[:name],
            "record" => Record::ActLog.new(@shop).head,
            "files" => {
              "engines/" => "nimble-ledger.engine, the newest revision of each: can be read in again",
              "prices.catalog.json" => "nimble-ledger.catalog, the newest price list: can be read in again",
              "garage.csv" => "cars and owners: can be read in again",
              "history.json" => "nimble-ledger.history, every finished job: can be read in again",
              "tables/" => "every row, one JSON object a line; bytes as base64"
            }
          }
        end

        def engines(zip)
          Library
            .newest_of_each(@shop)
            .each do |row|
              profile = Library.engine(@shop, row[:id]).source
              entry(zip, "engines/#{row[:code].downcase}.engine.json", JSON.pretty_generate(profile))
            end
        end

        def prices(zip)
          id = @shop.newest(:price_lists) or return
          entry(zip, "prices.catalog.json", JSON.pretty_generate(Library.catalog(@shop, id).source))
        end

        def rows(zip, table)
          columns = readable(table) - SECRET
          zip.put_next_entry("tables/#{table}.ndjson")
          @shop[table]
            .select(*columns.map { |name| Sequel[table][name] })
            .use_cursor(rows_per_fetch: 500)
            .each { |row| zip.write("#{JSON.generate(row.transform_values { |value| plain(value) })}\n") }
        end

        # Columns this process may read: the walls in the database keep it from passwords.
        def readable(table)
          @shop
            .db
            .schema(table)
            .map(&:first)
            .select { |name| @shop.db.get(Sequel.function(:has_column_privilege, table.to_s, name.to_s, "SELECT")) }
        end

        def plain(value)
          case value
          when Sequel::SQL::Blob
            [value].pack("m0")
          when ::Time
            value.getutc.iso8601(6)
          when Date
            value.iso8601
          when Sequel::Postgres::JSONBHash
            value.to_h
          when Sequel::Postgres::JSONBArray, Sequel::Postgres::PGArray
            value.to_a
          when BigDecimal
            value.to_s("F")
          else
            value
          end
        end
      end
    end
  end
end
