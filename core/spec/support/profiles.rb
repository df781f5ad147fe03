# frozen_string_literal: true

# Small profiles for the specs: hand-made parts, and a seeded generator of random ones.
module Profiles
  module_function

  def profile(steps:, targets:, **rest)
    numbers = targets.flat_map { |t| [t["cylinder"], *t["cylinders"]] }.compact.uniq
    numbers = [1] if numbers.empty?
    plugless = numbers - targets.select { |t| t["work"] == "plug" }.map { |t| t["cylinder"] }
    filler = plugless.map { |n| target("filler-#{n}", work: "plug", cylinder: n) }
    {
      "format" => "nimble-ledger.engine",
      "version" => 1,
      "code" => "T-1",
      "name" => "Test engine",
      "arrangement" => "inline",
      "head" => "aluminum",
      "ignition" => "coil-on-plug",
      "cylinders" => numbers.sort.map { |n| { "number" => n, "position" => n } },
      "plug" => {
        "part" => "PLG-1"
      },
      "steps" => steps,
      "targets" => targets + filler
    }.merge(rest.transform_keys(&:to_s))
  end

  def step(id, minutes = 1, after: [], **rest)
    points = minutes.is_a?(Array) ? minutes : [minutes, minutes, minutes]
    { "id" => id, "label" => id, "remove" => points, "refit" => [0, 0, 0], "after" => after }.merge(
      rest.transform_keys(&:to_s)
    )
  end

  def target(id, work: "coil", cylinder: 1, minutes: [1, 1, 1], ways: nil, through: [], **rest)
    ways ||= [{ "id" => "way", "through" => through }]
    { "id" => id, "work" => work, "cylinder" => cylinder, "minutes" => minutes, "ways" => ways }.merge(
      rest.transform_keys(&:to_s)
    )
  end

  def any(*ids) = { "any" => ids }

  def planner(hash, equipment: [], pins: nil, condition: nil, house: nil, rules: 2)
    car(hash, equipment: equipment, pins: pins, condition: condition, house: house, rules: rules).planner
  end

  def car(hash, equipment: [], pins: nil, condition: nil, house: nil, rules: 2)
    engine = NimbleLedger::Profile::Engine.build(hash).usual
    settings = NimbleLedger::House::Settings.defaults.with(house)
    NimbleLedger::Car.new(
      engine: engine,
      house: settings,
      condition: NimbleLedger::Time::Condition.new(condition, settings),
      equipment: equipment,
      pins: NimbleLedger::Access::Pins.new(engine, pins),
      rules: NimbleLedger::Rules[rules]
    )
  end

  # A random small profile: choices in after and through, shared steps, equipment, few distinct minutes so that
  # ties are common.
  def random_profile(rng, steps: 9, targets: 4)
    ids = (0...steps).map { |i| "s#{i}" }.shuffle(random: rng)
    rows = ids.each_with_index.map { |id, i| random_step(rng, id, ids[0...i]) }.shuffle(random: rng)
    profile(steps: rows, targets: (0...targets).map { |i| random_target(rng, "t#{i}", ids) })
  end

  def random_step(rng, id, below)
    after = below.sample(rng.rand(0..2), random: rng)
    after += [any(*below.sample(rng.rand(2..3), random: rng))] if below.size > 3 && rng.rand < 0.3
    step(
      id,
      rng.rand(0..3),
      after: after,
      needs: rng.rand < 0.12 ? %w[lift strap].sample(1, random: rng) : [],
      rust_prone: rng.rand < 0.2,
      zone: %w[top top front under].sample(random: rng),
      battery: rng.rand < 0.15,
      people: rng.rand < 0.1 ? 2 : 1,
      closing: rng.rand < 0.2 ? [random_closing(rng)] : []
    )
  end

  # A relearn, sometimes with a tool that may be missing, sometimes with a way to do without.
  def random_closing(rng)
    task = { "what" => "relearn", "minutes" => [1, 1, 1] }
    task["needs"] = ["scan"] if rng.rand < 0.6
    task["without"] = [3, 3, 3] if rng.rand < 0.5
    task
  end

  def random_target(rng, id, ids)
    ways =
      (0...rng.rand(1..3)).map do |i|
        through = ids.sample(rng.rand(0..3), random: rng)
        through += [any(*ids.sample(2, random: rng))] if rng.rand < 0.15
        {
          "id" => "w#{i}",
          "through" => through,
          "factor" => [1, 1, 1.5].sample(random: rng),
          "needs" => rng.rand < 0.1 ? ["lift"] : []
        }
      end
    target(id, cylinder: rng.rand(1..3), minutes: [rng.rand(1..2)] * 3, ways: ways)
  end
end
