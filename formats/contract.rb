# frozen_string_literal: true

require_relative "../core/lib/nimble_ledger"
require_relative "answers"

# The open formats and the API contract, printed from the declarations the program itself checks with. Requests are
# the core's own shapes; answers are declared in answers.rb. `bin/formats` writes the files beside this one, and a test
# fails when they are out of date.
module Contract
  Shape = NimbleLedger::Shape
  TITLE = "Nimble Ledger"

  # Contracts that stand with their feature: REQUESTS, ANSWERS and paths of each.
  OF_FEATURES =
    Dir[File.expand_path("../server/lib/nimble_server/features/*/contract.rb", __dir__)].sort.map do |path|
      require path
      feature = File.basename(File.dirname(path)).split("_").map(&:capitalize).join
      NimbleServer::Features.const_get(feature)::Contract
    end

  new_vehicle =
    Shape.object(
      required: {
        "plate" => Shape.string(max: 20),
        "description" => Shape.string(max: 120),
        "engine_code" => Shape.string(max: 60)
      },
      optional: {
        "year" => Shape.nullable(Shape.integer(min: 1900, max: 2100)),
        "odometer_km" => Shape.nullable(Shape.integer(max: 10_000_000)),
        "customer" =>
          Shape.nullable(
            Shape.object(
              required: {
                "name" => Shape.string(max: 120)
              },
              optional: {
                "phone" => Shape.nullable(Shape.string(max: 40, empty: true))
              }
            )
          )
      }
    )
  NEW_VEHICLE = new_vehicle
  distance = Shape.nullable(Shape.integer(max: 10_000_000))
  vehicle_history =
    Shape.object(
      optional: {
        "odometer_km" => distance,
        "odometer_reason" => Shape.string(max: 200, empty: true),
        "plugs_changed_km" => distance,
        "plugs_changed_years" => Shape.nullable(Shape.number(max: 200)),
        "compound_used" => Shape.nullable(Shape.boolean),
        "corrosion" => Shape.nullable(Shape.one_of("none", "light", "heavy")),
        "lives" => Shape.nullable(Shape.string(max: 120, empty: true)),
        "plug_fitted" => Shape.nullable(Shape.string(max: 80, empty: true)),
        "variants" => Shape.map(Shape.string(max: 80), max: NimbleLedger::Profile::MAX_VARIANTS),
        "fitted" => Shape.nullable(NimbleLedger::Quote::Content::FITTED),
        "cylinders" => NimbleLedger::Quote::Content::CYLINDERS
      }
    )
  version = Shape.integer(min: 1, max: 1_000_000_000)
  email = Shape.string(max: 120, pattern: /\A[^@\s]+@[^@\s]+\.[^@\s]+\z/)
  role = Shape.one_of("owner", "advisor", "technician")
  revision_id = Shape.string(max: 40)
  # What a page was priced with when it was shown.
  priced_with =
    Shape.object(
      required: {
        "engine" => revision_id,
        "prices" => revision_id,
        "house" => revision_id,
        "totals" =>
          Shape.list(Shape.nullable(Shape.integer(min: -1_000_000_000_000, max: 1_000_000_000_000)), min: 1, max: 3)
      }
    )
  # A price list as the text of a CSV file, or a few rows as they were typed.
  price_rows = {
    "csv" => Shape.string(max: 4_000_000, lines: true),
    "rows" =>
      Shape.list(
        Shape.object(
          optional:
            NimbleLedger::Parts::PriceUpdate::COLUMNS.to_h { |name| [name, Shape.string(max: 300, empty: true)] }
        ),
        max: 500
      )
  }
  # How a shop is called, where it is and how it writes.
  shop_details = {
    "name" => Shape.string(max: 120),
    "locale" => Shape.string(max: 20, pattern: /\A[a-z]{2,3}(-[A-Za-z0-9]{2,8})*\z/),
    "distance_unit" => Shape.one_of("km", "mi"),
    "time_zone" => Shape.string(max: 60),
    "paper" => Shape.one_of("a4", "letter")
  }
  cents = Shape.integer(max: 1_000_000_000_000)
  # What is written down of a misfire.
  trace_content =
    Shape.object(
      optional: {
        "complaint" => Shape.string(max: 400, empty: true, lines: true),
        "others" => Shape.string(max: 400, empty: true, lines: true),
        "when" => Shape.nullable(Shape.one_of(*NimbleLedger::Trace::Request::MOMENTS)),
        "lamp" => Shape.nullable(Shape.one_of("off", "steady", "blinking")),
        "codes" => Shape.nullable(NimbleLedger::Trace::Codes::SHAPE),
        "counters" => NimbleLedger::Trace::Counters::SHAPE,
        "sets" => NimbleLedger::Trace::Suspects::SETS,
        "evidence" =>
          Shape.list(
            Shape.object(
              required: {
                "test" => Shape.string(max: 40),
                "cylinder" => Shape.integer(min: 1, max: 99),
                "outcome" => Shape.string(max: 40)
              },
              optional: {
                "with" => Shape.integer(min: 1, max: 99),
                "back" => Shape.boolean,
                "run" => Shape.one_of("as-it-misfires", "otherwise"),
                "minutes" => Shape.number(max: 10_000)
              }
            ),
            max: 100
          )
      }
    )
  # Tests done on a made-up car.
  practice_tests =
    Shape.list(
      Shape.object(
        required: {
          "test" => Shape.string(max: 40),
          "cylinder" => Shape.integer(min: 1, max: 99)
        },
        optional: {
          "with" => Shape.integer(min: 1, max: 99),
          "back" => Shape.boolean
        }
      ),
      max: 30
    )
  REQUESTS = {
    "ShopDetails" => Shape.object(required: shop_details),
    "NewVehicle" => new_vehicle,
    "VehicleHistory" => vehicle_history,
    "NewShop" =>
      Shape.object(
        required: {
          "owner" =>
            Shape.object(
              required: {
                "name" => Shape.string(max: 120),
                "email" => email,
                "password" => Shape.string(max: 200)
              }
            ),
          "shop" =>
            Shape.object(required: shop_details.merge("currency" => Shape.string(max: 3, pattern: /\A[A-Z]{3}\z/))),
          "rate_cents" => Shape.integer(min: 1, max: 100_000_000)
        },
        optional: {
          "tax" => Shape.nullable(NimbleLedger::House::Settings::TAX)
        }
      ),
    "NewInvitation" => Shape.object(required: { "email" => email, "role" => role }),
    "ChangePerson" => Shape.object(optional: { "role" => role, "access" => Shape.boolean }),
    "LookAtInvitation" => Shape.object(required: { "token" => Shape.string(max: 100) }),
    "Join" =>
      Shape.object(
        required: {
          "token" => Shape.string(max: 100),
          "name" => Shape.string(max: 120),
          "password" => Shape.string(max: 200)
        }
      ),
    "BeginDraft" =>
      Shape.object(
        required: {
          "code" => Shape.string(max: 60)
        },
        optional: {
          "name" => Shape.string(max: 120, empty: true),
          "bare" => NimbleLedger::Workshop::Sketch::BARE,
          "pattern" => Shape.string(max: 60),
          "engine" => Shape.string(max: 60),
          "file" => NimbleLedger::Profile::SHAPE
        }
      ),
    "WorkshopAct" =>
      Shape.object(required: { "profile" => Shape.open_object, "act" => NimbleLedger::Workshop::Acts::SHAPE }),
    "StoreEngine" => Shape.object(required: { "version" => version, "profile" => Shape.open_object }),
    "KeepEngine" =>
      Shape.object(required: { "version" => version, "why" => Shape.string(max: 200, empty: true, lines: true) }),
    "HowBuilt" => NimbleLedger::Workshop::Sketch::BARE,
    "NewSketch" => NimbleLedger::Workshop::Sketch::ASKED,
    "LibraryArchive" => Shape.object(required: { "archive" => Shape.string(max: 4_000_000) }),
    "KeepArchive" =>
      Shape.object(
        required: {
          "archive" => Shape.string(max: 4_000_000),
          "rows" =>
            Shape.list(
              Shape.object(
                required: {
                  "file" => Shape.string(max: 400),
                  "do" => Shape.one_of("take", "skip")
                },
                optional: {
                  "code" => Shape.string(max: 60, empty: true)
                }
              ),
              max: 400
            )
        }
      ),
    "PracticeTests" =>
      Shape.object(
        required: {
          "tests" => practice_tests
        },
        optional: {
          "targets" => Shape.list(Shape.string(max: 80), max: 64, unique: true)
        }
      ),
    "PracticeDone" =>
      Shape.object(
        required: {
          "tests" => practice_tests,
          "targets" => Shape.list(Shape.string(max: 80), max: 64, unique: true),
          "words" => Shape.string(max: 2000, empty: true, lines: true)
        }
      ),
    "LedgerPast" => Shape.object(required: { "text" => Shape.string(max: 4_000_000, lines: true) }),
    "LedgerLesson" =>
      Shape.object(
        required: {
          "act" => Shape.one_of("take", "back", "automatic", "by-hand")
        },
        optional: {
          "state" => Shape.string(max: 200),
          "lesson" => Shape.string(max: 60)
        }
      ),
    "CorrectEntry" =>
      Shape.object(
        required: {
          "why" => Shape.string(max: 200)
        },
        optional: {
          "actual_minutes" => Shape.number(above: 0, max: 10_000_000, unit: "minutes"),
          "trouble_minutes" => Shape.number(max: 10_000_000, unit: "minutes"),
          "technician" => Shape.string(max: 120)
        }
      ),
    "TraceContent" => trace_content,
    "StoreTrace" => Shape.object(required: { "version" => Shape.integer(max: 1_000_000), "content" => trace_content }),
    "NewFinding" => NimbleLedger::Card::Finding::SHAPE,
    "NewQuote" => Shape.object(required: { "vehicle_id" => Shape.string(max: 40) }),
    "Content" => NimbleLedger::Quote::Content::SHAPE,
    "SaveQuote" => Shape.object(required: { "version" => version, "priced_with" => priced_with }),
    "StoreDraft" =>
      Shape.object(
        required: {
          "version" => version,
          "content" => NimbleLedger::Quote::Content::SHAPE
        },
        optional: {
          "base_revision" => Shape.integer(max: 1_000_000)
        }
      ),
    "Customer" =>
      Shape.object(
        required: {
          "name" => Shape.string(max: 120)
        },
        optional: {
          "phone" => Shape.nullable(Shape.string(max: 40, empty: true)),
          "email" => Shape.nullable(Shape.string(max: 120, empty: true)),
          "wishes" => Shape.nullable(Shape.string(max: 200, empty: true))
        }
      ),
    "ChangeCar" =>
      Shape.object(
        optional: {
          "plate" => Shape.string(max: 20),
          "description" => Shape.string(max: 120),
          "year" => Shape.nullable(Shape.integer(min: 1900, max: 2100)),
          "maker_number" => Shape.nullable(Shape.string(max: 40, empty: true)),
          "plug_notes" => Shape.nullable(NimbleLedger::Bench::PlugNotes::SHAPE),
          "owner" =>
            Shape.nullable(
              Shape.object(
                optional: {
                  "id" => Shape.string(max: 40),
                  "name" => Shape.string(max: 120),
                  "phone" => Shape.nullable(Shape.string(max: 40, empty: true))
                }
              )
            )
        }
      ),
    "NewReading" =>
      Shape.object(
        required: {
          "km" => Shape.integer(max: 10_000_000)
        },
        optional: {
          "reason" => Shape.string(max: 200, empty: true)
        }
      ),
    "NewFitting" =>
      Shape.object(
        required: {
          "work" => Shape.one_of("plug", "coil", "wire", "boot"),
          "cylinders" => Shape.list(Shape.integer(min: 1, max: 64), min: 1, max: 32, unique: true),
          "on" => Shape.string(max: 10, pattern: /\A\d{4}-\d\d-\d\d\z/),
          "ours" => Shape.boolean
        },
        optional: {
          "km" => Shape.nullable(Shape.integer(max: 10_000_000)),
          "by" => Shape.string(max: 120, empty: true)
        }
      ),
    "GarageRows" => Shape.object(required: { "csv" => Shape.string(max: 4_000_000, lines: true) }),
    "GiveJob" =>
      Shape.object(
        optional: {
          "technician_id" => Shape.nullable(Shape.integer(max: 1_000_000_000)),
          "bay" => Shape.string(max: 40, empty: true),
          "arrival" => Shape.nullable(Shape.one_of("cold", "warm", "hot"))
        }
      ),
    "Marks" =>
      Shape.object(required: { "device" => Shape.string(max: 60), "marks" => Shape.list(Shape.open_object, max: 500) }),
    "NewPicture" =>
      Shape.object(
        required: {
          "data" => Shape.string(max: 4_000_000, empty: true)
        },
        optional: {
          "id" => Shape.string(max: 36, pattern: /\A\h{8}-\h{4}-\h{4}-\h{4}-\h{12}\z/)
        }
      ),
    "StrikeYes" => Shape.object(required: { "position" => Shape.integer(max: 20), "reason" => Shape.string(max: 200) }),
    "IssueBill" =>
      Shape.object(
        required: {
          "payer" => Shape.string(max: 120),
          "total_cents" => Shape.integer(min: -1_000_000_000_000, max: 1_000_000_000_000)
        },
        optional: {
          "address" => Shape.string(max: 400, empty: true, lines: true),
          "days" => Shape.integer(max: 90, unit: "days")
        }
      ),
    "NewPayment" =>
      Shape.object(
        required: {
          "on" => Shape.string(max: 10, pattern: /\A\d{4}-\d\d-\d\d\z/),
          "means" => Shape.one_of(*NimbleLedger::Bill::Request::MEANS),
          "cents" => Shape.integer(min: -1_000_000_000, max: 1_000_000_000),
          "key" => Shape.string(max: 60)
        },
        optional: {
          "note" => Shape.string(max: 200, empty: true)
        }
      ),
    "CreditBill" => Shape.object(required: { "reason" => Shape.string(max: 200) }),
    "CallOff" => Shape.object(required: { "reason" => Shape.string(max: 200) }),
    "ProposeFound" => Shape.object(required: { "mark" => Shape.string(max: 40) }),
    "HandOver" =>
      Shape.object(optional: { "odometer_km" => Shape.nullable(Shape.integer(max: 10_000_000, unit: "km")) }),
    "MergeCustomer" => Shape.object(required: { "double" => Shape.string(max: 40) }),
    "NewOffer" =>
      Shape.object(
        required: {
          "revision" => Shape.integer(min: 1, max: 1_000_000),
          "channel" => Shape.one_of("text", "mail", "phone", "paper"),
          "recipient" => Shape.string(max: 120)
        },
        optional: {
          "address" => Shape.string(max: 120, empty: true),
          "limits" =>
            Shape.list(Shape.object(required: { "position" => Shape.integer(max: 2), "limit_cents" => cents }), max: 3),
          "supersede" => Shape.boolean
        }
      ),
    "OfferAnswer" =>
      Shape.object(
        required: {
          "position" => Shape.integer(max: 2),
          "answer" => Shape.one_of("yes", "no"),
          "how" => Shape.one_of("in-person", "phone", "paper"),
          "name" => Shape.string(max: 80)
        },
        optional: {
          "limit_cents" => Shape.nullable(cents),
          "reason" => Shape.string(max: 500, empty: true)
        }
      ),
    "Equipment" =>
      Shape.object(
        required: {
          "equipment" => Shape.list(Shape.string(max: 80), max: 200, unique: true),
          "revision" => version
        }
      ),
    "HouseFigures" =>
      Shape.object(
        required: {
          "revision" => version
        },
        optional: {
          "settings" => NimbleLedger::House::Settings::SHAPE,
          "shipped" => Shape.list(Shape.one_of(*NimbleLedger::House::Settings::DECLARED.keys), max: 100, unique: true)
        }
      ),
    "PriceRows" => Shape.object(optional: price_rows),
    "KeepPrices" => Shape.object(required: { "revision" => version }, optional: price_rows),
    "ChangePassword" =>
      Shape.object(required: { "password" => Shape.string(max: 200), "new-password" => Shape.string(max: 200) }),
    "SignOut" => Shape.object(optional: { "global_logout" => Shape.boolean }),
    "SignIn" => Shape.object(required: { "email" => Shape.string(max: 200), "password" => Shape.string(max: 200) })
  }.merge(*OF_FEATURES.map { |one| one::REQUESTS }).freeze

  # @return [Hash{String=>Shape}] all that is answered, by name
  def self.answers = Answers::SCHEMAS.merge(*OF_FEATURES.map { |one| one::ANSWERS })

  module_function

  # @return [Hash{String=>Hash}] file name to JSON document
  def documents
    {
      "engine.schema.json" => schema("nimble-ledger.engine", NimbleLedger::Profile::SHAPE),
      "estimate-request.schema.json" =>
        schema("nimble-ledger.estimate-request", NimbleLedger::Estimate::Request::SHAPE),
      "estimate.schema.json" => {
        "$schema" => "https://json-schema.org/draft/2020-12/schema",
        "title" => "nimble-ledger.estimate"
      }.merge(Answers::ESTIMATE.schema),
      "bench-request.schema.json" => schema(NimbleLedger::Bench::Request::FORMAT, NimbleLedger::Bench::Request::SHAPE),
      "scopes-request.schema.json" => schema(NimbleLedger::Scope::Request::FORMAT, NimbleLedger::Scope::Request::SHAPE),
      "trace-request.schema.json" => schema(NimbleLedger::Trace::Request::FORMAT, NimbleLedger::Trace::Request::SHAPE),
      "history.schema.json" => schema(NimbleLedger::Ledger::History::FORMAT, NimbleLedger::Ledger::History::SHAPE),
      "day-request.schema.json" => schema(NimbleLedger::Day::Request::FORMAT, NimbleLedger::Day::Request::SHAPE),
      "pace-request.schema.json" =>
        schema(NimbleLedger::Day::PaceRequest::FORMAT, NimbleLedger::Day::PaceRequest::SHAPE),
      "purchase-request.schema.json" =>
        schema(NimbleLedger::Parts::PurchaseRequest::FORMAT, NimbleLedger::Parts::PurchaseRequest::SHAPE),
      "bill-request.schema.json" => schema(NimbleLedger::Bill::Request::FORMAT, NimbleLedger::Bill::Request::SHAPE),
      "pool-request.schema.json" =>
        schema(NimbleLedger::Ledger::PoolRequest::FORMAT, NimbleLedger::Ledger::PoolRequest::SHAPE),
      "catalog.schema.json" => schema("nimble-ledger.catalog", NimbleLedger::Parts::Catalog::SHAPE),
      "openapi.json" => openapi
    }
  end

  def schema(title, shape) =
    { "$schema" => "https://json-schema.org/draft/2020-12/schema", "title" => title }.merge(shape.schema)

  def openapi
    {
      "openapi" => "3.1.0",
      "info" => {
        "title" => TITLE,
        "version" => "1"
      },
      "paths" => paths,
      "components" => {
        "schemas" => REQUESTS.merge(answers).transform_values(&:schema)
      }
    }
  end

  def ref(name) = { "$ref" => "#/components/schemas/#{name}" }

  def paths = ground_paths.merge(yes_paths, bay_paths, *OF_FEATURES.map { |one| one.paths(method(:operation)) })

  def ground_paths
    {
      "/api/health" => {
        "get" => operation("Whether the server and its database answer", "Health")
      },
      "/api/ping" => {
        "get" => operation("One round trip to the database", "Ping")
      },
      "/api/session" => {
        "get" => operation("Who is signed in, and the token writes must carry", "Session")
      },
      "/api/setup" => {
        "post" =>
          operation(
            "Open the first shop of this server",
            "Joined",
            body: "NewShop",
            status: "201",
            refused: %w[409 422]
          )
      },
      "/api/people" => {
        "get" => operation("Who works here, and who is invited", "People")
      },
      "/api/people/{id}" => {
        "put" =>
          operation(
            "Change a role, end access or give it again",
            "People",
            path: ["id"],
            body: "ChangePerson",
            refused: %w[404 409]
          )
      },
      "/api/people/invitations" => {
        "post" =>
          operation("Invite by a one-time link", "NewLink", body: "NewInvitation", status: "201", refused: ["409"])
      },
      "/api/people/invitations/{id}" => {
        "delete" => operation("Withdraw an invitation", "People", path: ["id"], refused: ["404"])
      },
      "/api/join/look" => {
        "post" => operation("What a link is for", "Invited", body: "LookAtInvitation", refused: ["404"])
      },
      "/api/join" => {
        "post" => operation("Join a shop by a link", "Joined", body: "Join", status: "201", refused: %w[404 409 422])
      },
      "/api/account/login" => {
        "post" => operation("Sign in", "SignedIn", body: "SignIn", refused: %w[401 403])
      },
      "/api/account/logout" => {
        "post" => operation("Sign out, here or everywhere", "SignedIn", body: "SignOut")
      },
      "/api/vehicles" => {
        "get" => operation("Vehicles by plate, owner, phone, engine code", "VehicleList", query: ["search"]),
        "post" => operation("Add a vehicle", "Vehicle", body: "NewVehicle", status: "201", refused: %w[404 409])
      },
      "/api/customers/{id}" => {
        "get" =>
          operation(
            "A customer with cars, and entries that may be the same person",
            "CustomerPage",
            path: ["id"],
            refused: ["404"]
          ),
        "put" =>
          operation(
            "Change how a customer is called and reached",
            "StoredCustomer",
            path: ["id"],
            body: "Customer",
            refused: ["404"]
          )
      },
      "/api/account/change-password" => {
        "post" =>
          operation(
            "Change the password; other sessions end",
            "SignedIn",
            body: "ChangePassword",
            refused: %w[401 403 422]
          )
      },
      "/api/house" => {
        "get" => operation("House rules and equipment", "House")
      },
      "/api/house/equipment" => {
        "put" => operation("Keep what the shop owns", "House", body: "Equipment", refused: ["409"])
      },
      "/api/house/settings" => {
        "put" =>
          operation(
            "Keep figures of the shop's own, or go back to the shipped ones",
            "House",
            body: "HouseFigures",
            refused: ["409"]
          )
      },
      "/api/prices" => {
        "get" => operation("The price list, and parts without a price", "Prices", query: ["search"]),
        "post" =>
          operation(
            "Keep rows as the next revision of the price list",
            "PriceReport",
            body: "KeepPrices",
            status: "201",
            refused: ["409"],
            once: true
          )
      },
      "/api/prices/report" => {
        "post" => operation("What rows would change", "PriceReport", body: "PriceRows")
      },
      "/api/prices/export" => {
        "get" => operation("The price list as CSV", nil, type: "text/csv")
      },
      "/api/vehicles/{id}/history" => {
        "put" =>
          operation(
            "Note what was learned of a car's past",
            "Vehicle",
            path: ["id"],
            body: "VehicleHistory",
            refused: %w[404 422]
          )
      },
      "/api/vehicles/{id}/findings" => {
        "post" =>
          operation("Note what was found on a car", "Findings", path: ["id"], body: "NewFinding", refused: %w[404 422])
      },
      "/api/vehicles/{id}/findings/{finding}/settled" => {
        "post" => operation("A finding is no longer so", "Findings", path: %w[id finding], refused: ["404"])
      },
      "/api/progress/{id}" => {
        "get" => operation("How far work sent with this id in X-Progress has come", "Progress", path: ["id"])
      }
    }.merge(library_and_quotes)
  end

  def ledger_paths
    {
      "/api/ledger" => {
        "get" => operation("Promise against truth", "LedgerPage")
      },
      "/api/ledger/jobs" => {
        "get" => operation("The jobs behind a figure", "LedgerJobs", query: %w[engine technician month])
      },
      "/api/ledger/export" => {
        "get" => operation("Every posted job, as a history", "History")
      },
      "/api/ledger/import" => {
        "post" =>
          operation(
            "Bring a past along",
            "LedgerImported",
            body: "History",
            status: "201",
            refused: ["413"],
            once: true
          )
      },
      "/api/practice/{seed}" => {
        "get" => operation("A made-up car to practise on", "PracticeCar", path: ["seed"], refused: ["404"])
      },
      "/api/practice/{seed}/tests" => {
        "post" =>
          operation("What tests on it show", "PracticeLook", path: ["seed"], body: "PracticeTests", refused: ["404"])
      },
      "/api/practice/{seed}/end" => {
        "post" =>
          operation("The truth, and how it went", "PracticeEnd", path: ["seed"], body: "PracticeDone", refused: ["404"])
      },
      "/api/ledger/table" => {
        "get" => operation("Estimates against what they took, a row a job", nil, type: "text/csv")
      },
      "/api/ledger/past/report" => {
        "post" => operation("What a past would bring along", "PastReport", body: "LedgerPast", refused: ["413"])
      },
      "/api/ledger/past" => {
        "post" =>
          operation(
            "Bring a past along, as a table or a history",
            "PastReport",
            body: "LedgerPast",
            status: "201",
            refused: ["413"],
            once: true
          )
      },
      "/api/ledger/lessons" => {
        "post" =>
          operation(
            "Take what was learned, take it back, or have it taken by itself",
            "LedgerPage",
            body: "LedgerLesson",
            refused: ["409"]
          )
      },
      "/api/ledger/entries/{id}/corrections" => {
        "post" =>
          operation(
            "An entry against an entry, with its reason",
            "LedgerJobs",
            path: ["id"],
            body: "CorrectEntry",
            refused: %w[404 409 422]
          )
      }
    }
  end

  # Entering engines, and finding the fault.
  def workshop_and_trace
    {
      "/api/workshop" => {
        "get" => operation("Engines under the pencil", "WorkshopDrafts"),
        "post" =>
          operation(
            "Begin to draw an engine, or go on with it",
            "WorkshopDraft",
            body: "BeginDraft",
            status: "201",
            refused: %w[404 409 422],
            once: true
          )
      },
      "/api/workshop/acts" => {
        "post" =>
          operation(
            "What an act on the drawing makes of a profile",
            "WorkshopActed",
            body: "WorkshopAct",
            refused: %w[413 422]
          )
      },
      "/api/workshop/{code}" => {
        "get" => operation("A draft of an engine", "WorkshopDraft", path: ["code"], refused: ["404"]),
        "put" =>
          operation(
            "Keep a draft as it was typed",
            "WorkshopStored",
            path: ["code"],
            body: "StoreEngine",
            refused: %w[404 409 413]
          ),
        "delete" => operation("Throw a draft away", "WorkshopDrafts", path: ["code"], refused: ["404"])
      },
      "/api/workshop/{code}/revisions" => {
        "post" =>
          operation(
            "Keep a draft as the next revision",
            "ImportReport",
            path: ["code"],
            body: "KeepEngine",
            status: "201",
            refused: %w[404 409],
            once: true
          )
      },
      "/api/sketches" => {
        "post" =>
          operation(
            "An engine from five answers, provisional, in the library at once",
            "ImportReport",
            body: "NewSketch",
            status: "201",
            refused: %w[409 422],
            once: true
          )
      },
      "/api/sketches/offered" => {
        "post" =>
          operation(
            "What may lie over the plugs of an engine built like this, and over which it usually does",
            "OfferedLayers",
            body: "HowBuilt",
            refused: ["422"]
          )
      },
      "/api/comparisons" => {
        "get" =>
          operation("Two profiles side by side", "Comparison", query: %w[a b a_revision b_revision], refused: ["404"])
      },
      "/api/library" => {
        "get" => operation("Every engine in one archive", nil, type: "application/zip"),
        "post" =>
          operation(
            "Keep what is chosen of an archive",
            "ArchiveKept",
            body: "KeepArchive",
            status: "201",
            refused: %w[413 422],
            once: true
          )
      },
      "/api/library/report" => {
        "post" =>
          operation("What an archive would change", "ArchiveReport", body: "LibraryArchive", refused: %w[413 422])
      },
      **ledger_paths,
      "/api/quotes/{id}/trace" => {
        "get" => operation("Finding the fault of a quote's car", "TracePage", path: ["id"], refused: ["404"]),
        "put" =>
          operation(
            "Keep what is known of it",
            "TraceStored",
            path: ["id"],
            body: "StoreTrace",
            refused: %w[404 409 422]
          )
      },
      "/api/quotes/{id}/trace/codes" => {
        "post" => operation("Read the codes of its car", "ScanReport", path: ["id"], refused: %w[404 409 503])
      }
    }
  end

  def library_and_quotes
    {
      "/api/engines" => {
        "get" => operation("The engine library", "EngineList", query: ["search"]),
        "post" =>
          operation(
            "Import an engine profile as a new revision",
            "ImportReport",
            body: "EngineProfile",
            status: "201",
            refused: %w[409 413],
            once: true
          )
      },
      "/api/patterns" => {
        "get" => operation("Engine profiles that ship with the program", "Patterns")
      },
      "/api/engines/report" => {
        "post" => operation("What an import would change", "ImportReport", body: "EngineProfile", refused: ["413"])
      },
      "/api/engines/{code}" => {
        "get" =>
          operation(
            "One engine: drawing, hours, profile",
            "EngineWithProfile",
            path: ["code"],
            query: %w[work revision],
            refused: ["404"]
          )
      },
      "/api/engines/{code}/export" => {
        "get" =>
          operation("The profile as a file", "EngineProfile", path: ["code"], query: ["revision"], refused: ["404"])
      },
      "/api/estimates" => {
        "post" =>
          operation(
            "Compute an estimate (see estimate-request.schema.json)",
            "Estimate",
            body: "EstimateRequest",
            refused: ["422"]
          )
      },
      "/api/answers" => {
        "post" =>
          operation(
            "A request of any format answered (see the schemas beside this file)",
            "AnyAnswer",
            body: "AnyRequest",
            refused: ["422"]
          )
      },
      "/api/quotes" => {
        "get" => operation("Quotes, newest first", "QuoteList", query: ["search"]),
        "post" =>
          operation(
            "Start a quote for a vehicle",
            "QuotePage",
            body: "NewQuote",
            status: "201",
            refused: ["404"],
            once: true
          )
      },
      "/api/quotes/{id}" => {
        "get" => operation("A quote with its working copy, priced", "QuotePage", path: ["id"], refused: ["404"])
      },
      "/api/quotes/{id}/put-away" => {
        "post" =>
          operation(
            "Take a quote off the lists; a search still finds it",
            "QuoteCard",
            path: ["id"],
            refused: %w[404 409]
          )
      },
      "/api/quotes/{id}/bring-back" => {
        "post" => operation("Put it back on the lists", "QuoteCard", path: ["id"], refused: ["404"])
      },
      "/api/quotes/{id}/engine" => {
        "post" =>
          operation("Move the quote to the newest revision of its engine", "QuotePage", path: ["id"], refused: ["404"])
      },
      "/api/quotes/{id}/draft" => {
        "put" =>
          operation(
            "Store the working copy and price it",
            "Priced",
            path: ["id"],
            body: "StoreDraft",
            refused: %w[404 409],
            about:
              "The first line of the answer goes out once the copy is stored, before the rest is worked out: closed " \
                "with a brace it is an object of its own, with draft, balance, resolved and priced_with. The whole " \
                "body is one object as well."
          )
      },
      "/api/quotes/{id}/panels/{panel}" => {
        "get" =>
          operation(
            "What a panel shows of the working copy as stored: soaks compared, scopes side by side",
            "PanelFigures",
            path: %w[id panel],
            refused: ["404"]
          )
      },
      "/api/quotes/{id}/revisions" => {
        "post" =>
          operation(
            "Save the working copy as a revision",
            "Saved",
            path: ["id"],
            body: "SaveQuote",
            status: "201",
            refused: %w[404 409 422],
            once: true
          )
      },
      "/api/quotes/{id}/revisions/{number}" => {
        "get" => operation("A saved revision, as it was", "FrozenRevision", path: %w[id number], refused: ["404"])
      },
      "/api/quotes/{id}/print.pdf" => {
        "get" =>
          operation(
            "The designed quote page",
            nil,
            path: ["id"],
            query: ["revision"],
            refused: ["404"],
            type: "application/pdf"
          )
      }
    }.merge(workshop_and_trace)
  end

  # The shop itself; what was offered, and what was said to it.
  def yes_paths
    {
      "/api/shop" => {
        "put" =>
          operation(
            "Say anew how the shop is called, where it is and how it writes",
            "ShopDetails",
            body: "ShopDetails",
            refused: ["422"]
          )
      },
      "/api/everything" => {
        "get" => operation("All the shop owns, in open files in one archive", nil, type: "application/zip")
      },
      "/api/garage/export" => {
        "get" => operation("Cars and owners as CSV", nil, type: "text/csv")
      },
      "/api/garage/report" => {
        "post" => operation("What rows of cars and owners would change", "GarageReport", body: "GarageRows")
      },
      "/api/garage" => {
        "post" =>
          operation("Take rows of cars and owners", "GarageReport", body: "GarageRows", status: "201", once: true)
      },
      "/api/vehicles/{id}" => {
        "get" => operation("A car over the years", "CarPage", path: ["id"], refused: ["404"]),
        "put" =>
          operation(
            "Change plate, number or owner of a car",
            "CarPage",
            path: ["id"],
            body: "ChangeCar",
            refused: %w[404 409 422]
          )
      },
      "/api/vehicles/{id}/readings" => {
        "post" =>
          operation("What the odometer shows", "CarPage", path: ["id"], body: "NewReading", refused: %w[404 422])
      },
      "/api/vehicles/{id}/fittings" => {
        "post" => operation("What was fitted to it", "CarPage", path: ["id"], body: "NewFitting", refused: %w[404 422])
      },
      "/api/vehicles/{id}/fittings/{fitting}/withdrawal" => {
        "post" => operation("It was noted by mistake", "CarPage", path: %w[id fitting], refused: ["404"])
      },
      "/api/counter" => {
        "get" => operation("What needs somebody now", "Counter")
      },
      "/api/vehicles/{id}/file" => {
        "get" => operation("Everything the shop has on one car", "CarFile", path: ["id"], refused: ["404"])
      },
      "/api/find" => {
        "get" => operation("Cars, people, quotes and jobs by words", "Found", query: ["search"])
      },
      "/api/quotes/{id}/yes" => {
        "get" =>
          operation("What can be offered, what was, and where it stands", "YesPage", path: ["id"], refused: ["404"])
      },
      "/api/quotes/{id}/export" => {
        "get" => operation("All of a quote as an open document", "QuoteDocument", path: ["id"], refused: ["404"])
      },
      "/api/quotes/{id}/preview" => {
        "get" => operation("The page as the customer sees it", "Preview", path: ["id"], refused: ["404"])
      },
      "/api/quotes/{id}/offers" => {
        "post" =>
          operation(
            "Offer a saved revision: by message, read out, on paper",
            "YesPage",
            path: ["id"],
            body: "NewOffer",
            status: "201",
            refused: %w[404 409 422],
            once: true
          )
      },
      "/api/offers/{id}/authorization.pdf" => {
        "get" => operation("The page to sign", nil, path: ["id"], refused: ["404"], type: "application/pdf")
      },
      "/api/offers/{id}/answers" => {
        "post" =>
          operation(
            "Keep a yes or a no that was said in person or on the phone",
            "YesPage",
            path: ["id"],
            body: "OfferAnswer",
            status: "201",
            refused: %w[404 409 422],
            once: true
          )
      },
      "/api/offers/{id}/revocation" => {
        "post" => operation("Close the link of an offer", "YesPage", path: ["id"], refused: ["404"])
      },
      "/api/offers/{id}/retry" => {
        "post" => operation("Try its message once more", "YesPage", path: ["id"], refused: ["404"])
      },
      "/api/offers/{id}/strike" => {
        "post" =>
          operation(
            "Strike a yes that was kept by mistake: it stays in the record, and nothing follows from it",
            "YesPage",
            path: ["id"],
            body: "StrikeYes",
            refused: %w[404 409]
          )
      },
      "/api/offers/{id}/no-read" => {
        "post" => operation("Somebody has read a customer's no", "Counter", path: ["id"], refused: ["404"])
      },
      "/api/questions/{id}/settled" => {
        "post" => operation("A customer's question was answered", "YesPage", path: ["id"], refused: ["404"])
      },
      "/api/customers/{id}/merge" => {
        "post" =>
          operation(
            "Make two entries for one person one",
            "CustomerPage",
            path: ["id"],
            body: "MergeCustomer",
            refused: %w[404 422]
          )
      }
    }
  end

  # The bay.
  def bay_paths
    {
      "/api/jobs" => {
        "get" => operation("Jobs that are not handed over yet", "BayJobs")
      },
      "/api/jobs/{id}" => {
        "get" => operation("A job with its card", "JobCard", path: ["id"], refused: %w[404 409]),
        "put" =>
          operation(
            "Say who does a job, where, and how warm the car came",
            "JobCard",
            path: ["id"],
            body: "GiveJob",
            refused: %w[404 409 422]
          )
      },
      "/api/follow-ups/{id}/settled" => {
        "post" => operation("Somebody has looked again", "Counter", path: ["id"], refused: ["404"])
      },
      "/api/jobs/{id}/marks" => {
        "post" =>
          operation("Hand in marks made on a card", "HandedIn", path: ["id"], body: "Marks", refused: %w[404 409])
      },
      "/api/jobs/{id}/scan" => {
        "post" => operation("Read the car's codes", "ScanReport", path: ["id"], refused: %w[404 503])
      },
      "/api/jobs/{id}/proposals" => {
        "post" =>
          operation(
            "Put what is proposed for a finding into the quote",
            "Proposed",
            path: ["id"],
            body: "ProposeFound",
            refused: %w[404 409]
          )
      },
      "/api/jobs/{id}/ways-on" => {
        "post" =>
          operation(
            "Save the ways on after trouble above the limit, ready to be asked",
            "Proposed",
            path: ["id"],
            refused: %w[404 409]
          )
      },
      "/api/jobs/{id}/bill" => {
        "get" =>
          operation(
            "The bill of a job: as it would be, or as it was issued",
            "BillPage",
            path: ["id"],
            refused: %w[404 409]
          ),
        "post" =>
          operation(
            "Issue it, with the next number",
            "BillPage",
            path: ["id"],
            body: "IssueBill",
            status: "201",
            refused: %w[404 409 422],
            once: true
          )
      },
      "/api/jobs/{id}/payments" => {
        "post" =>
          operation(
            "Note money that came in, or was given back",
            "BillPage",
            path: ["id"],
            body: "NewPayment",
            status: "201",
            refused: %w[404 422],
            once: true
          )
      },
      "/api/bills/{id}/credit" => {
        "post" =>
          operation(
            "Put a bill right by a credit note",
            "BillPage",
            path: ["id"],
            body: "CreditBill",
            status: "201",
            refused: %w[404 409],
            once: true
          )
      },
      "/api/bills/{id}/bill.pdf" => {
        "get" => operation("A bill on paper", nil, path: ["id"], type: "application/pdf", refused: ["404"])
      },
      "/api/bills/journal" => {
        "get" => operation("The journal of bills and payments as CSV", nil, type: "text/csv")
      },
      "/api/jobs/{id}/call-off" => {
        "post" =>
          operation(
            "Call a job off: the customer no longer wants it",
            "YesPage",
            path: ["id"],
            body: "CallOff",
            refused: %w[404 409]
          )
      },
      "/api/jobs/{id}/take-up" => {
        "post" => operation("Take a job up again that was called off", "YesPage", path: ["id"], refused: %w[404 409])
      },
      "/api/jobs/{id}/hand-over" => {
        "post" =>
          operation(
            "Hand the car over: what was done is written to it",
            "JobCard",
            path: ["id"],
            body: "HandOver",
            refused: %w[404 409 422]
          )
      },
      "/api/jobs/{id}/card.pdf" => {
        "get" => operation("The bay card on paper", nil, path: ["id"], type: "application/pdf", refused: ["404"])
      },
      "/api/jobs/{id}/hand-over.pdf" => {
        "get" =>
          operation("What the customer takes along", nil, path: ["id"], type: "application/pdf", refused: %w[404 409])
      },
      "/api/jobs/{id}/pictures" => {
        "post" =>
          operation(
            "Keep a picture of what was found",
            "Picture",
            path: ["id"],
            body: "NewPicture",
            status: "201",
            refused: %w[404 422]
          )
      },
      "/api/jobs/{id}/pictures/{picture}" => {
        "get" => operation("A picture", nil, path: %w[id picture], type: "image/*", refused: ["404"])
      }
    }
  end

  def operation(
    summary,
    answer,
    body: nil,
    status: "200",
    path: [],
    query: [],
    refused: [],
    once: false,
    type: "application/json",
    about: nil
  )
    schema = answer ? ref(answer) : { "type" => "string", "format" => "binary" }
    responses = { status => { "description" => summary, "content" => { type => { "schema" => schema } } } }
    (%w[400 401 403 413 429 503] + refused).uniq.sort.each do |code|
      responses[code] = {
        "description" => "Refused",
        "content" => {
          "application/json" => {
            "schema" => ref(code == "409" ? "Conflict" : "Error")
          }
        }
      }
    end
    { "summary" => summary, "description" => about, "responses" => responses }.compact.tap do |op|
      parameters = parameters(path, query, once)
      op["parameters"] = parameters if parameters.any?
      op["requestBody"] = {
        "required" => true,
        "content" => {
          "application/json" => {
            "schema" => ref(body)
          }
        }
      } if body
    end
  end

  def parameters(path, query, once)
    path.map do |name|
      { "name" => name, "in" => "path", "required" => true, "schema" => { "type" => "string", "maxLength" => 80 } }
    end +
      query.map { |name| { "name" => name, "in" => "query", "schema" => { "type" => "string", "maxLength" => 200 } } } +
      (
        if once
          [{ "name" => "Idempotency-Key", "in" => "header", "schema" => { "type" => "string", "maxLength" => 100 } }]
        else
          []
        end
      )
  end
end
