# frozen_string_literal: true

module NimbleServer
  module Features
    module Customers
      # Cars and their owners as a table: out, and in again in two steps: what its rows would change, then a yes.
      class GarageList
        TABLE = Documents::CsvTable.new("garage list", GarageRow::COLUMNS, needed: "plate")
        MOST = 5_000
        MOST_SHOWN = 300

        def initialize(shop)
          @shop = shop
          @garage = Vehicles::Garage.new(shop)
        end

        # @return [String] CSV
        def csv = TABLE.print(@garage.everything.map { |car| GarageRow.of(car).values_at(*GarageRow::COLUMNS) })

        # @param text [String] CSV
        # @return [Hash] see the contract, GarageReport
        # @raise [NimbleLedger::InvalidInput]
        def report(text) = shown(rows(text))

        # Takes every row that can be taken.
        # @return [Hash] the report of what was done
        # @raise [NimbleLedger::InvalidInput] when there is none, with the reason of each
        def keep(text)
          @shop.transaction do
            @shop.alone("garage")
            all = rows(text)
            report = shown(all)
            wanted = all.select { |row| %w[added changed].include?(row.status) }
            refuse(all) if wanted.empty?
            wanted.each { |row| store(row) }
            report
          end
        end

        private

        def rows(text)
          cells = TABLE.rows(text)
          refuse_size(cells)
          cars = @garage.everything.to_h { |car| [car[:plate], car] }
          engines = Library.newest_of_each(@shop).map { |engine| engine[:code] }
          seen = Hash.new(0)
          cells.map do |row|
            plate = row["plate"].to_s.strip.upcase
            GarageRow.new(row, cars[plate], engines, twice: (seen[plate] += 1) > 1)
          end
        end

        def refuse_size(rows)
          return if rows.size <= MOST

          raise NimbleLedger::InvalidInput.new(
                  "The garage list has #{rows.size} rows; at most #{MOST} are taken at once.",
                  code: "invalid_csv",
                  details: [{ "path" => "/csv", "message" => "has more than #{MOST} rows" }]
                )
        end

        def store(row)
          values = row.values
          car = row.car || { id: made(row, values) }
          change(car, values) if row.car && values.any?
          owner(row.owner, car)
          Vehicles::Car.note_reading(@shop, car, values[:odometer_km], "")
          @garage.renew_search_of(@garage.find(car[:id]))
        end

        def made(row, values) =
          @shop.insert(:vehicles, { plate: row.plate, condition: Sequel.pg_jsonb({}) }.merge(values))

        def change(car, values)
          by = { updated_by: @shop.actor.account_id, updated_at: @shop.now }
          @shop[:vehicles].where(id: car[:id]).update(values.merge(by))
        end

        # The car's owner, changed; or one of that name and telephone, or a new one.
        def owner(given, car)
          return if given.empty?
          return @shop[:customers].where(id: car[:customer_id]).update(given) if car[:customer_id]
          return unless given[:name]

          @shop[:vehicles].where(id: car[:id]).update(customer_id: Vehicles::Owner.known_or_new(@shop, given))
        end

        def shown(all)
          counts = all.map(&:status).tally
          listed = all.reject { |row| row.status == "same" }
          {
            **%w[added changed same rejected].to_h { |status| [status, counts.fetch(status, 0)] },
            "rows" => listed.sort_by { |row| [row.fault ? 0 : 1, row.line] }.first(MOST_SHOWN).map { |row| said(row) }
          }
        end

        def said(row) =
          {
            "line" => row.line,
            "plate" => row.plate,
            "status" => row.status,
            "changes" => row.changes,
            "reason" => row.fault
          }

        def refuse(all)
          faults = all.select(&:fault).first(50)
          raise NimbleLedger::InvalidInput.new(
                  "No row of the garage list changes anything.",
                  details: faults.map { |row| { "path" => "/csv/#{row.line}", "message" => row.fault } }
                )
        end
      end
    end
  end
end
