# frozen_string_literal: true

module NimbleLedger
  module Trace
    # The tables a trace goes by as they are shipped (model.md section 9): starting figures of this house, not truths.
    # What each means stands in docs/trace.md; formats/trace-tables.json is printed from here.
    SHIPPED = {
      "prior" => {
        "coil-on-plug" => {
          "coil" => 0.42,
          "plug" => 0.26,
          "wire" => 0.08,
          "wiring" => 0.06,
          "injector" => 0.09,
          "compression" => 0.05,
          "elsewhere" => 0.04
        },
        "rail" => {
          "coil" => 0.42,
          "plug" => 0.28,
          "wire" => 0.06,
          "wiring" => 0.06,
          "injector" => 0.09,
          "compression" => 0.05,
          "elsewhere" => 0.04
        },
        "paired" => {
          "coil" => 0.28,
          "plug" => 0.26,
          "wire" => 0.22,
          "wiring" => 0.05,
          "injector" => 0.09,
          "compression" => 0.06,
          "elsewhere" => 0.04
        },
        "distributor" => {
          "coil" => 0.08,
          "plug" => 0.3,
          "wire" => 0.3,
          "wiring" => 0.06,
          "injector" => 0.06,
          "compression" => 0.12,
          "elsewhere" => 0.08
        },
        "single-coil" => {
          "coil" => 0.22,
          "plug" => 0.4,
          "wire" => 0.14,
          "wiring" => 0.08,
          "injector" => 0.04,
          "compression" => 0.06,
          "elsewhere" => 0.06
        }
      },
      "counters" => {
        "inside" => 0.95,
        "weight" => 6
      },
      "sets" => {
        "coil" => 0.1,
        "plug" => 0.1,
        "wire" => 0.1
      },
      "brittle" => {
        "wire" => 1.5,
        "wiring" => 1.4
      },
      "code" => {
        "hit" => 0.92,
        "stray" => 0.03,
        "partner" => 0.12,
        "elsewhere" => 0.2,
        "several" => {
          "one" => 0.25,
          "two" => 0.45,
          "more" => 0.85,
          "elsewhere" => 0.9
        }
      },
      "when" => {
        "coil" => {
          "always" => 0.26,
          "load" => 0.38,
          "idle" => 0.08,
          "cold" => 0.12,
          "hot" => 0.16
        },
        "plug" => {
          "always" => 0.28,
          "load" => 0.4,
          "idle" => 0.12,
          "cold" => 0.15,
          "hot" => 0.05
        },
        "wire" => {
          "always" => 0.23,
          "load" => 0.47,
          "idle" => 0.08,
          "cold" => 0.17,
          "hot" => 0.05
        },
        "wiring" => {
          "always" => 0.38,
          "load" => 0.18,
          "idle" => 0.17,
          "cold" => 0.12,
          "hot" => 0.15
        },
        "injector" => {
          "always" => 0.37,
          "load" => 0.23,
          "idle" => 0.24,
          "cold" => 0.09,
          "hot" => 0.07
        },
        "compression" => {
          "always" => 0.42,
          "load" => 0.1,
          "idle" => 0.33,
          "cold" => 0.1,
          "hot" => 0.05
        },
        "elsewhere" => {
          "always" => 0.28,
          "load" => 0.23,
          "idle" => 0.29,
          "cold" => 0.14,
          "hot" => 0.06
        }
      },
      "tests" => {
        "look-coil" => {
          "minutes" => 3,
          "runs" => false,
          "touches" => "coil",
          "outcomes" => %w[clean cracked tracked oil],
          "here" => {
            "coil" => [0.63, 0.17, 0.12, 0.08],
            "plug" => [0.75, 0.03, 0.14, 0.08],
            "wire" => [0.45, 0.1, 0.35, 0.1],
            "wiring" => [0.9, 0.03, 0.03, 0.04],
            "injector" => [0.9, 0.03, 0.03, 0.04],
            "compression" => [0.88, 0.03, 0.03, 0.06],
            "boot" => [0.35, 0.2, 0.35, 0.1]
          },
          "other" => [0.9, 0.03, 0.03, 0.04],
          "elsewhere" => [0.86, 0.04, 0.04, 0.06]
        },
        "read-plug" => {
          "minutes" => 1,
          "runs" => false,
          "touches" => "plug",
          "outcomes" => %w[normal sooty wet worn cracked oily],
          "here" => {
            "coil" => [0.26, 0.23, 0.4, 0.08, 0.01, 0.02],
            "plug" => [0.08, 0.14, 0.18, 0.3, 0.22, 0.08],
            "wire" => [0.26, 0.23, 0.37, 0.08, 0.04, 0.02],
            "wiring" => [0.23, 0.18, 0.48, 0.08, 0.01, 0.02],
            "injector" => [0.5, 0.2, 0.16, 0.09, 0.02, 0.03],
            "compression" => [0.22, 0.1, 0.13, 0.08, 0.02, 0.45]
          },
          "other" => [0.74, 0.06, 0.03, 0.12, 0.02, 0.03],
          "elsewhere" => [0.4, 0.28, 0.1, 0.12, 0.02, 0.08],
          "moves_plugs" => true
        },
        "swap-coil" => {
          "minutes" => 10,
          "runs" => true,
          "touches" => "coil",
          "outcomes" => %w[moved stayed both none],
          "here" => {
            "coil" => [0.9, 0.02, 0.03, 0.05],
            "plug" => [0.03, 0.87, 0.03, 0.07],
            "wire" => [0.1, 0.78, 0.05, 0.07],
            "wiring" => [0.03, 0.87, 0.03, 0.07],
            "injector" => [0.03, 0.87, 0.03, 0.07],
            "compression" => [0.03, 0.88, 0.03, 0.06],
            "boot" => [0.82, 0.09, 0.03, 0.06]
          },
          "other" => [0.05, 0.55, 0.15, 0.25],
          "elsewhere" => [0.06, 0.4, 0.29, 0.25]
        },
        "swap-plug" => {
          "minutes" => 10,
          "runs" => true,
          "touches" => "plug",
          "outcomes" => %w[moved stayed both none],
          "here" => {
            "coil" => [0.04, 0.86, 0.03, 0.07],
            "plug" => [0.88, 0.03, 0.03, 0.06],
            "wire" => [0.04, 0.85, 0.04, 0.07],
            "wiring" => [0.03, 0.87, 0.03, 0.07],
            "injector" => [0.03, 0.87, 0.03, 0.07],
            "compression" => [0.03, 0.88, 0.03, 0.06]
          },
          "other" => [0.05, 0.55, 0.15, 0.25],
          "elsewhere" => [0.06, 0.4, 0.29, 0.25],
          "moves_plugs" => true
        },
        "swap-both" => {
          "minutes" => 10,
          "runs" => true,
          "touches" => "coil+plug",
          "outcomes" => %w[moved stayed both none],
          "here" => {
            "coil" => [0.88, 0.03, 0.03, 0.06],
            "plug" => [0.88, 0.03, 0.03, 0.06],
            "wire" => [0.12, 0.76, 0.05, 0.07],
            "wiring" => [0.03, 0.87, 0.03, 0.07],
            "injector" => [0.03, 0.87, 0.03, 0.07],
            "compression" => [0.03, 0.88, 0.03, 0.06],
            "boot" => [0.84, 0.07, 0.03, 0.06]
          },
          "other" => [0.05, 0.55, 0.15, 0.25],
          "elsewhere" => [0.06, 0.4, 0.29, 0.25],
          "moves_plugs" => true
        },
        "check-wire" => {
          "minutes" => 4,
          "runs" => false,
          "touches" => "wire",
          "outcomes" => %w[good bad],
          "here" => {
            "coil" => [0.96, 0.04],
            "plug" => [0.96, 0.04],
            "wire" => [0.2, 0.8],
            "wiring" => [0.96, 0.04],
            "injector" => [0.96, 0.04],
            "compression" => [0.96, 0.04]
          },
          "other" => [0.95, 0.05],
          "elsewhere" => [0.93, 0.07]
        },
        "check-wiring" => {
          "minutes" => 12,
          "runs" => false,
          "touches" => "coil",
          "outcomes" => %w[good bad],
          "here" => {
            "coil" => [0.96, 0.04],
            "plug" => [0.97, 0.03],
            "wire" => [0.95, 0.05],
            "wiring" => [0.1, 0.9],
            "injector" => [0.96, 0.04],
            "compression" => [0.97, 0.03]
          },
          "other" => [0.97, 0.03],
          "elsewhere" => [0.9, 0.1]
        },
        "balance-injector" => {
          "minutes" => 12,
          "runs" => true,
          "touches" => "nothing",
          "outcomes" => %w[good bad],
          "here" => {
            "coil" => [0.94, 0.06],
            "plug" => [0.95, 0.05],
            "wire" => [0.95, 0.05],
            "wiring" => [0.92, 0.08],
            "injector" => [0.12, 0.88],
            "compression" => [0.85, 0.15]
          },
          "other" => [0.95, 0.05],
          "elsewhere" => [0.8, 0.2],
          "needs" => ["scan-tool"]
        },
        "compression" => {
          "minutes" => 5,
          "runs" => false,
          "touches" => "compression",
          "outcomes" => %w[good low],
          "here" => {
            "coil" => [0.96, 0.04],
            "plug" => [0.94, 0.06],
            "wire" => [0.96, 0.04],
            "wiring" => [0.96, 0.04],
            "injector" => [0.95, 0.05],
            "compression" => [0.06, 0.94]
          },
          "other" => [0.96, 0.04],
          "elsewhere" => [0.85, 0.15],
          "moves_plugs" => true,
          "needs" => ["compression-gauge"]
        }
      },
      "rail_whole" => 0.2,
      "cap_and_rotor" => 0.08
    }.freeze
  end
end
