# frozen_string_literal: true

module NimbleServer
  module Features
    module Customers
      # One row of a garage list, held against the car of its plate: what it says, what is wrong with it, what it would
      # change. What a row leaves empty stays as it was.
      class GarageRow
        COLUMNS = %w[plate description year engine odometer_km maker_number name phone email wishes].freeze
        LONGEST = {
          "plate" => 20,
          "description" => 120,
          "name" => 120,
          "phone" => 40,
          "email" => 120,
          "wishes" => 200
        }.freeze
        OWNER = %w[name phone email wishes].freeze
        STORED = {
          "description" => :description,
          "engine" => :engine_code,
          "maker_number" => :maker_number,
          "year" => :year,
          "odometer_km" => :odometer_km
        }.freeze
        FIGURES = %w[year odometer_km].freeze
        FIRST_YEAR = 1900

        # What a car says in these columns.
        # @param car [Hash] row with its customer
        def self.of(car)
          values = STORED.to_h { |name, column| [name, car[column]] }
          owner = OWNER.to_h { |name| [name, car[:"customer_#{name}"]] }
          { "plate" => car[:plate] }.merge(values, owner)
        end

        attr_reader :line, :plate, :car

        # @param cells [Hash{String=>String}] text by column, and "line"
        # @param car [Hash, nil] the car of that plate
        # @param engines [Array<String>] codes of the library
        # @param twice [Boolean] whether its plate stood further up
        def initialize(cells, car, engines, twice: false)
          @cells = cells
          @line = cells["line"]
          @plate = text("plate").upcase
          @car = car
          @engines = engines
          @twice = twice
        end

        # Why it cannot be taken.
        # @return [String, nil]
        def fault
          return "stands twice in this file" if @twice
          return "has no plate" if plate.empty?

          too_long || engine_fault || figure_fault || number_fault
        end

        # @return ["added", "changed", "same", "rejected"]
        def status
          return "rejected" if fault
          return "added" unless car

          changed.empty? ? "same" : "changed"
        end

        # @return [Array<String>] "year: 2019", "name: Ines → Wren"
        def changes
          return [] if fault

          changed.map do |name|
            [was[name] && "#{was[name]} →", text(name)].compact.join(" ").then { |to| "#{name}: #{to}" }
          end
        end

        # Columns of the car that the row says.
        # @return [Hash{Symbol=>Object}]
        def values
          said = STORED.reject { |name, _column| text(name).empty? }
          said.to_h { |name, column| [column, FIGURES.include?(name) ? text(name).to_i : text(name)] }
        end

        # Columns of the owner that the row says.
        def owner = OWNER.reject { |name| text(name).empty? }.to_h { |name| [name.to_sym, text(name)] }

        private

        def text(name)
          cell = @cells[name].to_s.strip
          name == "maker_number" ? NimbleLedger::Vehicle::MakerNumber.plain(cell) : cell
        end

        def was = car ? GarageRow.of(car) : {}

        def changed = (COLUMNS - ["plate"]).reject { |name| text(name).empty? || was[name].to_s == text(name) }

        def too_long
          name, most = LONGEST.find { |column, length| text(column).length > length }
          name && "#{name} is longer than #{most} characters"
        end

        def engine_fault
          code = text("engine")
          if car.nil? && (code.empty? || text("description").empty?)
            return "a new car needs its engine and a description"
          end

          "the library has no engine #{code}" unless code.empty? || @engines.include?(code)
        end

        def figure_fault
          year, km = FIGURES.map { |name| text(name) }
          known_year =
            year.match?(/\A\d{4}\z/) && year.to_i >= FIRST_YEAR && Vehicles::ModelYear.fault(year.to_i, ::Time.now).nil?
          return "year is no year of a car" unless year.empty? || known_year
          return nil if km.empty?
          return "odometer_km is no whole number" unless km.match?(/\A\d{1,8}\z/)

          rises = NimbleLedger::Vehicle::Odometer.believable?(km.to_i, car && car[:odometer_km])
          "odometer_km is below the last reading" unless rises
        end

        def number_fault
          number = text("maker_number")
          "maker_number does not fit" unless number.empty? || NimbleLedger::Vehicle::MakerNumber.fault(number).nil?
        end
      end
    end
  end
end
