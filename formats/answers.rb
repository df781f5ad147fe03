# frozen_string_literal: true

# What the API answers, declared once: the contract prints it, the interface's types come from it, the tests check
# real answers against it.
module Answers
  Shape = NimbleLedger::Shape
  TEXT = Shape.said
  NUM = Shape.figure
  INT = Shape.whole_figure
  BOOL = Shape.boolean
  ANY = Shape.open_object

  def self.object(members, optional = {}) = Shape.object(required: members, optional: optional)
  def self.list(of) = Shape.list(of, max: nil)
  def self.maybe(of) = Shape.nullable(of)
  def self.map(of) = Shape.map(of, max: nil)
  def self.ref(name) = Shape.named(name)
  def self.words(*list) = Shape.one_of(*list)

  part_row =
    object(
      { "part" => TEXT, "quantity" => INT, "because" => list(TEXT), "rule" => words("needed", "replace", "if-needed") },
      { "chance" => NUM }
    )
  line =
    object(
      { "kind" => TEXT, "label" => TEXT, "quantity" => NUM, "cents" => INT, "unit_cents" => INT },
      { "part" => TEXT, "because" => list(TEXT), "basis" => TEXT }
    )
  minutes = object({ "remove" => NUM, "work" => NUM, "refit" => NUM, "house" => NUM, "total" => NUM })
  near_tie =
    object(
      {
        "ways" => map(TEXT),
        "choices" => map(list(TEXT)),
        "extra_minutes" => NUM,
        "spares" => list(words("closing", "battery", "parts"))
      }
    )
  plan =
    object(
      {
        "steps" => list(TEXT),
        "ways" => map(TEXT),
        "choices" => map(list(TEXT)),
        "minutes" => minutes,
        "turns" =>
          list(object({ "cylinder" => INT, "steps" => list(TEXT), "targets" => list(TEXT) }, { "early" => BOOL })),
        "waits" => NUM,
        "overnight" => BOOL,
        "order_of_work" => TEXT,
        "proven" => BOOL
      },
      {
        "gap_minutes" => NUM,
        "assumed_variants" => map(TEXT),
        "near_ties" => list(near_tie),
        "added" => list(object({ "target" => TEXT, "because" => TEXT }))
      }
    )
  hours =
    object(
      %w[mean_minutes sd_minutes p10 p50 p65 p80 p95 quoted].to_h { |key| [key, NUM] },
      {
        "computed" => NUM,
        "reason" => TEXT,
        "learned" => object({ "jobs" => INT, "mean_minutes" => NUM, "sd_minutes" => NUM, "quoted" => NUM })
      }
    )
  risk =
    object(
      {
        "plugs" => list(object({ "target" => TEXT, "broken" => NUM, "thread" => NUM, "stubborn" => NUM })),
        "mishaps" => list(object({ "step" => TEXT, "what" => TEXT, "chance" => NUM })),
        "no_trouble" => NUM,
        "expected_extra_minutes" => NUM,
        "broken_counts" => list(NUM)
      },
      { "out" => ANY }
    )
  price =
    object(
      { "currency" => TEXT, "lines" => list(line), "total_cents" => INT },
      {
        "incomplete" => BOOL,
        "missing" => list(object({ "part" => maybe(TEXT), "because" => list(TEXT) })),
        "left_over" => list(object({ "part" => TEXT, "quantity" => INT })),
        "included_tax_cents" => INT
      }
    )
  while_open = object({ "target" => TEXT, "added_minutes" => NUM, "alone_minutes" => NUM, "saved_minutes" => NUM })

  # What is owed for a scope, before everything that explains it.
  BALANCE = object({ "title" => TEXT, "hours" => NUM, "price" => price })

  ESTIMATE =
    object(
      {
        "format" => Shape.const("nimble-ledger.estimate"),
        "version" => Shape.const(1),
        "rules" => INT,
        "plan" => plan,
        "hours" => hours,
        "while_open" => list(while_open),
        "parts" => list(part_row)
      },
      {
        "risk" => risk,
        "price" => price,
        "warnings" => list(object({ "path" => TEXT, "message" => TEXT })),
        "sequence" => list(TEXT),
        "acts" => map(list(TEXT))
      }
    ).freeze

  run = object(%w[first_row last_row first_column last_column].to_h { |key| [key, INT] })
  reach =
    object(
      {
        "rows" => INT,
        "columns" => INT,
        "front" => words("bottom", "left"),
        "banks" => list(TEXT),
        "arrangement" => TEXT,
        "cylinders" =>
          list(
            object(
              {
                "number" => INT,
                "row" => INT,
                "column" => INT,
                "bank" => maybe(TEXT),
                "plugs" => INT,
                "chosen" => BOOL,
                "hours" => maybe(NUM),
                "beneath" => BOOL,
                "layers" => list(INT)
              }
            )
          ),
        "contours" =>
          list(
            object(
              {
                "numbers" => list(INT),
                "label" => TEXT,
                "cylinders" => list(INT),
                "partial" => BOOL,
                "level" => INT,
                "depth" => INT,
                "beneath" => BOOL,
                "in_plan" => BOOL,
                "runs" => list(run)
              }
            )
          ),
        "links" => list(object({ "coil" => TEXT, "cylinders" => list(INT) })),
        "listed" => list(object({ "label" => TEXT, "cylinders" => list(INT) }))
      }
    )
  layer =
    object(
      {
        "number" => INT,
        "step" => TEXT,
        "label" => TEXT,
        "in_plan" => BOOL,
        "cylinder" => maybe(INT),
        "zone" => TEXT,
        "off_minutes" => NUM,
        "on_minutes" => NUM,
        "closing_minutes" => NUM,
        "people" => INT,
        "needs" => list(TEXT),
        "over" => list(INT),
        "needed_by" => list(TEXT)
      }
    )
  stroke =
    object(
      {
        "kind" => words("house", "remove", "work", "refit", "closing", "wait"),
        "ref" => TEXT,
        "label" => TEXT,
        "start" => NUM,
        "minutes" => NUM,
        "depth" => INT
      },
      { "cylinder" => INT }
    )
  descent = object({ "length_minutes" => NUM, "levels" => INT, "strokes" => list(stroke) })
  task =
    object(
      {
        "kind" => TEXT,
        "ref" => TEXT,
        "label" => TEXT,
        "low" => NUM,
        "likely" => NUM,
        "high" => NUM,
        "mean" => NUM,
        "people" => INT,
        "reasons" => list(object({ "kind" => TEXT, "level" => maybe(TEXT), "factor" => NUM, "source" => TEXT })),
        "origin" => maybe(object({ "from" => words("typed", "pattern", "kind", "learned") }, { "jobs" => INT })),
        "chain" => list(TEXT)
      }
    )
  bundle =
    object(
      {
        "label" => TEXT,
        "opening" => maybe(object({ "bank" => maybe(TEXT), "same" => BOOL, "open" => BOOL })),
        "targets" => list(TEXT),
        "cylinders" => list(INT),
        "works" => list(TEXT),
        "added_hours" => NUM,
        "added_cents" => maybe(INT),
        "alone_hours" => NUM,
        "alone_cents" => maybe(INT)
      }
    )
  factor = object({ "kind" => TEXT, "level" => maybe(TEXT), "amount" => maybe(NUM), "times" => NUM })
  plug =
    object(
      {
        "target" => TEXT,
        "label" => TEXT,
        "cylinder" => maybe(INT),
        "broken" => NUM,
        "thread" => NUM,
        "stubborn" => NUM,
        "extraction_factor" => NUM,
        "base" => NUM,
        "factors" => list(factor)
      }
    )
  trouble =
    object(
      {
        "no_trouble" => NUM,
        "plugs" => list(plug),
        "mishaps" => list(object({ "step" => TEXT, "what" => TEXT, "chance" => NUM, "minutes" => NUM })),
        "allowance" =>
          list(
            object(
              {
                "broken" => INT,
                "chance" => NUM,
                "extra_hours" => NUM,
                "extra_cents" => INT,
                "cure_minutes" => NUM,
                "ready" => TEXT
              }
            )
          ),
        "not_above_cents" => INT,
        "expected_extra_minutes" => NUM,
        "extraction_fails" => NUM,
        "curve" => list(list(NUM)),
        "soaks" =>
          list(
            object(
              {
                "protocol" => TEXT,
                "hands_on_hours" => NUM,
                "wait_minutes" => NUM,
                "overnight" => BOOL,
                "break_chance" => NUM,
                "expected_cents" => INT,
                "total_cents" => INT,
                "ready" => TEXT
              }
            )
          ),
        "shelf" => list(object({ "label" => TEXT, "quantity" => INT })),
        "longest_extra_minutes" => NUM
      },
      {
        "likely_cents" => maybe(INT),
        "all_told_share" => NUM,
        "unpriced" => list(TEXT),
        "recommended_soak" => TEXT,
        "promise" => words("none", "kept", "missed"),
        "hours" => object({ "p50" => NUM, "p80" => NUM, "p95" => NUM })
      }
    )
  option =
    object(
      {
        "label" => TEXT,
        "in_force" => BOOL,
        "pinned" => BOOL,
        "reason" => words("pinned", "least-work", "only-one", ""),
        "added_minutes" => NUM,
        "quoted_hours" => NUM,
        "added_hours" => NUM,
        "total_cents" => maybe(INT),
        "added_cents" => maybe(INT),
        "equipment" => list(TEXT),
        "missing" => list(TEXT),
        "pins" => ref("Pins"),
        "descent" => maybe(ref("Descent"))
      }
    )
  decision = object({ "label" => TEXT, "options" => list(option) })
  wanted =
    object(
      {
        "part" => TEXT,
        "label" => TEXT,
        "quantity" => INT,
        "rule" => words("needed", "replace", "if-needed"),
        "chance" => maybe(NUM),
        "because" => list(TEXT)
      }
    )
  error = object({ "code" => TEXT, "message" => TEXT, "details" => list(ANY) })
  caution = object({ "text" => TEXT, "refs" => list(TEXT), "at" => list(TEXT) })
  sheet =
    object(
      {
        "rules" => INT,
        "title" => TEXT,
        "undecided" => list(TEXT),
        "reach" => reach,
        "layers" => list(layer),
        "offers" => object({ "works" => list(TEXT), "extras" => list(object({ "id" => TEXT, "label" => TEXT })) })
      },
      {
        "problem" => maybe(error),
        "estimate" => ref("Estimate"),
        "descent" => ref("Descent"),
        "compare" => maybe(object({ "label" => TEXT, "descent" => ref("Descent") })),
        "spread" => object({ "low" => NUM, "high" => NUM, "curve" => list(list(NUM)) }),
        "tasks" => list(task),
        "while_open" => list(bundle),
        "explanation" => object({ "short" => TEXT, "spoken" => TEXT, "in_order" => list(TEXT) }),
        "cautions" => list(caution),
        "soak" => object({ "in_force" => TEXT, "chosen" => BOOL }),
        "ready" => TEXT,
        "cooling_minutes" => NUM,
        "trouble" => trouble,
        "routes" => list(decision),
        "pinned" => BOOL,
        "parts" => list(wanted),
        "grades" =>
          list(
            object(
              {
                "part" => TEXT,
                "label" => TEXT,
                "taken" => BOOL,
                "grade" => TEXT,
                "life_km" => NUM,
                "cents" => INT,
                "per_1000_km_cents" => NUM
              }
            )
          ),
        "quoted_share" => NUM,
        "reference_hours" => maybe(NUM),
        "learned" =>
          maybe(
            object({ "jobs" => INT, "over_low" => NUM, "over_high" => NUM, "hours" => NUM, "estimated_hours" => NUM })
          ),
        "warranty" => maybe(object({ "labels" => list(TEXT), "hours" => NUM, "charged" => BOOL })),
        "diagnosis" => maybe(object({ "hours" => NUM, "cents" => INT, "owed_cents" => INT, "credited" => BOOL })),
        "set_aside" => maybe(object({ "by_hours" => NUM, "reason" => TEXT })),
        "tie_taken" => maybe(object({ "extra_minutes" => NUM, "spares" => list(words("closing", "battery", "parts")) }))
      }
    )

  fitted = object({ "construction" => words(*NimbleLedger::Risk::History::CONSTRUCTIONS), "interval_km" => NUM })
  past =
    object({}, { "plugs_changed_km" => NUM, "plugs_changed_years" => NUM, "compound_used" => BOOL, "fitted" => fitted })
  vehicle =
    object(
      {
        "id" => TEXT,
        "customer_id" => maybe(TEXT),
        "email" => maybe(TEXT),
        "plate" => TEXT,
        "description" => TEXT,
        "year" => maybe(INT),
        "engine_code" => TEXT,
        "customer" => maybe(TEXT),
        "phone" => maybe(TEXT),
        "lives" => maybe(TEXT),
        "notes" => maybe(TEXT),
        "plug_fitted" => maybe(TEXT),
        "odometer_km" => maybe(NUM),
        "plugs_changed_km" => maybe(NUM),
        "plugs_changed_years" => maybe(NUM),
        "compound_used" => maybe(BOOL),
        "age_years" => maybe(INT),
        "corrosion" => maybe(TEXT),
        "variants" => map(TEXT),
        "fitted" => maybe(fitted),
        "cylinders" => map(past)
      }
    )
  engine = {
    "id" => TEXT,
    "code" => TEXT,
    "revision" => INT,
    "name" => TEXT,
    "arrangement" => TEXT,
    "mounting" => TEXT,
    "cylinders" => INT,
    "ignition" => TEXT,
    "provisional" => BOOL,
    "notes" => TEXT
  }
  sounding = object({ "cylinder" => INT, "hours" => maybe(NUM) })
  warning = object({ "path" => TEXT, "message" => TEXT })
  share = object({ "share" => maybe(NUM), "low" => maybe(NUM), "high" => maybe(NUM) })
  coverage = object({ "p50" => share, "p80" => share, "p95" => share })
  stroke =
    object(
      {
        "id" => TEXT,
        "finished" => TEXT,
        "engine" => TEXT,
        "technician" => maybe(TEXT),
        "quoted_hours" => NUM,
        "hours" => NUM,
        "trouble_hours" => NUM,
        "billed_cents" => maybe(INT),
        "why" => TEXT
      }
    )
  trace_code = object({ "code" => TEXT }, { "status" => words("stored", "pending", "permanent") })
  practice_test = object({ "test" => TEXT, "cylinder" => INT, "outcome" => TEXT }, { "with" => INT, "back" => BOOL })
  practice_look = {
    "evidence" =>
      list(
        object(
          { "test" => TEXT, "cylinder" => INT, "outcome" => TEXT, "minutes" => NUM },
          { "with" => INT, "back" => BOOL }
        )
      ),
    "shares" => list(object({ "cylinder" => INT, "share" => NUM })),
    "moved" => list(object({ "kind" => words("coil", "plug"), "from" => list(INT), "now" => list(INT) })),
    "quote" => maybe(object({ "hours" => NUM, "cents" => maybe(INT) }))
  }
  practice_way =
    object(
      {
        "tests" => list(practice_test),
        "path" => list(object({ "minutes" => NUM, "chance" => NUM })),
        "minutes" => NUM,
        "targets" => list(TEXT),
        "labels" => list(TEXT),
        "cured" => BOOL,
        "finding_cents" => INT,
        "renewed_cents" => maybe(INT),
        "return_cents" => maybe(INT),
        "cents" => maybe(INT)
      }
    )
  ledger_guide = object({ "jobs" => INT, "ours_nearer" => INT })
  ledger_task =
    object(
      {
        "engine" => TEXT,
        "task" => TEXT,
        "label" => TEXT,
        "part" => TEXT,
        "jobs" => INT,
        "over" => maybe(NUM),
        "minutes_lost" => NUM,
        "minutes_lost_low" => maybe(NUM),
        "minutes_lost_high" => maybe(NUM)
      }
    )
  share = { "share" => maybe(NUM), "low" => maybe(NUM), "high" => maybe(NUM) }
  ledger_protocol =
    object(
      {
        "construction" => TEXT,
        "soak" => TEXT,
        "plugs" => INT,
        "broken" => INT,
        "expected" => NUM,
        "too_few" => BOOL,
        **share
      }
    )
  ledger_lesson =
    object(
      {
        "state" => TEXT,
        "jobs" => INT,
        "taken" => BOOL,
        "rows" =>
          list(object({ "engine" => TEXT, "jobs" => INT, "over" => NUM, "over_low" => NUM, "over_high" => NUM })),
        "lately" =>
          object(
            {
              "days" => INT,
              "jobs" => INT,
              "quoted_hours" => NUM,
              "would_hours" => NUM,
              "worked_hours" => NUM,
              "more_cents" => INT,
              "held" => object(share),
              "would_held" => object(share),
              "off_hours" => maybe(NUM),
              "would_off_hours" => maybe(NUM)
            }
          )
      }
    )
  ledger_row =
    object(
      {
        "name" => TEXT,
        "jobs" => INT,
        "too_few" => BOOL,
        "hours_lost" => NUM,
        "hours_lost_low" => maybe(NUM),
        "hours_lost_high" => maybe(NUM),
        "over" => maybe(NUM),
        "beyond_cents" => INT,
        "held" => maybe(NUM)
      },
      { "against_guide" => ledger_guide }
    )
  trace_test = { "test" => TEXT, "cylinder" => INT }
  guess =
    object(
      { "targets" => list(TEXT), "labels" => list(TEXT), "cents" => INT, "for_nothing" => NUM, "wasted_cents" => INT }
    )
  know = object(trace_test.merge("with" => maybe(INT), "test_cents" => INT, "cents" => INT, "for_nothing" => NUM))
  trace_sheet =
    object(
      {
        "format" => TEXT,
        "version" => INT,
        "hypotheses" =>
          list(
            object(
              { "cause" => TEXT, "cylinders" => list(INT), "chance" => NUM },
              { "now" => list(INT), "target" => TEXT, "part" => words("coil", "plug", "boot", "wire") }
            )
          ),
        "tests" =>
          list(
            object(
              trace_test.merge("bits" => NUM, "minutes" => NUM, "lost_minutes" => NUM, "bits_per_minute" => NUM),
              { "with" => INT }
            )
          ),
        "advice" => words("repair", "suspect", "test", "elsewhere"),
        "cautions" => list(TEXT),
        "codes" =>
          list(
            object(
              {
                "code" => TEXT,
                "status" => words("stored", "pending", "permanent"),
                "says" => words("cylinder", "several", "cold", "catalyst", "other")
              },
              { "cylinder" => INT }
            )
          ),
        "permanent" => BOOL,
        "repair" => maybe(object({ "target" => TEXT, "label" => TEXT, "cured" => NUM })),
        "leads_to" => list(object({ "works" => list(TEXT), "cylinders" => list(INT) })),
        "evidence" =>
          list(
            object(
              { "from" => TEXT, "before" => NUM, "after" => NUM },
              { "test" => TEXT, "cylinder" => INT, "with" => INT, "outcome" => TEXT }
            )
          ),
        "shares" => list(object({ "cylinder" => INT, "share" => NUM })),
        "worth" => maybe(object({ "guess" => guess, "know" => maybe(know), "worth_cents" => maybe(INT) })),
        "moved" => list(object({ "kind" => words("coil", "plug"), "from" => list(INT), "now" => list(INT) })),
        "outcomes" => map(list(TEXT))
      },
      { "other_codes" => list(TEXT), "together" => list(TEXT) }
    )
  finding_out =
    object(
      {
        "agreed" =>
          maybe(
            object({ "hours" => NUM, "rate_cents" => NUM, "buys" => TEXT, "credited_cents" => INT, "reached" => BOOL })
          ),
        "used_hours" => NUM
      }
    )
  trace_bay =
    object(
      {
        "job" => maybe(object({ "id" => TEXT, "number" => INT })),
        "evidence" => list(object(trace_test.merge("outcome" => TEXT))),
        "codes" => maybe(list(trace_code)),
        "lamp" => maybe(TEXT),
        "open" => list(TEXT)
      }
    )
  newer =
    object(
      {
        "revision" => INT,
        "by" => maybe(TEXT),
        "why" => TEXT,
        "changes" => list(TEXT),
        "scopes" =>
          list(
            object(
              {
                "title" => TEXT,
                "hours_before" => maybe(NUM),
                "hours_after" => maybe(NUM),
                "cents_before" => maybe(INT),
                "cents_after" => maybe(INT)
              }
            )
          )
      }
    )
  side = object({ "remove" => NUM, "refit" => NUM })
  engine_page =
    object(
      {
        "work" => TEXT,
        "works" => list(object({ "work" => TEXT, "cylinders" => list(sounding), "all" => maybe(NUM) })),
        "reach" => reach,
        "layers" => list(layer),
        "deepest" => maybe(INT),
        "descent" => maybe(ref("Descent")),
        "equipment" => list(object({ "id" => TEXT, "label" => TEXT })),
        "parts" => list(object({ "part" => TEXT, "label" => maybe(TEXT), "for" => list(TEXT), "priced" => BOOL }))
      }
    )
  quote = {
    "id" => TEXT,
    "number" => INT,
    "status" => TEXT,
    "latest_revision" => INT,
    "total_cents" => maybe(INT),
    "currency" => maybe(TEXT),
    "summary" => TEXT,
    "updated_at" => TEXT
  }
  draft = object({ "version" => INT, "base_revision" => INT, "content" => ref("Content"), "updated_at" => TEXT })
  revision =
    object(
      { "revision" => INT, "created_at" => TEXT, "by" => maybe(TEXT), "total_cents" => maybe(INT), "currency" => TEXT }
    )
  other =
    object(
      {
        "index" => INT,
        "name" => TEXT,
        "quoted_hours" => maybe(NUM),
        "total_cents" => maybe(INT),
        "descent" => maybe(ref("Descent"))
      }
    )
  beside =
    object(
      { "index" => INT, "name" => TEXT, "title" => TEXT },
      {
        "quoted_hours" => NUM,
        "p80_hours" => NUM,
        "ready" => TEXT,
        "descent" => ref("Descent"),
        "labor_cents" => INT,
        "parts_cents" => INT,
        "with_it_cents" => INT,
        "total_cents" => INT,
        "incomplete" => BOOL,
        "against_hours" => NUM,
        "against_cents" => INT,
        "no_trouble" => NUM,
        "not_above_cents" => INT,
        "left_hours" => NUM,
        "left_cents" => INT,
        "both_cents" => INT
      }
    )
  history =
    object(
      { "odometer_km" => NUM, "plugs_changed_km" => NUM, "plugs_changed_years" => NUM, "compound_used" => BOOL },
      { "fitted" => fitted, "cylinders" => map(past) }
    )
  condition = object({ "corrosion" => TEXT, "brittle" => BOOL, "bodged" => BOOL, "wells" => map(TEXT) })

  # What of the page a saved revision keeps, printed again as it was; earlier revisions may hold less.
  earlier = {
    "explanation" => object({ "short" => TEXT }, { "long" => TEXT, "spoken" => TEXT, "in_order" => list(TEXT) }),
    "cautions" => list(Shape.either(TEXT, caution, say: "a caution"))
  }
  after = object({ "months" => NUM, "no_comeback" => NUM, "total_cents" => INT })
  shown_keys = sheet.required.merge(sheet.optional).slice(*NimbleLedger::Quote::Sheet::SHOWN)
  shown = object({}, shown_keys.merge(earlier, "ahead" => after))

  role = words("owner", "advisor", "technician")
  invitation = { "id" => TEXT, "email" => TEXT, "role" => role, "expires_at" => TEXT }
  shop_details = {
    "name" => TEXT,
    "locale" => TEXT,
    "distance_unit" => words("km", "mi"),
    "time_zone" => TEXT,
    "paper" => words("a4", "letter")
  }
  customer = { "id" => TEXT, "name" => TEXT, "phone" => maybe(TEXT), "email" => maybe(TEXT), "wishes" => maybe(TEXT) }
  fitting = {
    "id" => TEXT,
    "work" => words("plug", "coil", "wire", "boot"),
    "cylinder" => maybe(INT),
    "km" => maybe(INT),
    "on" => TEXT,
    "ours" => BOOL,
    "by" => TEXT,
    "warranty" => maybe(object({ "holds" => BOOL, "until" => TEXT, "until_km" => maybe(INT) }))
  }
  state = words(*NimbleLedger::Record::Standing::STATES)
  channel = words("text", "mail", "phone", "paper")
  said =
    object(
      {
        "answer" => words("yes", "no"),
        "how" => words("in-person", "phone", "link", "paper"),
        "name" => TEXT,
        "limit_cents" => maybe(INT),
        "reason" => TEXT,
        "at" => TEXT,
        "taken_by" => maybe(TEXT)
      }
    )
  # That and why something was taken back.
  taken_back = object({ "reason" => TEXT, "at" => TEXT, "by" => maybe(TEXT) })
  called_off = object({ "reason" => TEXT, "at" => TEXT, "by" => maybe(TEXT), "struck" => BOOL })
  offer = {
    "id" => TEXT,
    "revision" => INT,
    "recipient" => TEXT,
    "channel" => channel,
    "address" => TEXT,
    "sent_at" => TEXT,
    "by" => maybe(TEXT),
    "seen_at" => maybe(TEXT),
    "revoked_at" => maybe(TEXT),
    "until" => TEXT,
    "supplement" => BOOL,
    "state" => state,
    "greeting" => TEXT,
    "link" => maybe(TEXT),
    "scopes" =>
      list(
        object(
          {
            "position" => INT,
            "title" => TEXT,
            "total_cents" => INT,
            "limit_cents" => INT,
            "before_cents" => INT,
            "state" => state,
            "spoken" => list(TEXT),
            "answer" => maybe(said),
            "struck" => maybe(taken_back)
          }
        )
      ),
    "questions" => list(object({ "id" => TEXT, "words" => TEXT, "at" => TEXT, "open" => BOOL })),
    "message" =>
      maybe(
        object(
          {
            "channel" => words("text", "mail"),
            "address" => TEXT,
            "body" => TEXT,
            "state" => words("queued", "sending", "delivered", "failed", "bounced"),
            "problem" => TEXT,
            "at" => TEXT
          }
        )
      )
  }
  # What of a bill its page shows before it is issued.
  bill_so_far =
    object(
      {
        "format" => words("nimble-ledger.bill"),
        "version" => INT,
        "lines" => ANY,
        "hours" => NUM,
        "taxes" => ANY,
        "classes" => ANY,
        "total_cents" => INT,
        "agreed_cents" => INT,
        "limit_cents" => INT,
        "paid_cents" => INT,
        "owed_cents" => INT
      },
      { "included_tax_cents" => INT, "incomplete" => BOOL, "missing" => list(TEXT) }
    )
  # Where a quote stands, as lists say it.
  stage = {
    "vehicle_id" => TEXT,
    "stage" =>
      words(
        "draft",
        "saved",
        "waiting",
        "seen",
        "lapsed",
        "declined",
        "agreed",
        "in-bay",
        "done",
        "handed-over",
        "called-off"
      ),
    "stage_at" => TEXT,
    "reason" => maybe(TEXT),
    "job_id" => maybe(TEXT),
    "put_away" => BOOL
  }
  job = {
    "id" => TEXT,
    "number" => INT,
    "quote_id" => TEXT,
    "title" => TEXT,
    "agreed_cents" => INT,
    "limit_cents" => INT,
    "currency" => TEXT,
    "opened_at" => TEXT
  }
  to_bill = {
    "job_id" => TEXT,
    "job" => INT,
    "title" => TEXT,
    "plate" => TEXT,
    "customer" => maybe(TEXT),
    "phone" => maybe(TEXT)
  }
  # A row of the Counter: whom and which car it is about.
  needs = {
    "quote_id" => TEXT,
    "number" => INT,
    "plate" => TEXT,
    "description" => TEXT,
    "customer" => TEXT,
    "phone" => maybe(TEXT),
    "wishes" => maybe(TEXT)
  }
  waiting =
    needs.merge(
      "sent_at" => TEXT,
      "seen_at" => maybe(TEXT),
      "until" => TEXT,
      "channel" => channel,
      "supplement" => BOOL,
      "scopes" => list(object({ "title" => TEXT, "total_cents" => INT, "limit_cents" => INT }))
    )
  # A job with its card, as it opens and as it comes back when marks were handed in.
  JOB_CARD = {
    "job" => ref("BayJob"),
    "revision" => INT,
    "sheet" => ref("CardSheet"),
    "marks" => list(ref("Mark")),
    "state" => ref("CardState"),
    "standing" => ref("CardStanding"),
    "trace" =>
      maybe(
        object(
          {
            "complaint" => TEXT,
            "advice" => TEXT,
            "next" => maybe(object({ "test" => TEXT, "cylinder" => INT, "minutes" => NUM }, { "with" => INT })),
            "moved" => list(object({ "kind" => TEXT, "from" => list(INT), "now" => list(INT) }))
          }
        )
      ),
    "proposals" => list(ref("CardProposal")),
    "technicians" => list(object({ "id" => INT, "name" => TEXT, "role" => TEXT })),
    "actuals" =>
      maybe(
        object(
          {
            "pieces" => list(object({ "id" => TEXT, "estimate" => NUM, "actual" => maybe(NUM) })),
            "trouble_minutes" => NUM,
            "actual_minutes" => NUM,
            "plugs" => ANY,
            "corrected" => ANY
          }
        )
      )
  }.freeze

  SCHEMAS = {
    "Error" => object({ "error" => error }),
    "Conflict" =>
      object(
        { "error" => error },
        {
          "yours" => ref("Content"),
          "theirs" => ref("Content"),
          "profile" => ANY,
          "trace" => ANY,
          "theirs_version" => INT,
          "theirs_revision" => INT,
          "theirs_by" => TEXT,
          "theirs_at" => TEXT,
          "changed" => list(words("engine", "prices", "house", "car")),
          "shown_cents" => maybe(INT),
          "now_cents" => maybe(INT)
        }
      ),
    "Health" => object({ "ok" => BOOL }),
    "Ping" => object({ "one" => INT }),
    "SignedIn" => ANY,
    "Joined" => object({ "email" => TEXT }),
    "Invited" => object({ "shop" => TEXT, "email" => TEXT, "role" => role }),
    "NewLink" => object(invitation.merge("link" => TEXT)),
    "People" =>
      object(
        {
          "people" =>
            list(
              object(
                { "id" => TEXT, "name" => TEXT, "email" => TEXT, "role" => role, "access" => BOOL, "self" => BOOL }
              )
            ),
          "invitations" => list(object(invitation))
        }
      ),
    "Patterns" =>
      object(
        {
          "patterns" =>
            list(
              object(
                {
                  "code" => TEXT,
                  "name" => TEXT,
                  "arrangement" => TEXT,
                  "mounting" => TEXT,
                  "cylinders" => INT,
                  "ignition" => TEXT,
                  "layers" => list(TEXT)
                }
              )
            )
        }
      ),
    "Session" =>
      object(
        {
          "csrf" => TEXT,
          "first_run" => BOOL,
          "account" =>
            maybe(
              object(
                { "id" => INT, "name" => TEXT, "email" => TEXT, "role" => words("owner", "advisor", "technician") }
              )
            ),
          "shop" =>
            maybe(
              object(
                {
                  **shop_details,
                  "currency" => TEXT,
                  "currency_exponent" => INT,
                  "stand_ins" => BOOL,
                  "mail_server" => BOOL,
                  "links_reach" => BOOL
                }
              )
            )
        }
      ),
    "PricedWith" => object({ "engine" => TEXT, "prices" => TEXT, "house" => TEXT, "totals" => list(maybe(INT)) }),
    "ShopDetails" => object(shop_details),
    "StoredCustomer" => object(customer),
    "CustomerPage" =>
      object(
        { "customer" => object(customer), "vehicles" => list(ref("Vehicle")), "doubles" => list(object(customer)) }
      ),
    "Found" =>
      object(
        {
          "vehicles" => list(ref("Vehicle")),
          "people" => list(object(customer)),
          "quotes" => list(ref("QuoteCard")),
          "jobs" => list(object(job))
        }
      ),
    "Preview" => object({ "html" => TEXT }),
    "QuoteDocument" =>
      object(
        {
          "format" => words("nimble-ledger.quote"),
          "version" => INT,
          "quote" => object(quote),
          "vehicle" => ref("Vehicle"),
          "revisions" => list(ANY),
          "offers" => list(object(offer.except("link")))
        }
      ),
    "Offer" => object(offer),
    "YesPage" =>
      object(
        {
          "quote" => object(quote),
          "vehicle" => ref("Vehicle"),
          "wishes" => maybe(TEXT),
          "provisional" => BOOL,
          "proposal" =>
            maybe(
              object(
                {
                  "revision" => INT,
                  "currency" => TEXT,
                  "scopes" =>
                    list(
                      object(
                        {
                          "position" => INT,
                          "title" => TEXT,
                          "total_cents" => INT,
                          "limit_cents" => INT,
                          "incomplete" => BOOL
                        }
                      )
                    )
                }
              )
            ),
          "offers" => list(ref("Offer")),
          "job" => maybe(object(job.merge("called_off" => maybe(called_off), "begun" => BOOL, "handed_over" => BOOL)))
        }
      ),
    "Counter" =>
      object(
        {
          "sinking" => list(ref("SinkingPromise")),
          "stopped" =>
            list(
              object(
                needs.merge(
                  "job_id" => TEXT,
                  "job" => INT,
                  "happened" => list(object({ "kind" => TEXT, "label" => TEXT, "cylinders" => list(INT) })),
                  "so_far_cents" => maybe(INT),
                  "limit_cents" => INT,
                  "asked" => BOOL
                )
              )
            ),
          "questions" => list(object(needs.merge("id" => TEXT, "words" => TEXT, "at" => TEXT))),
          "undelivered" =>
            list(
              object(
                needs.merge(
                  "offer_id" => TEXT,
                  "channel" => words("text", "mail"),
                  "address" => TEXT,
                  "state" => words("failed", "bounced"),
                  "at" => TEXT
                )
              )
            ),
          "waiting" => list(object(waiting)),
          "lapsed" => list(object(waiting)),
          "declined" => list(object(waiting.merge("offer_id" => TEXT, "reason" => TEXT, "at" => TEXT))),
          "unbilled" => list(object(to_bill.merge("agreed_cents" => INT, "at" => TEXT))),
          "overdue" =>
            list(object(to_bill.merge("number" => INT, "payer" => TEXT, "owed_cents" => INT, "due_on" => TEXT))),
          "agreed" =>
            list(
              object(
                needs.merge(
                  "job" => INT,
                  "title" => TEXT,
                  "agreed_cents" => INT,
                  "limit_cents" => INT,
                  "at" => TEXT,
                  "job_id" => TEXT,
                  "started_at" => maybe(TEXT),
                  "finished_at" => maybe(TEXT),
                  "called_off" => BOOL,
                  "done_minutes" => maybe(NUM),
                  "found" => INT,
                  "paused" => maybe(TEXT),
                  "descent" => maybe(ref("Descent"))
                )
              )
            ),
          "unsent" => list(ref("QuoteCard")),
          "vehicles" => INT,
          "follow_ups" =>
            list(
              object(
                {
                  "id" => TEXT,
                  "vehicle_id" => TEXT,
                  "plate" => TEXT,
                  "customer" => maybe(TEXT),
                  "phone" => maybe(TEXT),
                  "on" => TEXT,
                  "words" => TEXT
                }
              )
            ),
          "due" =>
            list(
              object(
                {
                  "vehicle_id" => TEXT,
                  "plate" => TEXT,
                  "description" => TEXT,
                  "customer" => maybe(TEXT),
                  "phone" => maybe(TEXT),
                  "on" => TEXT,
                  "past" => BOOL,
                  "over_km" => maybe(INT)
                }
              )
            )
        }
      ),
    "Progress" => object({ "percent" => maybe(INT) }),
    "Vehicle" => vehicle,
    "VehicleList" => object({ "vehicles" => list(ref("Vehicle")) }),
    "Finding" =>
      object(
        {
          "id" => TEXT,
          "cylinder" => maybe(INT),
          "kind" => words(*NimbleLedger::Card::Finding::KINDS),
          "words" => TEXT,
          "at" => TEXT,
          "by" => maybe(TEXT)
        }
      ),
    "Fitting" => object(fitting),
    "CarPage" =>
      object(
        {
          "vehicle" => ref("Vehicle"),
          "maker_number" => maybe(TEXT),
          "plug_notes" =>
            maybe(object({}, { "gap_mm" => object({ "low" => NUM, "high" => NUM }), "torque_note" => TEXT })),
          "readings" => list(object({ "km" => INT, "at" => TEXT, "reason" => TEXT })),
          "former_owners" => list(object({ "name" => TEXT, "until" => TEXT })),
          "fittings" => list(ref("Fitting"))
        }
      ),
    "Findings" => object({ "findings" => list(ref("Finding")) }),
    "Engine" => object(engine),
    "EngineList" =>
      object(
        {
          "engines" =>
            list(
              object(
                engine.merge(
                  "vehicles" => INT,
                  "all_plugs" => maybe(NUM),
                  "easiest" => maybe(sounding),
                  "hardest" => maybe(sounding)
                )
              )
            )
        }
      ),
    "EngineWithProfile" =>
      object(
        engine.merge(
          "profile" => ref("EngineProfile"),
          "warnings" => list(warning),
          "learned" => maybe(object({ "jobs" => INT, "over_low" => NUM, "over_high" => NUM })),
          "page" => engine_page,
          "revisions" => list(object({ "revision" => INT, "created_at" => TEXT, "by" => maybe(TEXT), "why" => TEXT }))
        )
      ),
    "LedgerPage" =>
      object(
        {
          "jobs" => INT,
          "since" => maybe(TEXT),
          "learning" => maybe(NUM),
          "last" => list(stroke),
          "sums" =>
            object({ "quoted_hours" => NUM, "worked_hours" => NUM, "trouble_hours" => NUM, "beyond_cents" => INT }),
          "entwined" => list(object({ "engine" => TEXT, "technician" => TEXT })),
          "learned" =>
            maybe(
              object(
                {
                  "coverage" => object({ "estimated" => coverage, "corrected" => coverage }),
                  "engines" => list(ledger_row),
                  "technicians" => list(ledger_row),
                  "months" => list(ledger_row),
                  "tasks" => list(ledger_task),
                  "protocols" => list(ledger_protocol),
                  "against_guide" => maybe(ledger_guide)
                }
              )
            ),
          "comebacks" => list(object({ "work" => TEXT, "engine" => TEXT, "count" => INT })),
          "lesson" => maybe(ledger_lesson),
          "in_force" => maybe(object({ "id" => TEXT, "at" => TEXT, "by" => maybe(TEXT), "jobs" => INT })),
          "automatic" => BOOL
        }
      ),
    "LedgerJobs" => object({ "jobs" => list(stroke) }),
    "PracticeCar" =>
      object(
        {
          "seed" => INT,
          "engine" => ref("Engine"),
          "when" => TEXT,
          "lamp" => TEXT,
          "codes" => list(trace_code),
          "history" =>
            object(
              { "odometer_km" => NUM, "plugs_changed_km" => NUM, "plugs_changed_years" => NUM, "compound_used" => BOOL }
            ),
          "condition" => object({ "corrosion" => TEXT, "brittle" => BOOL }),
          "tests" => list(object({ "test" => TEXT, "swap" => BOOL })),
          "targets" => list(object({ "id" => TEXT, "label" => TEXT, "cylinders" => list(INT) })),
          "reach" => reach,
          "layers" => list(layer),
          **practice_look
        }
      ),
    "PracticeLook" => object(practice_look),
    "PracticeEnd" =>
      object(
        {
          "truth" =>
            object(
              {
                "cause" => TEXT,
                "part" => maybe(words("plug", "coil", "wire", "boot")),
                "cylinders" => list(INT),
                "target" => maybe(TEXT),
                "label" => maybe(TEXT),
                "plugs" => list(object({ "cylinder" => INT, "outcome" => TEXT }))
              }
            ),
          "bits" => object({ "learned" => NUM, "hidden" => NUM }),
          "yours" => practice_way,
          "tables" => practice_way,
          "words" => list(object({ "what" => TEXT, "said" => BOOL }))
        }
      ),
    "PastReport" =>
      object(
        {
          "added" => INT,
          "known" => INT,
          "rejected" => INT,
          "rows" => list(object({ "line" => INT, "reason" => TEXT }))
        }
      ),
    "LedgerImported" => object({ "added" => INT, "known" => INT }),
    "History" => NimbleLedger::Ledger::History::SHAPE,
    "TraceSheet" => trace_sheet,
    "TracePage" =>
      object(
        {
          "quote" => object(quote),
          "vehicle" => ref("Vehicle"),
          "engine" => ref("Engine"),
          "findings" => list(ref("Finding")),
          "fittings" => list(ref("Fitting")),
          "reach" => reach,
          "layers" => list(layer),
          "version" => INT,
          "content" => ref("TraceContent"),
          "sheet" => ref("TraceSheet"),
          "bay" => trace_bay,
          "finding_out" => finding_out
        }
      ),
    "TraceStored" =>
      object(
        {
          "version" => INT,
          "content" => ref("TraceContent"),
          "sheet" => ref("TraceSheet"),
          "bay" => trace_bay,
          "finding_out" => finding_out
        }
      ),
    "WorkshopDrafts" =>
      object(
        { "drafts" => list(object({ "code" => TEXT, "name" => TEXT, "by" => maybe(TEXT), "updated_at" => TEXT })) }
      ),
    "WorkshopLook" =>
      object(
        {
          "faults" => list(warning),
          "warnings" => list(warning),
          "over" => list(object({ "step" => TEXT, "cylinders" => list(INT) })),
          "forks" => list(list(TEXT)),
          "origins" => maybe(map(INT)),
          "open" => list(object({ "code" => TEXT, "of" => TEXT })),
          "unlike" => list(object({ "path" => TEXT, "low" => NUM, "high" => NUM, "count" => INT, "minutes" => NUM })),
          "page" => maybe(engine_page),
          "tries" =>
            list(
              object(
                {
                  "what" => words("easiest-plug", "deepest", "deepest-bank", "all-plugs", "all"),
                  "cylinders" => list(INT),
                  "hours" => maybe(NUM),
                  "cents" => maybe(INT),
                  "missing" => list(object({ "part" => maybe(TEXT), "because" => list(TEXT) }))
                }
              )
            )
        }
      ),
    "WorkshopDraft" =>
      object(
        {
          "code" => TEXT,
          "version" => INT,
          "base_revision" => maybe(INT),
          "newest_revision" => maybe(INT),
          "began" => TEXT,
          "by" => maybe(TEXT),
          "updated_at" => TEXT,
          "profile" => ref("EngineProfile"),
          "look" => ref("WorkshopLook")
        }
      ),
    "WorkshopStored" => object({ "version" => INT, "look" => ref("WorkshopLook") }),
    "WorkshopActed" => object({ "profile" => ref("EngineProfile"), "look" => ref("WorkshopLook") }),
    "OfferedLayers" =>
      Shape.object(
        required: {
          "layers" =>
            Shape.list(
              Shape.object(required: { "label" => Shape.string, "cylinders" => Shape.list(Shape.integer(min: 1)) })
            )
        }
      ),
    "Comparison" =>
      object(
        {
          "changes" => list(TEXT),
          "rows" => list(object({ "label" => TEXT, "left" => maybe(side), "right" => maybe(side) })),
          "sides" => list(object({ "code" => TEXT, "name" => TEXT, "revision" => maybe(INT), "page" => engine_page }))
        }
      ),
    "ArchiveReport" =>
      object(
        {
          "rows" =>
            list(
              object(
                {
                  "file" => TEXT,
                  "code" => maybe(TEXT),
                  "name" => maybe(TEXT),
                  "revision" => maybe(INT),
                  "same" => BOOL,
                  "changes" => list(TEXT),
                  "fault" => maybe(TEXT)
                }
              )
            )
        }
      ),
    "ArchiveKept" => object({ "kept" => list(object({ "code" => TEXT, "revision" => INT })) }),
    "ImportReport" =>
      object(
        {
          "code" => TEXT,
          "name" => TEXT,
          "cylinders" => INT,
          "steps" => INT,
          "targets" => INT,
          "revision" => INT,
          "known" => BOOL,
          "same" => BOOL,
          "changes" => list(TEXT),
          "warnings" => list(warning),
          "unpriced" => list(TEXT)
        }
      ),
    "House" =>
      object(
        {
          "revision" => INT,
          "equipment" => list(object({ "id" => TEXT, "label" => TEXT, "owned" => BOOL, "engines" => list(TEXT) })),
          "settings" =>
            list(
              object(
                {
                  "name" => TEXT,
                  "group" => TEXT,
                  "label" => TEXT,
                  "value" => Shape.anything,
                  "own" => BOOL,
                  "shipped" => Shape.anything,
                  "schema" => Shape.anything,
                  "caution" => maybe(TEXT)
                }
              )
            )
        }
      ),
    "Prices" =>
      object(
        {
          "revision" => INT,
          "count" => INT,
          "missing" => list(object({ "part" => TEXT, "description" => TEXT, "engines" => list(TEXT) })),
          "parts" =>
            list(
              object(
                {
                  "part" => TEXT,
                  "description" => TEXT,
                  "kind" => TEXT,
                  "cost_cents" => maybe(INT),
                  "price_cents" => maybe(INT),
                  "list_cents" => maybe(INT),
                  "shelf" => INT,
                  "contains" => list(TEXT),
                  "offers" =>
                    list(object({ "supplier" => TEXT, "cost_cents" => INT }, { "on_hand" => INT, "lead_days" => NUM }))
                }
              )
            )
        }
      ),
    "BenchRequest" => NimbleLedger::Bench::Request::SHAPE,
    "BenchAnswer" =>
      object(
        { "format" => TEXT, "version" => INT },
        {
          "gap" =>
            object(
              { "mm" => NUM, "state" => maybe(words("worn-wide", "closed", "in-range")) },
              {
                "advice" => words("close", "open", "leave", "renew", "exchange"),
                "range_mm" => list(NUM),
                "standard_mm" => maybe(object({ "low" => NUM, "high" => NUM })),
                "box_mm" => NUM,
                "wear_mm_per_1000_km" => NUM,
                "questions" => list(ref("BenchQuestion"))
              }
            ),
          "torque" =>
            object(
              {},
              {
                "nm" => NUM,
                "lb_ft" => NUM,
                "lb_in" => NUM,
                "nm_range" => list(NUM),
                "setting_nm" => NUM,
                "wrench_ok" => BOOL,
                "questions" => list(ref("BenchQuestion"))
              }
            ),
          "angle" => object({}, { "turns" => list(NUM), "questions" => list(ref("BenchQuestion")) }),
          "interval" =>
            object(
              {},
              { "due_km" => NUM, "due_on" => TEXT, "overdue_ratio" => NUM, "questions" => list(ref("BenchQuestion")) }
            )
        }
      ),
    "BenchQuestion" =>
      object(
        { "path" => TEXT, "code" => TEXT, "message" => TEXT },
        { "meant" => TEXT, "slips" => list(object({ "value" => NUM, "unit" => words("mm", "in") })) }
      ),
    "BayJobs" => object({ "jobs" => list(ref("BayJob")) }),
    "BayJob" =>
      object(
        {
          "id" => TEXT,
          "number" => INT,
          "quote_id" => TEXT,
          "quote_number" => INT,
          "title" => TEXT,
          "plate" => TEXT,
          "description" => TEXT,
          "customer" => maybe(TEXT),
          "phone" => maybe(TEXT),
          "technician_id" => maybe(INT),
          "technician" => maybe(TEXT),
          "bay" => TEXT,
          "arrival" => maybe(words("cold", "warm", "hot")),
          "agreed_cents" => INT,
          "limit_cents" => INT,
          "currency" => TEXT,
          "opened_at" => TEXT,
          "arrived_at" => maybe(TEXT),
          "started_at" => maybe(TEXT),
          "finished_at" => maybe(TEXT),
          "handed_over_at" => maybe(TEXT),
          "called_off_at" => maybe(TEXT)
        },
        { "cold_at" => maybe(TEXT) }
      ),
    "CardPiece" =>
      object(
        {
          "id" => TEXT,
          "kind" => words("house", "clean", "remove", "soak", "wait", "work", "refit", "again", "closing"),
          "ref" => maybe(TEXT),
          "label" => TEXT,
          "cylinder" => maybe(INT),
          "minutes" => NUM,
          "people" => INT,
          "waiting" => BOOL,
          "holds_bay" => BOOL,
          "depth" => INT
        },
        {
          "title" => TEXT,
          "work" => TEXT,
          "coil" => BOOL,
          "overnight" => BOOL,
          "does" => list(TEXT),
          "acts" => list(object({ "act" => words(*NimbleLedger::Card::Words::ACTS.keys), "does" => list(TEXT) })),
          "plugs" => list(object({ "target" => TEXT, "count" => INT, "renewed" => BOOL })),
          "with" => list(TEXT),
          "fasteners" =>
            list(
              object(
                { "what" => TEXT, "count" => INT, "new" => BOOL },
                { "size" => TEXT, "torque_nm" => NUM, "pattern" => TEXT }
              )
            ),
          "cautions" => list(TEXT),
          "ticks" => list(object({ "item" => TEXT, "label" => TEXT, "count" => INT }, { "must" => BOOL })),
          "parts" => list(object({ "part" => TEXT, "label" => TEXT, "quantity" => INT })),
          "back" => maybe(TEXT),
          "plug" =>
            object(
              { "count" => INT, "by" => words("torque", "angle"), "fine_wire" => BOOL, "leaves_shell" => BOOL },
              {
                "gap_mm" => object({ "low" => NUM, "high" => NUM }),
                "own_gap" => BOOL,
                "torque_note" => TEXT,
                "torque_nm" => NUM,
                "wrench_nm" => list(NUM),
                "turns" => list(NUM),
                "seat" => TEXT,
                "thread_mm" => NUM,
                "hex_mm" => NUM
              }
            )
        }
      ),
    "CardSheet" =>
      object(
        {
          "engine" => TEXT,
          "arrangement" => TEXT,
          "cylinders" => list(INT),
          "gap_believed_mm" => object({ "low" => NUM, "high" => NUM }),
          "cure_minutes" => NUM,
          "targets" => list(TEXT),
          "pieces" => list(ref("CardPiece")),
          "levels" => INT,
          "length_minutes" => NUM,
          "schools" =>
            object(%w[compound temperature grease order tighten soak].to_h { |key| [key, TEXT] }, { "gap" => TEXT }),
          "shelf" => list(object({ "what" => TEXT, "quantity" => INT })),
          "plugs" =>
            list(
              object(
                {
                  "key" => TEXT,
                  "target" => TEXT,
                  "nth" => INT,
                  "label" => TEXT,
                  "cylinder" => maybe(INT),
                  "bank" => maybe(TEXT)
                }
              )
            )
        },
        {
          "lay_out" =>
            object(
              {
                "tools" => list(object({ "what" => TEXT, "lacking" => BOOL })),
                "parts" => list(object({ "part" => TEXT, "label" => TEXT, "quantity" => INT, "perhaps" => BOOL }))
              }
            ),
          "wires" => list(object({ "cylinder" => INT, "from" => TEXT }, { "part" => TEXT, "label" => TEXT })),
          "opening_hours" => map(maybe(list(TEXT))),
          "in_force" => list(object({ "setting" => TEXT, "question" => TEXT, "says" => TEXT, "why" => TEXT })),
          "by_hand" => list(object({ "label" => TEXT, "cents" => INT, "class" => TEXT }, { "quantity" => NUM }))
        }
      ),
    "CardState" =>
      object(
        {
          "started_at" => maybe(TEXT),
          "finished_at" => maybe(TEXT),
          "paused" => maybe(object({ "since" => TEXT, "why" => TEXT })),
          "done" => map(TEXT),
          "waiting" => map(TEXT),
          "plugs" =>
            map(
              object(
                {},
                {
                  "well" => BOOL,
                  "dry" => BOOL,
                  "out" => object({ "outcome" => TEXT }, { "sign" => TEXT }),
                  "read" => object({}, { "conditions" => list(TEXT), "gap_mm" => NUM }),
                  "new" => object({}, { "gap_mm" => NUM }),
                  "in" => object({ "how" => TEXT }, { "by_hand" => BOOL })
                }
              )
            ),
          "ticks" => map(list(TEXT)),
          "left" => map(TEXT),
          "fights" =>
            list(
              object(
                {
                  "id" => TEXT,
                  "at" => TEXT,
                  "what" => words(*NimbleLedger::Card::Event::FIGHTS),
                  "over_at" => maybe(TEXT)
                },
                { "piece" => TEXT, "plug" => TEXT, "nth" => INT, "words" => TEXT }
              )
            ),
          "found" =>
            list(
              object(
                { "id" => TEXT, "at" => TEXT, "finding" => TEXT },
                { "cylinder" => maybe(INT), "words" => TEXT, "picture" => TEXT, "tell" => BOOL }
              )
            ),
          "notes" => list(object({ "id" => TEXT, "at" => TEXT, "words" => TEXT })),
          "codes" =>
            list(
              object(
                {
                  "id" => TEXT,
                  "at" => TEXT,
                  "lamp" => TEXT,
                  "codes" => list(object({ "code" => TEXT, "status" => TEXT }))
                },
                { "again" => BOOL }
              )
            ),
          "corrected" => map(object({ "minutes" => NUM, "why" => TEXT })),
          "undone" => list(TEXT)
        }
      ),
    "CardStanding" =>
      object(
        {
          "odds" =>
            list(
              object(
                {
                  "target" => TEXT,
                  "label" => TEXT,
                  "fights" => NUM,
                  "fights_before" => NUM,
                  "breaks" => NUM,
                  "breaks_before" => NUM,
                  "moved" => BOOL
                }
              )
            ),
          "money" =>
            maybe(
              object(
                {
                  "so_far_cents" => INT,
                  "limit_cents" => maybe(INT),
                  "over" => BOOL,
                  "next" =>
                    list(
                      object(
                        { "target" => TEXT, "what" => TEXT, "minutes" => NUM, "total_cents" => INT, "over" => BOOL }
                      )
                    )
                }
              )
            ),
          "odd_plug" => maybe(object({ "key" => TEXT, "conditions" => list(TEXT), "others" => list(TEXT) })),
          "time" => object(%w[reckoned_done taken trouble trouble_ahead left to_go].to_h { |key| [key, NUM] }),
          "open" => list(object({}, { "piece" => TEXT, "label" => TEXT, "item" => TEXT, "fight" => TEXT }))
        }
      ),
    "CardProposal" =>
      object(
        {
          "id" => TEXT,
          "finding" => TEXT,
          "targets" => list(object({ "id" => TEXT, "label" => TEXT })),
          "lines" => list(object({ "label" => TEXT, "class" => TEXT, "quantity" => NUM, "each_cents" => INT })),
          "added_hours" => maybe(NUM),
          "added_cents" => maybe(INT),
          "total_cents" => maybe(INT),
          "clean" => BOOL,
          "follow_up_weeks" => maybe(INT)
        },
        { "cylinder" => maybe(INT), "lacking" => BOOL }
      ),
    "Mark" => NimbleLedger::Card::Event::SHAPE,
    "JobCard" => object(JOB_CARD),
    "HandedIn" =>
      object(
        JOB_CARD.merge(
          "taken" => list(TEXT),
          "refused" => list(object({ "id" => TEXT, "code" => TEXT, "message" => TEXT }))
        )
      ),
    "ScanReport" =>
      object(
        {
          "codes" => list(object({ "code" => TEXT, "status" => words("stored", "pending", "permanent") })),
          "lamp" => words("off", "steady", "blinking"),
          "misfires" => map(INT),
          "freeze" => maybe(object({ "load_percent" => INT, "rpm" => INT }))
        }
      ),
    "Picture" => object({ "id" => TEXT, "width" => INT, "height" => INT }),
    "Proposed" => object({ "quote_id" => TEXT }),
    "GarageReport" =>
      object(
        {
          "added" => INT,
          "changed" => INT,
          "same" => INT,
          "rejected" => INT,
          "rows" =>
            list(
              object(
                {
                  "line" => INT,
                  "plate" => TEXT,
                  "status" => words("added", "changed", "rejected"),
                  "changes" => list(TEXT),
                  "reason" => maybe(TEXT)
                }
              )
            )
        }
      ),
    "PriceReport" =>
      object(
        {
          "revision" => INT,
          "changes" => BOOL,
          "added" => INT,
          "changed" => INT,
          "same" => INT,
          "rejected" => INT,
          "rows" =>
            list(
              object(
                {
                  "line" => INT,
                  "part" => TEXT,
                  "status" => words("added", "changed", "rejected"),
                  "description" => TEXT,
                  "changes" => list(TEXT),
                  "reason" => maybe(TEXT)
                }
              )
            )
        }
      ),
    "Pins" =>
      object(
        {},
        { "ways" => map(TEXT), "choices" => map(Shape.either(TEXT, list(TEXT), say: "a step or a list of them")) }
      ),
    "EngineProfile" => NimbleLedger::Profile::SHAPE,
    "EstimateRequest" => NimbleLedger::Estimate::Request::SHAPE,
    "AnyRequest" => ANY,
    "AnyAnswer" => ANY,
    "Estimate" => ESTIMATE,
    "Balance" => BALANCE,
    "Descent" => descent,
    "Sheet" => sheet,
    "Shown" => shown,
    "QuoteCard" =>
      object(
        quote.merge("plate" => TEXT, "description" => TEXT, "engine_code" => TEXT, "customer" => maybe(TEXT), **stage)
      ),
    "BillPage" =>
      object(
        {
          "job" => object(job),
          "plate" => TEXT,
          "description" => TEXT,
          "odometer_km" => maybe(INT),
          "customer" => maybe(TEXT),
          "finished_at" => maybe(TEXT),
          "handed_over_at" => maybe(TEXT),
          "draft" =>
            maybe(
              object(
                {
                  "rows" =>
                    list(
                      object(
                        {
                          "kind" => TEXT,
                          "label" => TEXT,
                          "part" => maybe(TEXT),
                          "agreed_cents" => maybe(INT),
                          "quantity" => NUM,
                          "cents" => maybe(INT),
                          "why" => list(words("happened", "not_done", "tried", "owed", "limit", "follows"))
                        }
                      )
                    ),
                  "answer" => bill_so_far,
                  "facts" => object(%w[not_done tried owed broken thread mishaps].to_h { |name| [name, list(TEXT)] })
                }
              )
            ),
          "bills" =>
            list(
              object(
                {
                  "id" => TEXT,
                  "number" => INT,
                  "kind" => words("bill", "credit-note"),
                  "credits" => maybe(INT),
                  "credited" => BOOL,
                  "issued_on" => TEXT,
                  "due_on" => TEXT,
                  "payer" => TEXT,
                  "address" => TEXT,
                  "reason" => TEXT,
                  "by" => maybe(TEXT),
                  "lines" =>
                    list(
                      object({ "kind" => TEXT, "label" => TEXT, "cents" => INT }, { "part" => TEXT, "quantity" => NUM })
                    ),
                  "taxes" => list(object({ "label" => TEXT, "percent" => NUM, "net_cents" => INT, "cents" => INT })),
                  "total_cents" => INT
                }
              )
            ),
          "payments" =>
            list(
              object(
                {
                  "id" => TEXT,
                  "on" => TEXT,
                  "means" => words(*NimbleLedger::Bill::Request::MEANS),
                  "cents" => INT,
                  "note" => TEXT,
                  "by" => maybe(TEXT)
                }
              )
            ),
          "paid_cents" => INT,
          "owed_cents" => INT,
          "due_on" => maybe(TEXT)
        }
      ),
    "CarFile" =>
      object(
        {
          "car" => ref("CarPage"),
          "cylinders" => list(INT),
          "quotes" => list(ref("QuoteCard")),
          "findings" => list(ref("Finding")),
          "letters" =>
            list(
              object(
                {
                  "quote_id" => TEXT,
                  "number" => INT,
                  "kind" => words("offer", "struck", "called-off"),
                  "channel" => words("text", "mail"),
                  "address" => TEXT,
                  "state" => words("queued", "sending", "delivered", "failed", "bounced"),
                  "at" => TEXT
                }
              )
            )
        }
      ),
    "QuoteList" => object({ "quotes" => list(ref("QuoteCard")) }),
    "Draft" => draft,
    "Revision" => revision,
    "Other" => other,
    "Beside" => beside,
    "Ahead" =>
      object(
        {
          "yearly_km" => NUM,
          "months" => NUM,
          "shown" => BOOL,
          "found" => map(TEXT),
          "failed" => list(TEXT),
          "rows" =>
            list(
              object(
                {
                  "index" => INT,
                  "no_comeback" => NUM,
                  "returns" => NUM,
                  "return_cents" => INT,
                  "scheduled" => maybe(object({ "months" => NUM, "cents" => INT })),
                  "life_used_cents" => INT,
                  "total_cents" => INT,
                  "net_cents" => INT,
                  "incomplete" => BOOL
                }
              )
            ),
          "recommended" => maybe(INT),
          "also" => maybe(INT),
          "cheapest_now" => maybe(INT),
          "break_even_returns" => maybe(NUM)
        }
      ),
    "Resolved" =>
      object(
        {
          "condition" => condition,
          "history" => history,
          "assumed" => list(TEXT),
          "oily_wells" => list(INT),
          "equipment" => list(TEXT),
          "variants" =>
            list(
              object(
                {
                  "id" => TEXT,
                  "ask" => TEXT,
                  "options" => list(object({ "id" => TEXT, "label" => TEXT })),
                  "answer" => TEXT,
                  "assumed" => BOOL
                }
              )
            ),
          "schools" =>
            list(
              object(
                {
                  "setting" => words(*NimbleLedger::House::Schools::NAMES),
                  "question" => TEXT,
                  "says" => TEXT,
                  "why" => TEXT,
                  "value" => TEXT,
                  "from" => words("shipped", "shop", "engine", "job"),
                  "otherwise" => TEXT,
                  "choices" => list(object({ "value" => TEXT, "says" => TEXT }))
                }
              )
            )
        }
      ),
    "QuotePage" =>
      object(
        {
          "quote" => object(quote),
          "vehicle" => ref("Vehicle"),
          "findings" => list(ref("Finding")),
          "fittings" => list(ref("Fitting")),
          "engine" => ref("Engine"),
          "draft" => ref("Draft"),
          "newest_engine_revision" => INT,
          "dropped" => list(TEXT),
          "revisions" => list(ref("Revision")),
          "moved_since" => maybe(INT),
          "sheet" => ref("Sheet"),
          "others" => list(ref("Other")),
          "resolved" => ref("Resolved"),
          "priced_with" => ref("PricedWith")
        }
      ),
    "Priced" =>
      object(
        {
          "draft" => ref("Draft"),
          "balance" => maybe(ref("Balance")),
          "resolved" => ref("Resolved"),
          "priced_with" => ref("PricedWith"),
          "sheet" => ref("Sheet"),
          "others" => list(ref("Other"))
        }
      ),
    "PanelFigures" =>
      object(
        { "version" => INT },
        {
          "trouble" => trouble,
          "beside" => list(ref("Beside")),
          "ahead" => maybe(ref("Ahead")),
          "newer" => maybe(newer)
        }
      ),
    "Saved" => object({ "revision" => ref("Revision"), "draft" => ref("Draft") }),
    "FrozenRevision" =>
      object(
        {
          "revision" => ref("Revision"),
          "content" => ref("Content"),
          "rules" => INT,
          "provisional" => BOOL,
          "scopes" =>
            list(
              object(
                {
                  "name" => TEXT,
                  "request" => ANY,
                  "answer" => ref("Estimate"),
                  "page" => ref("Shown"),
                  "total_cents" => INT
                }
              )
            )
        }
      )
  }.freeze
end
