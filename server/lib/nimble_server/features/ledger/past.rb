# frozen_string_literal: true

require "tzinfo"

module NimbleServer
  module Features
    module Ledger
      # A shop's past, brought along: a history as it is exported (formats.md), or a table of jobs (CSV). First what
      # each row would do, then a yes; rows that cannot be taken stay out and say why.
      class Past
        FIGURES = %w[
          mean_minutes
          sd_minutes
          common_variation
          actual_minutes
          trouble_minutes
          quoted_hours
          reference_hours
        ].freeze
        COLUMNS = (%w[id finished engine technician] + FIGURES).freeze
        TABLE = Documents::CsvTable.new("history", COLUMNS, needed: "finished")
        LARGEST = 4_000_000
        MOST = 20_000 # rows at once
        DAY = /\A\d{4}-\d\d-\d\d\z/

        # A job to come in: the line it stands in, the entry, and why it stays out.
        Row = Struct.new(:line, :job, :reason)

        # @param rows [Array<Hash>] of the ledger
        # @return [String] CSV of estimates against what they took
        def self.table(rows)
          TABLE.print(rows.map { |row| row[:entry].to_h.merge("id" => row[:id]).values_at(*COLUMNS) })
        end

        # @param text [String] CSV, or the JSON of a history
        # @param progress [#call] told how many rows of how many are looked at
        # @raise [NimbleLedger::InvalidInput] where it is neither
        def initialize(shop, text, progress: ->(_done, _of) {})
          @shop = shop
          @progress = progress
          @house = HouseRules::House.new(shop).settings
          @rows = text.lstrip.start_with?("{") ? from_history(text) : from_table(text)
        end

        # @return [Hash] see the contract, PastReport: what a yes would do
        def report
          fresh = Posting.new(@shop).fresh(jobs).size
          {
            "added" => fresh,
            "known" => jobs.size - fresh,
            "rejected" => @rows.size - jobs.size,
            "rows" => out.first(200).map { |row| { "line" => row.line, "reason" => row.reason } }
          }
        end

        # @return [Hash] the same, once it is done
        def keep = report.tap { Posting.new(@shop).import(jobs) }

        private

        def refuse_size(count)
          return if count <= MOST

          raise NimbleLedger::InvalidInput.at(
                  "/text",
                  "has #{count} rows; at most #{MOST} are taken at once. Bring them in several files",
                  what: "past",
                  code: "invalid_csv"
                )
        end

        # Lets whoever waits give up.
        def each_row(rows, &block)
          refuse_size(rows.size)
          rows.each_with_index.map do |row, i|
            @progress.call(i, rows.size)
            block.call(row, i)
          end
        end

        def jobs = @jobs ||= @rows.reject(&:reason).map(&:job).uniq { |job| job["id"] }
        def out = @rows.select(&:reason)

        def from_history(text)
          hash = NimbleLedger::Document.parse(text, what: "history", max_bytes: LARGEST)
          outer = NimbleLedger::Ledger::History::SHAPE
          jobs = hash["jobs"].is_a?(Array) ? hash["jobs"] : []
          outer.check!(hash.merge("jobs" => []), what: "history", code: "invalid_request")
          each_row(jobs) { |job, i| checked(i + 1, job) }
        end

        def from_table(text)
          each_row(TABLE.rows(text)) { |cells, _i| checked(cells["line"], job_of(cells.except("line"))) }
        end

        def job_of(cells)
          given = cells.reject { |_name, text| text.strip.empty? }
          job = given.to_h { |name, text| [name, FIGURES.include?(name) ? number(text) : text.strip] }
          job["finished"] = instant(job["finished"]) if job["finished"]
          job["trouble_minutes"] ||= 0
          job["id"] ||= Digest::SHA256.hexdigest(cells.values.join("|"))[0, 16]
          quoted = job["quoted_hours"]
          return job unless quoted.is_a?(Numeric) && quoted.positive? && !job["mean_minutes"]

          NimbleLedger::Ledger::EstimateFromQuotedHours.estimate(quoted, @house).merge(job)
        end

        # A day stands for its noon on the shop's clock.
        def instant(text)
          return text unless text.match?(DAY)

          zone = TZInfo::Timezone.get(@shop.profile[:time_zone])
          zone.local_time(*text.split("-").map(&:to_i), 12).utc.iso8601
        rescue ArgumentError, TZInfo::PeriodNotFound
          text
        end

        # A decimal comma is one where there is no point.
        def number(text)
          plain = text.strip.then { |cell| cell.include?(".") ? cell : cell.tr(",", ".") }
          plain.match?(/\A-?\d+(\.\d+)?\z/) ? plain.to_f : text
        end

        def checked(line, job)
          NimbleLedger::Ledger::History.build(
            { "format" => NimbleLedger::Ledger::History::FORMAT, "version" => 1, "jobs" => [job] },
            base: @house
          )
          fault = FinishDay.fault(job["finished"], now: @shop.now)
          Row.new(line, job, fault && "finished #{fault}")
        rescue NimbleLedger::InvalidInput => e
          Row.new(line, job, reason(e.details.first))
        end

        def reason(fault)
          name = fault["path"].delete_prefix("/jobs/0").delete_prefix("/")
          if name == "finished"
            return "finished is no day; one is like 2026-05-04, or 2026-05-04T15:20:00Z with its time"
          end

          "#{name} #{fault["message"]}".strip
        end
      end
    end
  end
end
