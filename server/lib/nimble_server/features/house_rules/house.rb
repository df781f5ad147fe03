# frozen_string_literal: true

module NimbleServer
  module Features
    module HouseRules
      # The shop's settings in force: the newest revision over the shipped defaults. Also what the shop owns.
      class House
        # @return [String] id of the revision in force
        attr_reader :id

        # @return [NimbleLedger::House::Settings]
        attr_reader :settings

        # @return [Array<String>] equipment of the shop
        attr_reader :equipment

        # @return [Integer] revision in force
        def revision = @shop[:house_settings].where(id: id).get(:revision)

        # @param id [String] of the revision in force, where that is known
        def initialize(shop, id: shop.newest(:house_settings))
          @shop = shop
          @id = id
          @settings, @equipment = Library.house(shop, @id)
        end

        # When plugs of an engine are due again, by the figures in force here.
        # @param engine [NimbleLedger::Profile::Engine]
        # @param fitted_km [Numeric, nil] the interval of what is in the head
        # @return [NimbleLedger::Vehicle::Interval]
        def interval(engine, fitted_km: nil)
          house = NimbleLedger::House::Precedence.resolve(settings, engine)
          NimbleLedger::Vehicle::Interval.new(engine, house, fitted_km: fitted_km)
        end

        # Keeps another list of equipment as the next revision of the settings.
        # @param base [Integer] the revision the list was made from
        # @raise [Refusal] 409 when somebody changed the settings meanwhile
        def keep_equipment(list, base) = keep(base) { |stored| stored.merge("equipment" => list.uniq.sort) }

        # Keeps figures of the shop's own as the next revision; open quotes are priced with them from then on.
        # @param figures [Hash] settings by name
        # @param shipped [Array<String>] names that go back to the shipped default
        # @param base [Integer] the revision they were made from
        # @raise [NimbleLedger::InvalidInput] for values that do not fit, with their path under /settings
        # @raise [Refusal] 409 when somebody changed the settings meanwhile
        def keep_figures(figures, shipped, base)
          NimbleLedger::House::Settings.defaults.with(figures, path: "/settings")
          keep(base) { |stored| stored.merge("settings" => (stored["settings"] || {}).merge(figures).except(*shipped)) }
        end

        # What the shop owns and what its engines ask for, with the engines each would serve.
        # @return [Array<Hash>] see the contract, House
        def equipment_rows
          asked = asked_for
          (asked.keys | equipment).sort.map do |id|
            {
              "id" => id,
              "label" => NimbleLedger::Quote::Words.equipment(id),
              "owned" => equipment.include?(id),
              "engines" => asked.fetch(id, []).uniq.sort
            }
          end
        end

        # Every setting, with its origin.
        def rows
          own = @shop[:house_settings].where(id: id).get(:settings).to_h["settings"] || {}
          NimbleLedger::House::Settings::DECLARED.values.map do |declared|
            {
              "name" => declared.name,
              "group" => declared.group,
              "label" => declared.label,
              "value" => settings[declared.name],
              "own" => own.key?(declared.name),
              "shipped" => declared.default,
              "schema" => declared.shape.schema,
              "caution" => declared.caution
            }
          end
        end

        private

        def keep(base)
          @shop.transaction do
            @shop.alone("house")
            newest = @shop[:house_settings].order(Sequel.desc(:revision)).first
            raise conflict unless newest[:revision] == base

            @shop.insert(:house_settings, revision: base + 1, settings: Sequel.pg_jsonb(yield(newest[:settings].to_h)))
          end
        rescue Sequel::UniqueConstraintViolation
          raise conflict
        end

        def conflict =
          Refusal.new(
            409,
            "house_conflict",
            "The house settings were changed meanwhile. Look at them again, then change yours."
          )

        def asked_for
          Library
            .newest_of_each(@shop)
            .each_with_object({}) do |head, asked|
              engine = Library.engine(@shop, head[:id])
              engine.equipment.each { |id| (asked[id] ||= []) << engine.code }
            end
        end
      end
    end
  end
end
