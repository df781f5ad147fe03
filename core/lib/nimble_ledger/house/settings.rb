# frozen_string_literal: true

module NimbleLedger
  module House
    # Every figure a shop may set for itself, with the shipped default (the italic numbers of model.md).
    # Each setting is declared once: its group, default, shape, and the words it is shown with.
    #
    #   House::Settings.defaults.with("rate_cents" => 16_000)["rate_cents"]  #=> 16000
    class Settings
      Declared = Struct.new(:name, :group, :default, :shape, :label, :caution)

      DECLARED = {} # rubocop:disable Style/MutableConstant -- filled below, frozen at the end

      # @param caution [String, nil] what whoever changes it should know first
      def self.declare(group, name, default, shape, label, caution = nil)
        DECLARED[name] = Declared.new(name, group, default, shape, label, caution)
      end
      private_class_method :declare

      share = Shape.number(max: 1, unit: "share")
      factor = Shape.number(max: 1000, above: 0, unit: "factor")
      minutes = Shape.number(max: 10_000, unit: "minutes")
      cents = Shape.integer(max: 100_000_000, unit: "cents")
      years = Shape.number(max: 100, unit: "years")
      points = Shape.triple(max: 10_000, unit: "minutes")
      wear = Shape.object(required: { "none" => factor, "light" => factor, "heavy" => factor })
      bracket =
        Shape.object(
          required: {
            "up_to_cents" => Shape.nullable(cents),
            "factor" => Shape.number(min: 1, max: 20, unit: "factor")
          }
        )
      # One tax: what it is called, how much, and on what.
      TAX =
        Shape.object(
          required: {
            "label" => Shape.string(max: 60),
            "percent" => Shape.number(max: 100, unit: "percent"),
            "on" => Shape.list(Shape.one_of("labor", "parts", "fees"), max: 3, unique: true)
          }
        )
      fee = Shape.object(required: { "label" => Shape.string(max: 60), "cents" => cents })
      repair = Shape.object(required: { "minutes" => minutes, "cents" => cents })
      construction =
        Shape.object(required: %w[one-piece one-piece-long-reach multi-piece].to_h { |kind| [kind, share] })
      soak =
        Shape.object(
          required: {
            "hands_on" => minutes,
            "wait" => minutes,
            "overnight" => Shape.boolean,
            "break_factor" => factor
          }
        )

      declare "money", "rate_cents", 14_500, cents, "Labor rate per hour"
      declare "money", "diagnosis_rate_cents", 14_500, cents, "Diagnosis rate per hour"
      declare "money", "diagnosis_credited", true, Shape.boolean, "Diagnosis is credited with the repair"
      declare "money",
              "currency",
              "USD",
              Shape.string(max: 3, pattern: /\A[A-Z]{3}\z/),
              "Currency",
              "Prices, rates and fees keep their figures and are read in the new currency; nothing is converted."
      declare "money",
              "currency_exponent",
              2,
              Shape.integer(max: 3),
              "Decimals of the currency",
              "Amounts are kept in the smallest unit: with other decimals every price, rate and fee means " \
                "something else. Set the price list anew after it."
      declare "money",
              "markup",
              [
                { "up_to_cents" => 2_000, "factor" => 2.0 },
                { "up_to_cents" => 10_000, "factor" => 1.6 },
                { "up_to_cents" => 40_000, "factor" => 1.4 },
                { "up_to_cents" => nil, "factor" => 1.25 }
              ],
              Shape.list(bracket, min: 1, max: 12),
              "Parts markup, by marginal brackets"
      declare "money", "supplies_percent", 6, Shape.number(max: 100, unit: "percent"), "Shop supplies, share of labor"
      declare "money", "supplies_cap_cents", 3_500, cents, "Shop supplies, at most"
      declare "money", "fees", [], Shape.list(fee, max: 10), "Fees on every job"
      declare "money", "taxes", [], Shape.list(TAX, max: 6), "Taxes"
      declare "money", "tax_inclusive", false, Shape.boolean, "Prices already include tax"
      declare "money", "kit_rule", "whole", Shape.one_of("whole", "used-parts"), "A seal kit sells"
      declare "money",
              "consumables",
              "lines",
              Shape.one_of("lines", "in-supplies"),
              "Grease, compound and cleaner: lines of their own, or inside the shop supplies"
      declare "money",
              "bill_hours",
              "quoted",
              Shape.one_of("quoted", "lesser"),
              "Hours that are billed: those quoted, or what was worked where that is less"
      declare "money", "grease_cents", 60, cents, "Boot grease, each boot"
      declare "money", "compound_cents", 40, cents, "Thread compound, each plug"
      declare "money", "cleaner_cents", 125, cents, "Penetrating cleaner, each soaked plug"
      declare "money", "coolant_cents_per_liter", 900, cents, "Coolant top-up, each liter"

      declare "hours",
              "quantile",
              0.65,
              Shape.number(min: 0.05, max: 0.99, unit: "share"),
              "Quoted hours stand at this share of jobs"
      declare "hours",
              "increment_hours",
              0.1,
              Shape.number(min: 0.1, max: 1, unit: "hours"),
              "Quoted hours are rounded up to"
      declare "hours", "minimum_hours", 0.5, Shape.number(max: 8, unit: "hours"), "Least hours quoted"
      declare "hours", "common_variation", 0.12, share, "Common variation of a whole job"
      declare "hours", "sketch_variation", 0.25, share, "The same on an engine that is only sketched"
      declare "hours",
              "house_tasks",
              {
                "receive" => 6,
                "cold_check" => 1,
                "leak_check" => 6,
                "road_test" => 12,
                "battery" => 5,
                "scan_clear" => 5
              },
              Shape.object(
                required: %w[receive cold_check leak_check road_test battery scan_clear].to_h { |t| [t, minutes] }
              ),
              "House tasks"
      declare "hours",
              "repairs",
              {
                "connector" => {
                  "minutes" => 20,
                  "cents" => 1_200
                },
                "bolt" => {
                  "minutes" => 40,
                  "cents" => 600
                },
                "lost-in-well" => {
                  "minutes" => 25,
                  "cents" => 0
                }
              },
              Shape.object(required: %w[connector bolt lost-in-well].to_h { |kind| [kind, repair] }),
              "Small repairs that are found beside the job: minutes, and what they take"
      declare "hours", "near_tie_minutes", 2, minutes, "A quieter way is named beside the shortest within"
      declare "hours", "order_of_work", "one-at-a-time", Shape.one_of("one-at-a-time", "all-out"), "Order of work"

      declare "condition",
              "corrosion_remove",
              { "none" => 1.0, "light" => 1.15, "heavy" => 1.4 },
              wear,
              "Rust, removing"
      declare "condition",
              "corrosion_refit",
              { "none" => 1.0, "light" => 1.05, "heavy" => 1.15 },
              wear,
              "Rust, refitting"
      declare "condition", "brittle_factor", 1.2, factor, "Brittle connectors, removing"
      declare "condition", "brittle_age_years", 12, years, "Connectors count as brittle above this age"
      declare "condition", "bodge_factor", 1.1, factor, "Earlier bodge noted"

      declare "risk",
              "break_chance",
              { "one-piece" => 0.003, "one-piece-long-reach" => 0.008, "multi-piece" => 0.07 },
              construction,
              "Chance that a plug breaks, by construction"
      declare "risk", "thread_chance", 0.002, share, "Chance that a thread is damaged"
      declare "risk", "stubborn_chance", 0.06, share, "Chance that a plug is stubborn"
      declare "risk", "distance_factor", 1.6, factor, "Odds, for each interval beyond the first"
      declare "risk", "years_factor", 1.06, factor, "Odds, for each year"
      declare "risk", "years_free", 5, years, "Years before age counts"
      declare "risk",
              "head_factor",
              { "aluminum" => 1.0, "cast-iron" => 0.6 },
              Shape.object(required: { "aluminum" => factor, "cast-iron" => factor }),
              "Odds, by head"
      declare "risk", "wear_factor", { "none" => 1.0, "light" => 1.4, "heavy" => 2.2 }, wear, "Odds, rust or wet well"
      declare "risk", "compound_factor", 0.6, factor, "Odds, compound used last time"
      declare "risk", "stubborn_minutes", [4, 8, 20], points, "A stubborn plug takes"
      declare "risk", "insert_minutes", [25, 40, 80], points, "A thread insert takes"
      declare "risk", "extraction_minutes", [30, 55, 120], points, "Extracting a broken plug takes"
      declare "risk", "cure_minutes", 60, minutes, "Adhesive cure, multi-piece plugs"
      declare "risk", "extraction_fails", 0.04, share, "Extraction fails"
      declare "risk", "mishap_brittle_factor", 2.0, factor, "Mishap odds, brittle connectors"
      declare "risk", "mishap_rust_factor", { "none" => 1.0, "light" => 1.5, "heavy" => 2.5 }, wear, "Mishap odds, rust"
      declare "risk",
              "soaks",
              {
                "none" => {
                  "hands_on" => 0,
                  "wait" => 0,
                  "overnight" => false,
                  "break_factor" => 1
                },
                "short" => {
                  "hands_on" => 1,
                  "wait" => 20,
                  "overnight" => false,
                  "break_factor" => 0.55
                },
                "crack-and-soak" => {
                  "hands_on" => 2,
                  "wait" => 40,
                  "overnight" => false,
                  "break_factor" => 0.4
                },
                "overnight" => {
                  "hands_on" => 2,
                  "wait" => 0,
                  "overnight" => true,
                  "break_factor" => 0.28
                },
                "overnight-impact" => {
                  "hands_on" => 2,
                  "wait" => 0,
                  "overnight" => true,
                  "break_factor" => 0.22
                }
              },
              Shape.object(required: %w[none short crack-and-soak overnight overnight-impact].to_h { |s| [s, soak] }),
              "Soak protocols"
      declare "risk",
              "clear_after_soak_from",
              3,
              Shape.integer(max: 64, unit: "plugs"),
              "Soaked plugs from which the engine is turned over with plugs out; 0: never"
      declare "risk",
              "shelf_from_chance",
              0.05,
              share,
              "Chance of a break from which extraction sets are on the shelf first"
      declare "risk",
              "live_variance",
              0.8,
              Shape.number(max: 100, unit: "factor"),
              "Variance of what the plugs of one car share and their history does not say; 0: nothing"
      declare "risk",
              "sign_factor",
              { "freer" => 0.5, "more-force" => 2.0, "chirps" => 0.9 },
              Shape.object(required: { "freer" => factor, "more-force" => factor, "chirps" => factor }),
              "Odds of the rest, by the signs seen"
      declare "risk", "hot_factor", 1.5, factor, "Odds of the rest, turned hot"
      declare "risk", "soak_above", 0.1, share, "A quote starts with the recommended soak above this chance of a break"
      declare "risk", "extraction_set_cents", 3_800, cents, "Extraction consumables, each broken plug"
      declare "risk", "extraction_kit_cents", 4_500, cents, "Extraction kit, once a job"
      declare "risk", "insert_cents", 2_200, cents, "Thread insert, each"
      declare "risk",
              "call_share",
              0.9,
              Shape.number(min: 0.5, max: 0.999, unit: "share"),
              "The limit covers this share of outcomes"
      declare "risk", "call_margin", 0.05, share, "The limit stands at least this far above the quote"

      day = Shape.nullable(Shape.list(Shape.string(max: 5, pattern: /\A([01]\d|2[0-3]):[0-5]\d\z/), min: 2, max: 2))
      declare "slots",
              "opening_hours",
              {
                "mon" => %w[08:00 17:30],
                "tue" => %w[08:00 17:30],
                "wed" => %w[08:00 17:30],
                "thu" => %w[08:00 17:30],
                "fri" => %w[08:00 17:00],
                "sat" => %w[08:30 12:30],
                "sun" => nil
              },
              Shape.object(required: %w[mon tue wed thu fri sat sun].to_h { |name| [name, day] }),
              "Opening hours"
      declare "slots",
              "promise_share",
              0.8,
              Shape.number(min: 0.5, max: 0.99, unit: "share"),
              "A time is promised that this share of such days keep"
      declare "slots",
              "last_start_minutes",
              15,
              Shape.number(max: 600, unit: "minutes"),
              "No new job is begun in the last minutes of somebody's day"
      declare "slots",
              "near_minutes",
              30,
              Shape.number(max: 600, unit: "minutes"),
              "A time so much later is offered where it costs other promises less"
      declare "slots",
              "call_ahead_minutes",
              60,
              Shape.number(max: 10_000, unit: "minutes"),
              "A customer whose time will not hold is called so long before it"
      {
        "remind_day_before" => [true, "A customer is reminded the day before by a message"],
        "tell_ready" => [true, "A customer is told by a message when the car is ready"],
        "tell_late" => [false, "A customer is told by a message when another time is promised"]
      }.each { |name, (shipped, says)| declare "slots", name, shipped, Shape.boolean, says }
      declare "slots", "hold_hours", 24, Shape.number(max: 336, above: 0, unit: "hours"), "A time is held before a yes"
      declare "slots",
              "cool_minutes",
              { "hot" => 150, "warm" => 60, "cold" => 0 },
              Shape.object(required: { "hot" => minutes, "warm" => minutes, "cold" => minutes }),
              "Cooling before plugs are touched, by arrival"

      kilometers = Shape.number(max: 10_000_000, above: 0, unit: "km")
      nm = Shape.number(max: 1000, above: 0, unit: "N·m")
      heads = Shape.object(required: { "aluminum" => nm, "cast-iron" => nm })
      turns = Shape.list(Shape.number(max: 3, unit: "turns"), min: 2, max: 2)
      declare "bench",
              "fine_wire",
              "never",
              Shape.one_of("never", "tool"),
              "Fine-wire gap: never bent, or set with a gapping tool on the ground strap only"
      declare "bench", "compound_torque", 0.3, share, "Compound takes off a dry torque"
      declare "bench", "wrench_least", 0.2, share, "Least setting of a torque wrench, of its full scale"
      declare "bench",
              "seat_torque",
              {
                "gasket" => {
                  "10" => {
                    "aluminum" => 11,
                    "cast-iron" => 12
                  },
                  "12" => {
                    "aluminum" => 18,
                    "cast-iron" => 20
                  },
                  "14" => {
                    "aluminum" => 25,
                    "cast-iron" => 30
                  },
                  "18" => {
                    "aluminum" => 38,
                    "cast-iron" => 43
                  }
                },
                "taper" => {
                  "14" => {
                    "aluminum" => 15,
                    "cast-iron" => 20
                  },
                  "18" => {
                    "aluminum" => 20,
                    "cast-iron" => 25
                  }
                }
              },
              Shape.object(
                required: {
                  "gasket" => Shape.object(required: %w[10 12 14 18].to_h { |thread| [thread, heads] }),
                  "taper" => Shape.object(required: %w[14 18].to_h { |thread| [thread, heads] })
                }
              ),
              "Torque where the profile has none, by seat, thread and head"
      declare "bench",
              "seat_turns",
              {
                "gasket-new" => [1 / 2.0, 2 / 3.0],
                "gasket-new-10" => [1 / 2.0, 1 / 2.0],
                "gasket-used" => [1 / 12.0, 1 / 12.0],
                "taper" => [1 / 16.0, 1 / 16.0]
              },
              Shape.object(required: %w[gasket-new gasket-new-10 gasket-used taper].to_h { |seat| [seat, turns] }),
              "Turns after finger-tight, by seat"
      declare "bench",
              "grade_km",
              { "nickel" => 40_000, "platinum" => 80_000, "iridium" => 100_000 },
              Shape.object(required: %w[nickel platinum iridium].to_h { |grade| [grade, kilometers] }),
              "Distance between changes where the profile has none, by grade"
      declare "bench",
              "boosted_interval",
              0.5,
              Shape.either(factor, Shape.one_of("stated", "halved"), say: "a factor, stated or halved"),
              "That distance, turbocharged with direct injection",
              "A number: times what its grade gives, where the maker states no distance. \"Stated\" is half of that; " \
                "\"halved\" halves what the maker states as well."
      declare "bench", "severe_use", 0.7, factor, "Distance and months between changes, in severe use"

      km = Shape.number(above: 0, max: 100_000_000, unit: "km")
      lasting = Shape.object(required: { "shape" => factor, "scale_km" => km })
      declare "scopes", "coil_life", { "shape" => 2.6, "scale_km" => 260_000 }, lasting, "How long coils last"
      declare "scopes", "boot_life", { "shape" => 2.6, "scale_km" => 420_000 }, lasting, "How long boots last"
      declare "scopes", "wire_life", { "shape" => 2.2, "scale_km" => 240_000 }, lasting, "How long wires last"
      declare "scopes",
              "plug_life",
              { "shape" => 5, "intervals" => 2.5 },
              Shape.object(required: { "shape" => factor, "intervals" => factor }),
              "How long plugs last, in their intervals"
      declare "scopes", "frailty_variance", 0.6, factor, "Variance of what the old parts of one kind share"
      declare "scopes",
              "found_factor",
              { "weak" => 2.5, "sound" => 0.8 },
              Shape.object(required: { "weak" => factor, "sound" => factor }),
              "Times the hazard to come, where a kind was found weak or sound"
      declare "scopes", "new_defect", 0.005, share, "Chance that a new part is defective"
      declare "scopes", "return_own_cents", 15_000, cents, "The customer's own cost of an unplanned visit"
      declare "scopes",
              "yearly_km",
              15_000,
              Shape.number(max: 1_000_000, unit: "km"),
              "Distance of a year, where nobody says",
              "An unknown odometer is the car's age times this; the months ahead of a quote start from it."
      declare "scopes", "horizon_months", 24, Shape.number(above: 0, max: 600, unit: "months"), "Months looked ahead"
      declare "scopes", "also_share", 0.1, share, "A better chance is named up to so much above the least net"
      declare "scopes", "also_points", 0.05, share, "And only if it is so much better"

      words = Shape.string(max: 400, empty: true)
      words_caution = "May name {name}, {shop}, {car}, {total}, {link} and {until}; {link} must be in it."
      said = ->(max) { Shape.string(max: max, empty: true) }
      declare "customers", "shop_address", "", said.call(200), "Our address, on paper and page"
      declare "customers", "shop_phone", "", said.call(40), "Our phone"
      declare "customers", "shop_mail", "", said.call(120), "Our mail"
      declare "customers", "tax_number", "", said.call(60), "Our tax number"
      declare "customers", "opening_line", "", said.call(200), "When we are open, in a line"
      declare "customers", "quote_days", 30, Shape.integer(min: 1, max: 365, unit: "days"), "A quote holds for"
      declare "customers", "warranty_months", 12, Shape.integer(max: 120, unit: "months"), "Our warranty lasts"
      declare "customers", "warranty_km", 20_000, Shape.integer(max: 1_000_000, unit: "km"), "Our warranty, distance"
      declare "customers", "text_words", "", words, "Text message with the link (empty: as shipped)", words_caution
      declare "customers", "mail_words", "", words, "Mail with the link (empty: as shipped)", words_caution

      answers = ->(name) { Shape.one_of(*Schools.values(name)) }
      declare "schools", "temperature", "cold", answers.call("temperature"), "Engine temperature"
      declare "schools", "boots", "damaged", answers.call("boots"), "Boots with new plugs"
      declare "schools", "wells", "both", answers.call("wells"), "Cleaning the wells"
      declare "schools", "gap_check", "check", answers.call("gap_check"), "Gap of a new plug"
      declare "schools", "power_tools", "never", answers.call("power_tools"), "Power tools on plugs"
      declare "schools", "chirp", "good", answers.call("chirp"), "A chirp while a plug moves"
      declare "schools", "chirp_bad_factor", 1.5, factor, "Odds of the rest where a chirp is a bad sign"
      declare "schools", "battery", "asked", answers.call("battery"), "Battery"
      declare "schools",
              "near_ties",
              "named",
              answers.call("near_ties"),
              "A way about as short that spares the car something"

      declare "parts", "inspect_seals", "if-needed", Shape.one_of("if-needed", "replace"), "Seals marked inspect"
      declare "parts", "compound", "profile", Shape.one_of("profile", "none", "film"), "Thread compound"
      declare "parts", "boot_grease", "reused", Shape.one_of("reused", "none"), "Boot grease"

      DECLARED.freeze
      SHAPE = Shape.object(optional: DECLARED.transform_values(&:shape))

      # @return [Settings] the shipped defaults
      def self.defaults = @defaults ||= new(DECLARED.transform_values(&:default))

      # @param values [Hash] all settings by name; use .defaults.with(...) to override a few
      def initialize(values)
        @values = values.freeze
        @tasks = {}
        freeze
      end

      # @raise [KeyError] for a name that is not declared
      def [](name) = @values.fetch(name)

      # @param name [String] of a house task
      # @return [ThreePoints] minutes (model.md section 4)
      def task(name) = @tasks[name] ||= ThreePoints.around(self["house_tasks"].fetch(name))

      # @param overrides [Hash] settings to change; must fit SHAPE
      # @raise [InvalidInput] for unknown names or values out of range, with their path
      def with(overrides, path: "/house")
        return self if overrides.nil? || overrides.empty?

        SHAPE.check!(overrides, what: "house settings", path: path)
        found =
          bracket_faults(overrides["markup"], "#{path}/markup") +
            hours_faults(overrides["opening_hours"], "#{path}/opening_hours") +
            increment_faults(overrides["increment_hours"], "#{path}/increment_hours") +
            words_faults(overrides.slice("text_words", "mail_words"), path)
        unless found.empty?
          raise InvalidInput.new("The house settings do not fit together: #{found.first["message"]}.", details: found)
        end

        Settings.new(@values.merge(overrides))
      end

      def to_h = @values

      private

      # Brackets climb and the last is open; no factor is below 1: a dearer part never sells cheaper.
      def bracket_faults(brackets, path)
        return [] unless brackets

        limits = brackets.map { |bracket| bracket["up_to_cents"] }
        rising = limits[0..-2].all? && limits[0..-2].each_cons(2).all? { |a, b| a < b }
        return [] if rising && limits.last.nil?

        [{ "path" => path, "message" => "brackets must climb and the last must be open (up_to_cents: null)" }]
      end

      # A message without the link would lead nowhere.
      def words_faults(templates, path)
        templates
          .reject { |_name, text| text.empty? || text.include?("{link}") }
          .map { |name, _text| { "path" => "#{path}/#{name}", "message" => "must hold {link}, where the quote is" } }
      end

      # Hours are whole tenths inside: an increment between two of them would be taken for another.
      def increment_faults(hours, path)
        return [] if hours.nil? || ((hours * 10) - (hours * 10).round).abs < 1e-9

        [{ "path" => path, "message" => "hours are rounded to whole tenths: 0.1, 0.2, 0.5 and so on" }]
      end

      # A day closes after it opens, and some day is open: otherwise no car would ever be ready.
      def hours_faults(days, path)
        return [] unless days
        return [{ "path" => path, "message" => "the shop must be open on some day" }] if days.values.none?

        days
          .select { |_, times| times && times[0] >= times[1] }
          .map { |day, _| { "path" => "#{path}/#{day}", "message" => "a day must close after it opens" } }
      end
    end
  end
end
