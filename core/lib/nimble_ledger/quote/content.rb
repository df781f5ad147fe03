# frozen_string_literal: true

module NimbleLedger
  module Quote
    # What the advisor has put into a quote: scopes, and what is known of the car today. Anything left out is unknown,
    # and the resolved request says what was assumed instead (model.md sections 3 and 5, formats.md "history").
    class Content
      MAX_SCOPES = 3
      # What an advisor may say of a well beside what the odds know of, and what it counts as there: a plug known to be
      # seized sits as if rusted in; oil does not hold it, and calls for a seal.
      WELLS = { "oil" => "dry", "seized" => "rusted" }.freeze

      plug =
        Shape.object(
          required: {
            "construction" => Shape.one_of(*Risk::History::CONSTRUCTIONS),
            "interval_km" => Shape.number(above: 0, max: 10_000_000)
          }
        )
      own =
        Shape.object(
          optional: {
            "plugs_changed_km" => Shape.number(max: 10_000_000),
            "plugs_changed_years" => Shape.number(max: 200),
            "compound_used" => Shape.boolean,
            "fitted" => plug
          }
        )
      CYLINDERS = Shape.map(own, max: 32)
      FITTED = plug
      known_history =
        Shape.object(
          optional: {
            "odometer_km" => Shape.nullable(Shape.number(max: 10_000_000)),
            "plugs_changed_km" => Shape.nullable(Shape.number(max: 10_000_000)),
            "plugs_changed_years" => Shape.nullable(Shape.number(max: 200)),
            "compound_used" => Shape.nullable(Shape.boolean),
            "plug_fitted" => Shape.nullable(Shape.string(max: 80, empty: true)),
            "fitted" => Shape.nullable(plug),
            "cylinders" => CYLINDERS
          }
        )
      condition =
        Shape.object(
          optional: {
            "corrosion" => Shape.nullable(Shape.one_of(*Time::Condition::LEVELS)),
            "brittle" => Shape.nullable(Shape.boolean),
            "bodged" => Shape.boolean,
            "lives" => Shape.nullable(Shape.string(max: 120, empty: true)),
            "wells" => Shape.map(Shape.one_of(*Time::Condition::WELLS, *WELLS.keys), max: 32)
          }
        )
      moment = Shape.nullable(Shape.string(max: 16, pattern: /\A20\d\d-(0\d|1[0-2])-[0-3]\dT([01]\d|2[0-3]):[0-5]\d\z/))
      SHAPE =
        Shape.object(
          required: {
            "scopes" => Shape.list(Selection::SHAPE, min: 1, max: MAX_SCOPES),
            "active" => Shape.integer(max: MAX_SCOPES - 1)
          },
          optional: {
            "condition" => condition,
            "history" => known_history,
            "codes" => Shape.boolean,
            "schools" => House::Schools.shape(House::Settings::DECLARED),
            "variants" => Shape.map(Shape.string(max: 80), max: Profile::MAX_VARIANTS),
            "diagnosis" =>
              Shape.nullable(
                Shape.object(
                  required: Price::Diagnosis::SHAPE.required,
                  optional: {
                    "buys" => Shape.string(max: 200, empty: true)
                  }
                )
              ),
            "arrival" => Shape.one_of("cold", "warm", "hot"),
            "drop_off" => moment,
            "promised" => moment,
            "ahead" => MonthsAhead::SHAPE,
            "note" => Shape.string(max: 2000, empty: true, lines: true)
          }
        )

      # The first content of a quote for a vehicle.
      def self.start
        {
          "scopes" => [{ "name" => "", "cylinders" => [], "works" => %w[plug coil], "extras" => [] }],
          "active" => 0,
          "condition" => {
          },
          "history" => {
          },
          "codes" => false,
          "note" => ""
        }
      end

      # What of a content fits an engine, for a quote that moves to another revision of its engine.
      # @return [Array(Hash, Array<String>)] the content without what the engine lacks, and what was dropped
      def self.fit(hash, engine)
        dropped = []
        scopes = hash["scopes"].map { |scope| Selection.fit(engine, scope, dropped) }
        condition = hash["condition"] || {}
        wells =
          (condition["wells"] || {}).select { |number, _state| engine.cylinders.any? { |c| c.number.to_s == number } }
        condition = condition.merge("wells" => wells) if condition["wells"]
        kept = hash.merge("scopes" => scopes, "condition" => condition)
        kept["variants"] = answered(engine, hash["variants"]) if hash["variants"]
        kept["history"] = hash["history"].merge(
          "cylinders" => of_engine(engine, hash["history"]["cylinders"])
        ) if hash.dig("history", "cylinders")
        [kept, dropped.uniq]
      end

      # Answers that this engine asks for.
      def self.answered(engine, variants)
        (variants || {}).select do |id, option|
          engine.variants.questions.any? do |question|
            question.id == id && question.options.any? { |one| one["id"] == option }
          end
        end
      end

      # Entries of cylinders that this engine has.
      def self.of_engine(engine, cylinders) =
        (cylinders || {}).select { |number, _own| engine.cylinders.any? { |cylinder| cylinder.number.to_s == number } }

      attr_reader :assumed, :condition, :history, :variants, :settings

      # @param hash [Hash] checked against SHAPE here
      # @param vehicle [Hash] "odometer_km", "plugs_changed_km", "plugs_changed_years", "compound_used", "age_years",
      #   "corrosion", "fitted", "cylinders", "variants", "fittings" and "today" (Vehicle::Warranty.owed); nil where
      #   unknown
      # @param house [House::Settings] of the shop
      # @raise [InvalidInput]
      def initialize(hash, engine:, vehicle:, house: House::Settings.defaults, path: "/content")
        SHAPE.check!(hash, what: "quote", code: "invalid_quote", path: path)
        @hash = hash
        @engine = engine
        @vehicle = vehicle
        @house = house
        @assumed = []
        @selections =
          hash["scopes"].each_with_index.map { |scope, i| Selection.new(engine, scope, path: "#{path}/scopes/#{i}") }
        @variants = Content.answered(engine, @vehicle["variants"]).merge(hash["variants"] || {})
        @settings = House::Precedence.resolve(house, engine, schools)
        @condition = resolve_condition
        @history = resolve_history
        freeze
      end

      # How the engine arrives; decides the cooling.
      def arrival = @hash["arrival"] || "cold"

      # @return [Slots::ReadyTime::Moment, nil] the shop's wall clock, nil when not said
      def drop_off = moment("drop_off")
      def promised = moment("promised")

      # What is assumed of the time to come (MonthsAhead::SHAPE).
      # @return [Hash]
      def ahead = @hash["ahead"] || {}

      # Odometer at fitting of the parts we fitted, by the target that renews one.
      # @return [Hash{String=>Numeric}]
      def fitted_km
        known = (@vehicle["fittings"] || []).select { |one| one["km"] }
        @engine
          .targets
          .each_with_object({}) do |target, found|
            same = known.select { |one| one["work"] == target.work && target.cylinders == [one["cylinder"]] }
            found[target.id] = same.map { |one| one["km"] }.max if same.any?
          end
      end

      # Cylinders whose well holds oil: what seals it belongs on the quote, or the new coil drowns in turn.
      # @return [Array<Integer>]
      def oily_wells
        wells = (@hash["condition"] || {})["wells"] || {}
        wells.select { |_number, well| well == "oil" }.keys.map(&:to_i).sort
      end

      # Index of the scope on the page.
      def active = [@hash["active"].to_i, @selections.size - 1].min

      def scopes = @hash["scopes"]

      # @return [Selection]
      def selection(index) = @selections.fetch(index)

      # The estimate request of one scope, without its targets; engine and catalog are handed over built.
      # @param equipment [Array<String>] what the shop owns
      def request(index, equipment: [])
        scope = scopes[index]
        {
          "format" => "nimble-ledger.estimate-request",
          "version" => 1,
          "engine" => {
          },
          "equipment" => equipment,
          "condition" => condition,
          "history" => history,
          "variants" => variants,
          "soak" => scope["soak"] || "none",
          "codes" => @hash["codes"] || false,
          "pins" => scope["pins"] || {},
          "warranty" => @selections.fetch(index).charged? ? [] : owed,
          **(schools.empty? ? {} : { "house" => schools }),
          **adjustments(@selections.fetch(index))
        }
      end

      # What this job answers for itself where practitioners disagree (House::Schools).
      # @return [Hash{String=>Object}] by setting; empty where the house and the engine decide
      def schools = @hash["schools"] || {}

      # What finding out may cost at most; nil where it is not part of the quote.
      # @return [Hash, nil] {"hours", "buys"}
      def diagnosis = @hash["diagnosis"]

      private

      # What the advisor changed by hand.
      def adjustments(selection) =
        {
          "override" => selection.override,
          "discount" => selection.discount,
          "lines" => selection.lines.any? ? selection.lines.map(&:to_h) : nil,
          "diagnosis" => @hash["diagnosis"]&.slice("hours")
        }.compact

      # Ids of targets whose part we fitted and still owe on this car (model.md section 7).
      def owed =
        Vehicle::Warranty.owed(
          @engine.targets,
          @vehicle["fittings"] || [],
          house: @house,
          on: @vehicle["today"],
          km: noted("odometer_km")
        ).map(&:id)

      def moment(key) = @hash[key] && Slots::ReadyTime::Moment.parse(@hash[key], path: "/content/#{key}")

      def resolve_condition
        given = @hash["condition"] || {}
        old = (@vehicle["age_years"] || 0) > @settings["brittle_age_years"]
        {
          "corrosion" => given["corrosion"] || @vehicle["corrosion"] || "none",
          "brittle" => given["brittle"].nil? ? (@engine.hot_valley? || old) : given["brittle"],
          "bodged" => given["bodged"] || false,
          "wells" => (given["wells"] || {}).transform_values { |well| WELLS.fetch(well, well) }
        }
      end

      # Unknown: never changed, so reading 0 and as many years as the vehicle is old; compound not used. An odometer
      # that nobody read stands at least where plugs were changed.
      def resolve_history
        plugs = known_plugs
        {
          "odometer_km" =>
            known("odometer_km") { [(@vehicle["age_years"] || 10) * @house["yearly_km"], latest_change(plugs)].max },
          "plugs_changed_km" => known("plugs_changed_km") { 0 },
          "plugs_changed_years" => known("plugs_changed_years") { @vehicle["age_years"] || 10 },
          "compound_used" => known("compound_used") { false }
        }.merge(plugs)
      end

      # @return [Numeric] km; 0 where no change is known
      def latest_change(plugs)
        [
          noted("plugs_changed_km"),
          *plugs.fetch("cylinders", {}).values.map { |own| own["plugs_changed_km"] }
        ].compact.max || 0
      end

      # What is fitted, and what was done to which cylinder, where anything is known of it: the car's own notes first,
      # then this quote's, cylinder by cylinder and key by key; an empty entry takes the car's word again.
      def known_plugs
        given = @hash["history"] || {}
        fitted = given.key?("fitted") ? given["fitted"] : @vehicle["fitted"]
        cylinders =
          Content
            .of_engine(@engine, @vehicle["cylinders"])
            .merge(given["cylinders"] || {}) { |_number, noted, own| own.empty? ? own : noted.merge(own) }
        { "fitted" => fitted, "cylinders" => cylinders.reject { |_number, own| own.empty? } }.reject do |_key, value|
          value.nil? || value.empty?
        end
      end

      def known(key)
        found = noted(key)
        return found unless found.nil?

        @assumed << key
        yield
      end

      # This quote's word, else the car's.
      def noted(key)
        given = (@hash["history"] || {})[key]
        given.nil? ? @vehicle[key] : given
      end
    end
  end
end
