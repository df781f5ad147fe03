# frozen_string_literal: true

module NimbleLedger
  module Card
    # What the card says to do, by piece, act and protocol (model.md section 15; domain.md, cautions), in English. One
    # place for all of it: the pieces name codes, these are their words.
    module Words
      # Pieces of no step and no target: what they are called, and what is done.
      HOUSE = {
        "receive" => ["Receive and protect", ["Odometer, lamp, what it does and when. Cover paint and seats."]],
        "cold_check" => ["Cold check", ["A hand on the head: no warmer than the air. Warm: wait.", "Key out."]],
        "crack-warm" => [
          "Crack every plug while the head is warm",
          [
            "An eighth of a turn, not more: breaker bar, steady pull. One that will not: leave it.",
            "Gloves and sleeves: what lies round the wells is hot. No fluid on a hot engine."
          ]
        ],
        "battery" => ["Battery off", ["Negative first, its lead tied back. Key out, away from the car."]],
        "battery-off" => ["Battery off", ["Negative first, its lead tied back. Key out, away from the car."]],
        "battery-on" => [
          "Battery on",
          [
            "Everything that was opened is closed and plugged in. Positive first, negative last, tight.",
            "Clock, windows and what else the maker names are set again."
          ]
        ],
        "battery-on-to-crank" => [
          "Battery on, to turn the engine over",
          ["Hands and tools out, nobody at the wells. Injection and ignition are off before the key is turned."]
        ],
        "battery-off-again" => ["Battery off again", ["Negative off before hands go back in."]],
        "clear" => ["Note the codes, then clear them", ["Before any relearn and before the drive."]],
        "read" => ["Read the codes", ["Pending ones too. A permanent one clears only by driving, not with the tool."]],
        "leak_check" => [
          "Start, idle, look and listen",
          ["Hands, tools and sleeves out. Start, let it idle: leaks, hiss or misfire at what was opened."]
        ],
        "road_test" => ["Road test", ["Warm, and the way it misfired: under load where the complaint was under load."]],
        "clean" => ["Clean every well, before the first boot comes off", []]
      }.freeze
      # The same where the head is to be warm.
      WARM_CHECK = [
        "Warm check",
        ["A hand on the head: warm, not hot. Hotter: wait. Cold: crack it cold, as it is.", "Key out."]
      ].freeze

      # Wells before the first boot, and again at each plug, by the house's school.
      CLEAN = {
        "both" => [
          "Eyes covered. Blow out, then vacuum, round every coil and boot: what lies there falls into the bore.",
          "Blown and vacuumed again, with the plug still in."
        ],
        "air" => [
          "Eyes covered. Blow out round every coil and boot, away from you: what lies there falls into the bore.",
          "Eyes covered. Blown out again, with the plug still in."
        ],
        "vacuum" => [
          "Vacuum round every coil and boot, a brush before the nozzle: what lies there falls into the bore.",
          "Vacuumed again, with the plug still in."
        ]
      }.freeze

      # What a plug coming out may meet beside the hand, by the house's school; after a soak only where there was one.
      POWER = {
        "spin-out" => "Only once it turns freely by hand may a driver on its lowest step spin it out. Never in.",
        "after-soak" => "Steady low impact, a few seconds at a time, then by hand, to and fro. Never in."
      }.freeze
      # Where a chirp is a bad sign.
      GALLS = "A chirp here is the thread galling: tighten again, a drop of fluid, wait, then to and fro."

      # What is ticked off at a house piece: item, words. Those of BEFORE_START cannot be skipped.
      TICKS = {
        "leak_check" => [%w[tools-counted tools\ counted], %w[looked-over hoses,\ connectors\ and\ wires\ looked\ over]]
      }.freeze

      # Other work and parts that were agreed by hand.
      BY_HAND = "agreed beside it, done: %<label>s"

      # What is done to a plug, act by act.
      ACTS = {
        "clean" => [],
        "out" => [
          "By hand. A quarter turn, then back, and out again.",
          "The socket spins and nothing rises: it is already apart. Stop."
        ],
        "read" => ["Laid in its place in the row, bank by bank."],
        "dry" => ["Wipe and blow the well dry: no fluid, no dirt on the seat."],
        "in" => ["By hand, all the way down. Resistance: stop, back out, look."],
        "tighten" => []
      }.freeze
      # Fluid on a piston cannot be pressed together.
      EMPTIED =
        "Fluid may stand on the piston: suck it out, then turn the engine over twice by hand with this plug out. " \
          "Never with the starter."

      # What goes in, how far the plug is cracked first, how full, how long, which tool, how hard: by protocol. %<wait>s
      # is the house's figure in minutes.
      SOAK = {
        "short" => ["Fluid into every well, to the top of the hex.", "%<wait>s minutes, then by hand only."],
        "crack-and-soak" => [
          "Crack each plug an eighth of a turn, not more: breaker bar, steady pull. One that will not: leave it.",
          "Fluid into every well, to the top of the hex; it must reach the thread.",
          "%<wait>s minutes, then out by hand, to and fro."
        ],
        "overnight" => [
          "Fluid into every well, to the top of the hex; fill up once more before you leave.",
          "It stands overnight. A note on the wheel: do not start, fluid in the wells.",
          "Tomorrow by hand only, to and fro."
        ],
        "overnight-impact" => [
          "Crack each plug an eighth of a turn, not more: breaker bar, steady pull. One that will not: leave it.",
          "Fluid into every well, to the top of the hex; fill up once more before you leave.",
          "It stands overnight. A note on the wheel: do not start, fluid in the wells.",
          "Tomorrow: small impact wrench, lowest step, straight on the plug, bursts of a second, three at most. " \
            "Once it moves, hand tools do the rest."
        ]
      }.freeze
      SOAK_CARE = "Goggles and gloves. Fresh air, no flame, nothing hot under it: the fluid burns."
      # What is ticked off at the soak, by act.
      SOAK_TICKS = {
        "clean" => "wells clean: %<numbers>s",
        "crack" => "cracked an eighth of a turn: %<numbers>s",
        "fluid" => "fluid in: %<numbers>s"
      }.freeze
      WAIT_COOL = [
        "Cooling down",
        "Until a hand on the head feels no warmer than the air: before that nothing is taken out and nothing is fitted."
      ].freeze
      WAIT_SOAK = ["Soaking", "Meanwhile: new plugs looked at and laid out, gaps checked, what is open covered."].freeze
      WAIT_OVERNIGHT = [
        "Soaking overnight",
        "The day ends here for this car: it is not started and not moved. Wells and ports covered."
      ].freeze

      # What is done at work, by its kind.
      WORK = {
        "compression" => [
          "All plugs out, throttle held open, battery full. Injection and ignition off, nobody over the wells.",
          "The same number of turns for each; write the figure down."
        ],
        "look" => ["Lamp and camera through the bore: crown, walls, valves. Nothing is turned while it is in."],
        "left" => ["Left as it is: looked over, nothing fitted. What was opened for it goes back on."],
        "crank" => [
          "Plugs out, injectors and coils off. Rags over the wells, nobody above them, no flame.",
          "Short bursts until nothing comes; then wipe every well dry."
        ]
      }.freeze

      # A plug's own work where a step takes it out.
      NEW_READY = "The new one looked at, its gap checked%<gap>s, laid at its place."
      GAP = ": %<low>s to %<high>s mm"

      # Titles: what is done with a piece.
      TITLES = {
        off: "%<name>s, off",
        on: "%<name>s, on",
        out: "%<name>s, out",
        in: "%<name>s, in",
        ready: "%<name>s, the new one laid ready",
        again: "%<name>s, once more",
        done: "%<name>s",
        undone: "Back as it was: %<name>s"
      }.freeze
      # A label that says itself what is done on the way in: "Car raised on the lift".
      SAYS_WHAT_IS_DONE = /\b(set|raised|held|aside|pulled|propped|unplugged|unclipped|hung|lifted out)\b/
      # A tool that takes off what lies over the work, not one of the work.
      PULLER = /puller/

      # What is never forgotten.
      PORTS_COVERED = "Ports covered, covers counted"
      COVERS_OUT = "Covers out, the same number"
      PORTS_SEEN = "Looked into every port with a lamp"
      CAP_ON = "It is on and tight"
      AGAIN = "Off once more for what lies under it, and on again. Look before the engine is started."
      NUMBERED = "Number it %<number>s before it comes off: all are off at once."
      MARKED = "Mark each with its place before it comes off: they could be swapped."
      FLUID_OUT = "%<fluid>s runs out: catch it, about %<liters>s liters."
      TWICE = "%<pattern>s, then once more round"

      WIRE = "Wire %<number>s goes from %<from>s to plug %<number>s%<label>s."
      WIRE_OFF_FIRST = "The wire to plug %<number>s comes off it first: twist the boot, never pull at the cable."
      WIRE_ON_COIL = "wire to plug %<number>s on it"
      SEATED_ON_PLUG = "seated on plug %<number>s"
      SEATED_BOTH = "seated on plug %<number>s and at %<from>s"
      CLIPS = "Clips: %<count>s."
      OWN_CLIPS = "Back into its own clips, clear of hot and moving parts."
    end
  end
end
