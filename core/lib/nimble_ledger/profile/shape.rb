# frozen_string_literal: true

module NimbleLedger
  # The engine profile: its shape, its values, and what makes one sound (model.md section 1).
  module Profile
    WORKS = %w[plug coil wire boot cap-and-rotor tube-seal cover-gasket compression look other].freeze
    ZONES = %w[top front rear left right under].freeze
    SOAKS = %w[none short crack-and-soak overnight overnight-impact].freeze
    BANKS = %w[left right front rear].freeze

    MAX_STEPS = 80
    MAX_TARGETS = 64
    MAX_CHOICES = 12
    MAX_MEMBERS = 6
    MAX_WAYS = 4
    MAX_TARGETS_WITH_WAYS = 24
    MAX_VARIANTS = 8

    id = Shape.string(max: 80)
    text = Shape.string(max: 400)
    part = Shape.string(max: 60)
    names = Shape.list(id, max: 40)
    cautions = Shape.list(text, max: 40)
    points = Shape.triple
    cylinder = Shape.integer(min: 1, max: 99)
    member_of = Shape.object(required: { "any" => Shape.list(id, min: 2, max: MAX_MEMBERS, unique: true) })
    reached = Shape.list(Shape.either(id, member_of, say: "a step id or {\"any\": [...]}"), max: MAX_STEPS)
    quantity = Shape.integer(min: 1, max: 1000)
    chance = Shape.number(max: 1)
    torque = Shape.number(max: 1000)
    parts = Shape.list(Shape.object(required: { "part" => part, "quantity" => quantity }), max: 40)

    seal =
      Shape.object(
        required: {
          "part" => part
        },
        optional: {
          "quantity" => quantity,
          "rule" => Shape.one_of("replace", "inspect"),
          "chance" => chance
        }
      )
    fastener =
      Shape.object(
        required: {
          "what" => text
        },
        optional: {
          "size" => text,
          "count" => quantity,
          "torque_nm" => torque,
          "pattern" => text,
          "part" => part,
          "rule" => Shape.one_of("replace", "reuse"),
          "passes" => Shape.integer(min: 1, max: 2)
        }
      )
    clip = Shape.object(required: { "part" => part }, optional: { "count" => quantity, "chance" => chance })
    mishap =
      Shape.object(
        required: {
          "what" => text,
          "chance" => chance,
          "minutes" => points
        },
        optional: {
          "parts" =>
            Shape.list(
              Shape.either(
                part,
                Shape.object(required: { "part" => part, "quantity" => quantity }),
                say: "a part or {part, quantity}"
              ),
              max: 20
            )
        }
      )
    wait =
      Shape.object(
        required: {
          "minutes" => Shape.number(max: 100_000)
        },
        optional: {
          "for" => text,
          "when" => Shape.one_of("before-remove", "after-remove", "after-refit"),
          "holds_bay" => Shape.boolean
        }
      )
    release = Shape.object(required: { "fluid" => text, "liters" => Shape.number(max: 200) })
    closing =
      Shape.object(
        required: {
          "what" => text,
          "minutes" => points
        },
        optional: {
          "order" => Shape.integer(min: -1000, max: 1000),
          "needs" => names,
          "without" => points,
          "running" => Shape.boolean
        }
      )

    step =
      Shape.object(
        required: {
          "id" => id,
          "label" => text,
          "remove" => points,
          "refit" => points
        },
        optional: {
          "zone" => Shape.one_of(*ZONES),
          "after" => reached,
          "needs" => names,
          "cylinder" => Shape.nullable(cylinder),
          "battery" => Shape.boolean,
          "rust_prone" => Shape.boolean,
          "brittle" => Shape.boolean,
          "seals" => Shape.list(seal, max: 40),
          "fasteners" => Shape.list(fastener, max: 40),
          "clips" => Shape.list(clip, max: 40),
          "mishaps" => Shape.list(mishap, max: 20),
          "waits" => Shape.list(wait, max: 20),
          "releases" => Shape.list(release, max: 20),
          "cautions" => cautions,
          "closing" => Shape.list(closing, max: 20),
          "people" => Shape.integer(min: 1, max: 6),
          "when" => Shape.map(Shape.list(id, min: 1, max: 20, unique: true), max: MAX_VARIANTS),
          "back" => Shape.one_of("at-once", "after-run"),
          "opens_ports" => Shape.boolean,
          "takes_out" => Shape.one_of("plug", "none"),
          "hoses" => Shape.list(Shape.object(required: { "what" => text }, optional: { "to" => text }), max: 40),
          "connectors" =>
            Shape.list(Shape.object(required: { "what" => text }, optional: { "count" => quantity }), max: 40),
          "over" => Shape.list(cylinder, max: 32, unique: true)
        }
      )
    way =
      Shape.object(
        required: {
          "id" => id
        },
        optional: {
          "through" => reached,
          "factor" => Shape.number(max: 1000),
          "needs" => names,
          "cautions" => cautions
        }
      )
    # What a plug is known by; a target may differ from its engine in these (two plugs a cylinder, each its own).
    fitted = {
      "part" => part,
      "reach_mm" => Shape.number(max: 200),
      "hex_mm" => Shape.number(max: 100),
      "torque_nm" => torque,
      "gap_mm" => Shape.object(required: { "low" => Shape.number(max: 20), "high" => Shape.number(max: 20) })
    }
    target =
      Shape.object(
        required: {
          "id" => id,
          "work" => Shape.one_of(*WORKS),
          "minutes" => points,
          "ways" => Shape.list(way, min: 1, max: MAX_WAYS)
        },
        optional: {
          "cylinder" => Shape.nullable(cylinder),
          "cylinders" => Shape.list(cylinder, min: 1, max: 99, unique: true),
          "label" => text,
          "wrench_fits" => Shape.boolean,
          "extraction_factor" => Shape.number(max: 100),
          "parts" => parts,
          "plugs" => Shape.integer(min: 1, max: 4),
          "plugs_out" => Shape.boolean,
          "crank" => Shape.boolean,
          "position" => text,
          "coil" => id,
          "tools" => Shape.list(text, max: 40),
          "cautions" => cautions,
          "plug" => Shape.object(optional: fitted)
        }
      )
    plug =
      Shape.object(
        optional:
          fitted.slice("part").merge(
            "per_cylinder" => Shape.integer(min: 1, max: 4),
            "grade" => Shape.one_of("nickel", "platinum", "iridium"),
            "construction" => Shape.one_of("one-piece", "one-piece-long-reach", "multi-piece"),
            "thread_mm" => Shape.number(max: 100),
            **fitted.slice("reach_mm", "hex_mm"),
            "seat" => Shape.one_of("gasket", "taper"),
            **fitted.slice("gap_mm", "torque_nm"),
            "interval_km" => Shape.number(above: 0),
            "interval_months" => Shape.number(above: 0, max: 1200),
            "compound" => Shape.one_of("none", "film", "unstated"),
            "torque_range_nm" => Shape.list(torque, min: 2, max: 2),
            "torque_assumes" => Shape.one_of("dry", "compound", "unstated"),
            "socket_points" => Shape.one_of(6, 12),
            "tighten" => Shape.one_of("torque", "angle")
          )
      )
    origin =
      Shape.object(
        required: {
          "from" => Shape.one_of("typed", "pattern", "kind", "learned")
        },
        optional: {
          "jobs" => Shape.integer(min: 1)
        }
      )
    option = Shape.object(required: { "id" => id, "label" => text })
    variant =
      Shape.object(
        required: {
          "id" => id,
          "ask" => text,
          "options" => Shape.list(option, min: 2, max: 20),
          "usual" => id
        }
      )

    # The engine profile of formats.md.
    SHAPE =
      Shape.object(
        required: {
          "format" => Shape.const("nimble-ledger.engine"),
          "version" => Shape.const(1),
          "code" => Shape.string(max: 60),
          "name" => Shape.string(max: 120),
          "arrangement" => Shape.one_of("inline", "vee", "flat", "single"),
          "head" => Shape.one_of("aluminum", "cast-iron"),
          "ignition" => Shape.one_of("coil-on-plug", "paired", "rail", "distributor", "single-coil"),
          "cylinders" =>
            Shape.list(
              Shape.object(
                required: {
                  "number" => cylinder,
                  "position" => Shape.integer(min: 1, max: 99)
                },
                optional: {
                  "bank" => Shape.nullable(Shape.one_of(*BANKS))
                }
              ),
              min: 1,
              max: 32
            ),
          "plug" => plug,
          "steps" => Shape.list(step, max: MAX_STEPS),
          "targets" => Shape.list(target, min: 1, max: MAX_TARGETS)
        },
        optional: {
          "notes" => Shape.string(max: 8000, empty: true, lines: true),
          "mounting" => Shape.one_of("lengthwise", "sideways"),
          "aspiration" => Shape.one_of("natural", "turbo", "supercharged", "twin-charged"),
          "injection" => Shape.one_of("port", "direct", "carburetor"),
          "coils" =>
            Shape.list(
              Shape.object(
                required: {
                  "id" => id,
                  "part" => part,
                  "cylinders" => Shape.list(cylinder, min: 1, max: 32)
                }
              ),
              max: 64
            ),
          "hot_valley" => Shape.boolean,
          "soaks" => Shape.list(Shape.one_of(*SOAKS), min: 1, max: 5, unique: true),
          "boot_grease" => Shape.one_of("forbidden", "film"),
          "thermal_mass" => Shape.one_of("small", "medium", "large"),
          "house_overrides" => House::Settings::SHAPE,
          "variants" => Shape.list(variant, max: MAX_VARIANTS),
          "provisional" => Shape.boolean,
          "origins" => Shape.map(origin, max: (2 * MAX_STEPS) + MAX_TARGETS)
        }
      )
  end
end
