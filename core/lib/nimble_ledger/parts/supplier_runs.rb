# frozen_string_literal: true

module NimbleLedger
  module Parts
    # When suppliers bring what is ordered: each weekday's run as one of its own, with its cut-off, arrival, charge and
    # minimum; suppliers without runs by the days their offers take (model.md section 6, "Purchase"). All times are the
    # shop's wall clock, in minutes after now.
    class SupplierRuns
      HORIZON_DAYS = 14
      HORIZON = HORIZON_DAYS * WallClock::MINUTES_A_DAY

      # One drive. id: nil without runs; ordered, arrives, counts_from: minutes after now, counts_from nil where it can
      # not be counted on; date: the day it is ordered; days_off: between today and that day; lead: of a supplier
      # without
      # runs, the lead days it stands for.
      Run =
        Struct.new(
          :supplier,
          :id,
          :ordered,
          :arrives,
          :counts_from,
          :days_off,
          :lead,
          :charge,
          :free_from,
          :minimum,
          keyword_init: true
        ) do
          # @param lead_days [Integer, nil] of an offer
          def takes?(lead_days) = lead ? lead_days == lead : (lead_days || 0) <= days_off
        end

      # @param clock [WallClock]
      # @param suppliers [Hash{String=>Hash}] of the catalog
      # @param closed [Array<String>] dates the shop is closed
      # @param sure [Float] share of its drives with which a run has to be on time to be counted on
      def initialize(clock, suppliers, closed, sure)
        @clock = clock
        @suppliers = suppliers
        @closed = dates(closed)
        @sure = sure
      end

      # Every drive of a supplier within two weeks, in order of the cut-off.
      # @param name [String]
      # @param leads [Array<Integer, nil>] lead days of its offers
      # @return [Array<Run>]
      def of(name, leads)
        known = @suppliers[name] || {}
        runs = known["runs"] || []
        return without_runs(name, known, leads.compact.uniq) if runs.empty?

        drives = drives(name, known, runs)
        arrivals = drives.map(&:arrives).sort
        drives.each { |drive| count_from(drive, runs, arrivals) }
      end

      # Only the first day of each run can matter, and the first on which offers that take longer can go.
      # @param drives [Array<Run>] all of a supplier
      # @param leads [Array<Integer, nil>]
      # @return [Array<Run>]
      def self.that_matter(drives, leads)
        drives
          .group_by(&:id)
          .flat_map do |id, same|
            id.nil? ? same : leads.map { |lead| same.find { |drive| drive.takes?(lead) } }.compact.uniq
          end
      end

      private

      def dates(list) = (list || []).map { |text| WallClock.date(text) }

      def drives(name, known, runs)
        closed = dates(known["closed"])
        (0..HORIZON_DAYS)
          .flat_map { |offset| runs.filter_map { |run| drive(name, run, offset, closed) } }
          .sort_by
          .with_index { |one, i| [one.ordered, i] }
      end

      def drive(name, run, offset, closed)
        date = @clock.today + offset
        return nil unless run["on"].include?(WallClock::WEEKDAYS[date.wday]) && !closed.include?(date)

        ordered = @clock.midnight(date) + WallClock.of_day(run["order_by"])
        return nil unless ordered.between?(0, HORIZON)

        there = date + run["days"].to_i
        return nil if closed.include?(there) || @closed.include?(there)

        Run.new(
          supplier: name,
          id: run["id"],
          ordered: ordered,
          arrives: @clock.midnight(there) + WallClock.of_day(run["arrives"]),
          days_off: offset,
          charge: run["charge_cents"] || 0,
          free_from: run["free_from_cents"],
          minimum: run["minimum_cents"] || 0
        )
      end

      # A run that is late too often counts from the supplier's next arrival.
      def count_from(drive, runs, arrivals)
        late = runs.find { |run| run["id"] == drive.id }["late"] || 0
        drive.counts_from =
          late <= 1 - @sure + 1e-9 ? drive.arrives : arrivals.find { |arrival| arrival > drive.arrives }
      end

      # One for each number of lead days, ordered now, there at the end of the day.
      def without_runs(name, known, leads)
        leads.sort.map do |lead|
          there = @clock.midnight(@clock.today + lead + 1)
          Run.new(
            supplier: name,
            ordered: 0,
            arrives: there,
            counts_from: there,
            days_off: 0,
            lead: lead,
            charge: known["delivery_cents"] || 0,
            minimum: 0
          )
        end
      end
    end
  end
end
