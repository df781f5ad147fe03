# frozen_string_literal: true

module NimbleServer
  module Features
    module Ledger
      # The shop's finished jobs, each posted once: as it was estimated, before any correction, and as it went. Entries
      # are never changed; a correction is an entry against the one before it, with its reason.
      class Posting
        def initialize(shop)
          @shop = shop
        end

        # Posts a job that was handed over; once, however often it is asked for.
        # @param finished [Jobs::FinishedJob]
        def post(finished)
          entry = Entry.new(@shop, finished)
          job = entry.to_h or return
          key = "job:#{finished.job[:id]}"
          return if @shop[:ledger_entries].where(key: key).any?

          add(key, "job", job, billed_cents: finished.so_far_cents, parts: Sequel.pg_jsonb(entry.parts))
        end

        # Those that are not here yet: neither brought along before, nor exported from here.
        # @param jobs [Array<Hash>] entries of a history
        # @return [Array<Hash>]
        def fresh(jobs, source: "import")
          keys, ids = @shop[:ledger_entries].select_map(%i[key id]).transpose.map(&:to_set)
          jobs.uniq { |job| job["id"] }.reject { |job| keys&.include?(key_of(source, job)) || ids&.include?(job["id"]) }
        end

        # @param jobs [Array<Hash>] entries of a history (formats.md)
        # @return [Hash] how many were added, and how many were there already
        def import(jobs, source: "import")
          fresh = fresh(jobs, source: source)
          rows = fresh.map { |job| row(key_of(source, job), source, job) }
          @shop.transaction do
            @shop.db[:ledger_entries].insert_conflict(target: %i[shop_id key]).multi_insert(rows)
            Learned.new(@shop).ask
          end
          { "added" => fresh.size, "known" => jobs.size - fresh.size }
        end

        # An entry against another: its figures from now on.
        # @param changes [Hash] "actual_minutes", "trouble_minutes" or "technician"
        # @raise [Refusal] 404; 409 where it was corrected meanwhile
        def correct(id, changes, why)
          before = @shop[:ledger_entries].where(id: id).first or raise Refusal.not_found("entry")
          if @shop[:ledger_entries].where(against: id).any?
            raise Refusal.new(409, "corrected", "This entry was corrected already: correct the newer one.")
          end

          kept = before.slice(:billed_cents, :parts).merge(against: id, why: why)
          add("#{before[:key]}##{SecureRandom.hex(4)}", before[:source], before[:entry].to_h.merge(changes), **kept)
        end

        # Entries in force: those nothing stands against.
        # @return [Sequel::Dataset]
        def in_force
          against = @shop[:ledger_entries].exclude(against: nil).select(:against)
          @shop[:ledger_entries].exclude(id: against)
        end

        # @return [Array<Hash>] all entries in force, oldest first
        def rows = in_force.order(:finished_at, :id).all

        # @return [Array<Hash>] the last so many, oldest first
        def last(count, among = in_force) = among.reverse(:finished_at, :id).limit(count).all.reverse

        # Sums over the entries in force, hours.
        SUMS = {
          jobs: "count(*)",
          since: "min(finished_at)",
          quoted: "coalesce(sum((entry ->> 'quoted_hours')::float8), 0)",
          worked: "coalesce(sum((entry ->> 'actual_minutes')::float8), 0) / 60",
          trouble: "coalesce(sum((entry ->> 'trouble_minutes')::float8), 0) / 60"
        }.freeze

        # @return [Hash] see SUMS
        def sums = in_force.select(*SUMS.map { |name, sql| Sequel.lit(sql).as(name) }).first

        # Who has worked on what.
        # @return [Array(String, String)] engine, technician
        def pairs =
          in_force.distinct.select_map(
            %w[engine technician].map { |key| Sequel.lit("entry ->> '#{key}'").as(key.to_sym) }
          )

        # @return [Hash] a nimble-ledger.history (formats.md)
        def history
          jobs = rows.map { |row| row[:entry].to_h.merge("id" => row[:id]) }
          { "format" => "nimble-ledger.history", "version" => 1, "jobs" => JSON.parse(JSON.generate(jobs)) }
        end

        # What the ledger stands at: learned anew when it moves.
        # @return [String]
        def state
          rows = @shop[:ledger_entries]
          "#{rows.count} #{rows.max(:created_at)&.utc&.iso8601(6)}"
        end

        private

        def key_of(source, job) = "#{source}:#{job["id"]}"

        def add(key, source, entry, **rest)
          @shop.transaction do
            @shop.db[:ledger_entries].insert(row(key, source, entry).merge(rest))
            Learned.new(@shop).ask
          end
          Live.tell(@shop, "ledger")
        end

        def row(key, source, entry)
          {
            shop_id: @shop.id,
            id: SecureRandom.uuid,
            created_by: @shop.actor.account_id,
            created_at: @shop.now,
            key: key,
            source: source,
            finished_at: ::Time.iso8601(entry["finished"]),
            entry: Sequel.pg_jsonb(entry)
          }
        end
      end
    end
  end
end
