# frozen_string_literal: true

module NimbleLedger
  module Workshop
    # An engine from five answers, while the customer is on the phone (model.md section 1): how it is built and sits,
    # its ignition, what lies over which cylinders, what moves with it, its plugs. The profile says that it is
    # provisional, and its hours are wider (house: sketch_variation).
    class Sketch
      cylinders = Shape.list(Shape.integer(min: 1, max: 16), min: 1, max: 16, unique: true)
      # What may move with what is opened: each its own layer, or its own closing work.
      MOVES = %w[throttle harness module coolant tilt].freeze
      built = {
        "arrangement" => Shape.one_of("inline", "vee", "flat", "single"),
        "mounting" => Shape.one_of("lengthwise", "sideways"),
        "cylinders" => Shape.integer(min: 1, max: 16),
        "ignition" => Shape.one_of("coil-on-plug", "paired", "rail", "distributor", "single-coil")
      }
      more = {
        "layers" =>
          Shape.list(Shape.object(required: { "label" => Shape.string(max: 400), "cylinders" => cylinders }), max: 20),
        "moves" => Shape.list(Shape.one_of(*MOVES), max: MOVES.size, unique: true),
        "plug" =>
          Shape.object(
            optional: {
              "construction" => Shape.one_of("one-piece", "one-piece-long-reach", "multi-piece"),
              "grade" => Shape.one_of("nickel", "platinum", "iridium"),
              "seat" => Shape.one_of("gasket", "taper")
            }
          )
      }
      # What is offered to lie over the plugs, from the top down.
      OFFERED = [
        "Engine cover",
        "Intake pipe",
        "Air box",
        "Bracket",
        "Upper intake manifold",
        "Wiper arms and cowl tray"
      ].freeze
      names = { "code" => Shape.string(max: 60), "name" => Shape.string(max: 120) }
      # How an engine is built, with nothing over it yet.
      BARE = Shape.object(required: built)
      # The five answers; the shop gives a code and a name where they are empty.
      ASKED =
        Shape.object(
          required: built.merge(more),
          optional: {
            "code" => Shape.string(max: 60, empty: true),
            "name" => Shape.string(max: 120, empty: true)
          }
        )
      SHAPE = Shape.object(required: names.merge(built, more), optional: { "provisional" => Shape.boolean })
      RELEARN = {
        "what" => "Throttle relearn",
        "minutes" => [3, 5, 10],
        "needs" => ["scan-tool"],
        "without" => [15, 30, 45]
      }.freeze
      VOLTAGE = "Engine off and key out before coils or wires are touched: ignition voltage."
      BATTERY = "Battery negative off first: a module or harness is disturbed."
      TILT =
        "Tilt: rated strap and block on a sound point, engine supported before a mount comes off, never hands under " \
          "an engine held by a strap alone."
      HOT = "Hot coolant: the system is opened cold and without pressure."
      BLEED = { "what" => "Coolant: fill, bleed, recheck", "minutes" => [10, 15, 25] }.freeze

      # @param built [Hash] fits BARE
      # @return [Array<Hash>] label and the cylinders it usually lies over, of each layer that is offered
      # @raise [InvalidInput] with the path of what does not fit together
      def self.offered(built)
        BARE.check!(built, what: "sketch", code: "invalid_sketch")
        layout = Layout.new(built)
        OFFERED.map { |label| { "label" => label, "cylinders" => layout.usually(UsualTimes.of("label" => label)) } }
      end

      # @param given [Hash] fits SHAPE
      # @param kinds [UsualTimes]
      # @param house [House::Settings]
      # @raise [InvalidInput] with the path of what does not fit together
      def initialize(given, kinds:, house: House::Settings.defaults)
        SHAPE.check!(given, what: "sketch", code: "invalid_sketch")
        @given = given
        @kinds = kinds
        @house = house
        @count = given["cylinders"]
        @layout = Layout.new(given)
        check
      end

      # @return [Hash] a sound profile, provisional unless the answers say otherwise
      def profile
        made = layers.insert(manifold || -1, *moved).reduce(bare) { |so_far, layer| laid(so_far, layer) }
        coolant(made) if moves?("coolant")
        made
      end

      private

      # A layer to come: its name, its cylinders, and what is said of it besides.
      Layer = Struct.new(:label, :cylinders, :facts)

      def check
        refuse("cylinders", "a single has one") if @given["arrangement"] == "single" && @count != 1
        refuse("cylinders", "must be even in a vee or a flat engine") if @layout.banked? && @count.odd?
        @given["layers"].each_with_index do |layer, i|
          lost = layer["cylinders"].find { |number| number > @count } or next

          refuse("layers/#{i}/cylinders", "names cylinder #{lost}; the engine has #{@count}")
        end
      end

      def refuse(at, message) = raise(InvalidInput.at("/#{at}", message, what: "sketch", code: "invalid_sketch"))
      def moves?(what) = @given["moves"].include?(what)
      def numbers = @layout.numbers

      # The engine with nothing over it.
      def bare
        profile =
          @given.slice("code", "name", "arrangement", "mounting", "ignition").merge(
            "format" => "nimble-ledger.engine",
            "version" => 1,
            "notes" => "",
            "head" => "aluminum",
            "cylinders" => numbers.map { |number| @layout.place(number) },
            "plug" => {
              "part" => "#{Pattern::PART}plug",
              **@given["plug"]
            },
            "coils" => coils,
            "steps" => singles,
            "targets" => targets
          )
        profile.merge!(provisional) if @given.fetch("provisional", true)
        noted(profile)
      end

      def provisional
        { "provisional" => true, "house_overrides" => { "common_variation" => @house["sketch_variation"] } }
      end

      def noted(profile)
        Profile::Origins::KEYS.each do |list, keys|
          profile[list].product(keys).each { |row, key| Profile::Origins.note(profile, list, row["id"], key, "kind") }
        end
        profile
      end

      # What comes off with each cylinder alone.
      def singles
        case @given["ignition"]
        when "coil-on-plug"
          numbers.map { |number| single("coil", "Coil #{number}", number) }
        when "paired"
          numbers.map { |number| seated(number) }
        when "rail"
          [step("coil-rail", "Coil rail", "rail").merge("cautions" => [VOLTAGE])]
        else
          numbers.map { |number| single("wire", "Wire off plug #{number}", number) }
        end
      end

      def seated(number)
        partner = partner_of(number)
        return single("coil", "Coil on #{number}, fires #{partner}", number) if number < partner

        single("wire", "Wire off plug #{number}", number)
      end

      def single(kind, label, number)
        step("#{kind}-#{number}", label, kind).merge("cylinder" => number, "cautions" => [VOLTAGE])
      end

      def step(id, label, kind)
        {
          "id" => id,
          "label" => label,
          "remove" => @kinds.typical(kind, "remove"),
          "refit" => @kinds.typical(kind, "refit")
        }
      end

      def partner_of(number) = @count + 1 - number

      def coils
        case @given["ignition"]
        when "coil-on-plug"
          numbers.map { |number| coil("coil-#{number}", [number]) }
        when "paired"
          numbers
            .select { |number| number <= partner_of(number) }
            .map { |n| coil("coil-#{n}", [n, partner_of(n)].uniq) }
        when "rail"
          [coil("coil-rail", numbers)]
        else
          [coil("coil", numbers)]
        end
      end

      def coil(id, cylinders) = { "id" => id, "part" => "#{Pattern::PART}coil", "cylinders" => cylinders }

      def targets
        own = singles.map { |one| one["id"] }
        plugs = numbers.map { |number| target("plug-#{number}", "plug", number, own_of(number, own)) }
        plugs + coil_targets(own) + wire_targets(own)
      end

      def own_of(number, own) = own.select { |id| id.end_with?("-#{number}") || id == "coil-rail" }

      def coil_targets(own)
        coils.filter_map do |coil|
          number = coil["cylinders"].first
          several = coil["cylinders"].size > 1
          through = own.select { |id| id == coil["id"] }
          made = target(coil["id"], "coil", number, through)
          several ? made.except("cylinder").merge("cylinders" => coil["cylinders"]) : made
        end
      end

      def wire_targets(own)
        own.grep(/\Awire-/).map { |id| target(id, "wire", id[/\d+/].to_i, [id]) }
      end

      def target(id, work, number, through)
        {
          "id" => id,
          "work" => work,
          "cylinder" => number,
          "minutes" => @kinds.typical(work, "minutes"),
          "ways" => [{ "id" => "from-above", "through" => through }]
        }
      end

      def layers = @given["layers"].map { |layer| Layer.new(layer["label"], layer["cylinders"], {}) }

      # What moves comes off before the manifold does, over the same cylinders; without one, over the deepest.
      def manifold = @given["layers"].index { |layer| UsualTimes.of(layer) == "manifold" }

      def moved
        deep = manifold ? @given["layers"][manifold]["cylinders"] : deepest
        [
          moves?("tilt") &&
            Layer.new("Upper engine mounts, engine tilted", deep, "needs" => ["strap-and-block"], "cautions" => [TILT]),
          moves?("module") &&
            Layer.new("Control module and its bracket", deep, "battery" => true, "cautions" => [BATTERY]),
          moves?("harness") && Layer.new("Harness and brackets", deep, "battery" => true, "cautions" => [BATTERY]),
          moves?("throttle") && Layer.new("Throttle body", deep, "closing" => [RELEARN])
        ].select(&:itself)
      end

      def deepest
        count =
          numbers.to_h { |number| [number, @given["layers"].count { |layer| layer["cylinders"].include?(number) }] }
        most = count.values.max
        count.select { |_number, layers| layers == most }.keys
      end

      def laid(profile, layer)
        known = profile["steps"].map { |one| one["id"] }
        act = { "do" => "add", "label" => layer.label, "cylinders" => layer.cylinders }
        made = Acts.new(profile, kinds: @kinds).apply(act)
        made["steps"].find { |one| !known.include?(one["id"]) }.merge!(layer.facts)
        made
      end

      # Opened with the deepest layer, filled and bled when all is back.
      def coolant(profile)
        layer = profile["steps"].reject { |one| one["cylinder"] || one["id"] == "coil-rail" }.last or return

        layer["releases"] = [{ "fluid" => "coolant", "liters" => 0.5 }]
        layer["closing"] = [*layer["closing"], BLEED]
        layer["cautions"] = [*layer["cautions"], HOT]
      end
    end
  end
end
