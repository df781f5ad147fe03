# frozen_string_literal: true

module NimbleServer
  module Features
    module Ledger
      # A finished job as an entry of a history (formats.md): the estimate as it was frozen, before any correction; the
      # pieces the card timed; how each plug came out beside what was expected of it.
      class Entry
        # @param finished [Jobs::FinishedJob]
        def initialize(shop, finished)
          @shop = shop
          @finished = finished
          @job = finished.job
          @work = finished.work
          @actuals = finished.actuals
        end

        # @return [Hash, nil] nil where nothing was timed
        def to_h
          return nil unless @actuals["actual_minutes"].positive?

          total = @work.plan.job.estimated
          {
            "id" => @job[:id],
            "finished" => finished,
            "engine" => @work.car.engine.code,
            "technician" => technician,
            "mean_minutes" => total.mean,
            "sd_minutes" => total.sd,
            "actual_minutes" => @actuals["actual_minutes"],
            "trouble_minutes" => @actuals["trouble_minutes"],
            "quoted_hours" => @work.quoted_tenths / 10.0,
            "common_variation" => @work.car.house["common_variation"],
            "reference_hours" => reference_hours,
            "tasks" => tasks,
            "plugs" => plugs
          }.reject { |_key, value| value.nil? || value == [] }
        end

        # Parts the work took.
        # @return [Array<Hash>] part, quantity
        def parts
          used = @work.needed.rows.reject { |row| row.rule == "if-needed" }
          used.map { |row| { "part" => row.part, "quantity" => row.quantity } }
        end

        private

        def technician
          id = @job[:technician_id]
          (id && @shop.db[:accounts].where(shop_id: @shop.id, id: id).get(:name)) || "not said"
        end

        # When the device says so, unless its clock is wrong: not before the job was opened, not after it was handed
        # over.
        def finished
          said = ::Time.iso8601(@finished.state["finished_at"])
          said.clamp(@job[:created_at], [@job[:created_at], @shop.now].max).utc.iso8601
        end

        # What the printed guide says, where it was typed beside the one scope that was agreed.
        def reference_hours
          agreed = @shop[:job_cards].where(job_id: @job[:id], revision: @finished.revision).get(:agreed).split
          agreed.one? ? @shop[:quote_scopes].where(id: agreed.first).get(:page).to_h["reference_hours"] : nil
        end

        def tasks
          pieces = @actuals["pieces"].select { |row| row["estimate"].positive? }
          halves = pieces.group_by { |row| NimbleLedger::Time::PieceId.task(row["id"]) }
          timed = halves.select { |_task, rows| rows.all? { |row| row["actual"]&.positive? } }
          timed.map do |task, rows|
            estimate, actual = %w[estimate actual].map { |key| rows.sum { |row| row[key] } }
            { "task" => task, "estimate" => estimate, "actual" => actual }
          end
        end

        def plugs
          rows = uncorrected.outcomes&.plug_rows || []
          rows.flat_map do |row|
            (1..row.target.plugs).filter_map do |nth|
              out =
                @finished.state["plugs"].dig(NimbleLedger::Card::Fold.plug_key(row.target.id, nth), "out", "outcome")
              out && row.construction && plug(row.construction, row.chances.to_h, out)
            end
          end
        end

        # The same work with the odds as they were before anything was learned.
        def uncorrected = @uncorrected ||= @work.on(@work.car.uncorrected)

        def plug(construction, chances, outcome)
          {
            "construction" => construction,
            "soak" => @work.soak,
            "predicted" => chances.transform_keys(&:to_s).slice("broken", "thread", "stubborn"),
            "outcome" => outcome
          }
        end
      end
    end
  end
end
