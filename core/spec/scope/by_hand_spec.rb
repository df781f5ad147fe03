# frozen_string_literal: true

require_relative "../spec_helper"

# Comebacks worked out a second time, from the text of model.md section 8 and nothing of the program's: random cars,
# failures and scopes on an engine with a coil, a boot and a plug on each cylinder, within a time no plug falls due in.
RSpec.describe "scopes by hand" do
  ENGINE = Engines.profile_of("JIV6")
  CATALOG = JSON.parse(File.read(File.join(Engines::ROOT, "demo/merrow.catalog.json")))
  NUMBERS = (1..6).to_a
  THETA = 0.6
  DEFECT = 0.005
  LIVES = { "coil" => [2.6, 260_000.0], "boot" => [2.6, 420_000.0] }.freeze
  MARKS = { "weak" => 2.5, "sound" => 0.8 }.freeze

  # A car and what is asked of it, drawn.
  Drawn =
    Struct.new(:odometer, :changed, :yearly, :months, :failed, :earlier, :found, :scopes) do
      def horizon = yearly * months / 12.0
    end

  def drawn(seed)
    rng = Random.new(seed)
    odometer = 40_000 + rng.rand(160_000)
    failed = NUMBERS.sample(1 + rng.rand(2), random: rng)
    Drawn.new(
      odometer,
      odometer - rng.rand(30_000),
      5_000 + rng.rand(15_000),
      6 + rng.rand(18),
      failed,
      rng.rand(3),
      [nil, "weak", "sound"].sample(random: rng),
      scopes(failed, rng)
    )
  end

  # The failed coils alone, with some more coils, with some plugs.
  def scopes(failed, rng)
    coils = ->(numbers) { numbers.sort.map { |number| "coil-#{number}" } }
    more = failed | NUMBERS.sample(rng.rand(4), random: rng)
    plugs = NUMBERS.sample(rng.rand(6), random: rng).sort.map { |number| "plug-#{number}" }
    { "failed" => coils.call(failed), "more" => coils.call(more), "plugs" => coils.call(more) + plugs }
  end

  def answer(car)
    NimbleLedger::Answers.to(
      {
        "format" => "nimble-ledger.scopes-request",
        "version" => 1,
        "estimate" => {
          "engine" => ENGINE,
          "catalog" => CATALOG,
          "equipment" => Engines::EQUIPMENT,
          "history" => {
            "odometer_km" => car.odometer,
            "plugs_changed_km" => car.changed,
            "plugs_changed_years" => 1
          }
        },
        "failed" => car.failed.map { |number| { "work" => "coil", "cylinder" => number } },
        "earlier_failures" => car.earlier.zero? ? {} : { "coil" => car.earlier },
        "found" => car.found ? { "coil" => car.found } : {},
        "yearly_km" => car.yearly,
        "months" => car.months,
        "scopes" => car.scopes.map { |id, targets| { "id" => id, "targets" => targets } }
      }
    )[
      "scopes"
    ].to_h { |row| [row["id"], row] }
  end

  def hazard(km, life) = (km / life.last)**life.first

  # Parts of a kind left old: p of each, and that none fails.
  # @param left [Integer] how many; failures: of that kind; marked: what its hazard to come is multiplied by
  def old(car, kind, left, failures:, marked: 1)
    life = LIVES.fetch(kind)
    before = hazard(car.odometer, life)
    ahead = marked * (hazard(car.odometer + car.horizon, life) - before)
    a = (1 / THETA) + failures
    b = (1 / THETA) + (NUMBERS.size * before)
    [left * (1 - ((b / (b + ahead))**a)), (b / (b + (left * ahead)))**a]
  end

  # New parts: p of each, that none fails, that none is defective.
  def new_parts(car, life, count)
    ahead = hazard(car.horizon, life)
    [count * (1 - Math.exp(-ahead)), Math.exp(-count * ahead) * ((1 - DEFECT)**count)]
  end

  def plug_life = [5, 2.5 * NimbleLedger::Risk::PlugRemoval.interval_km(Engines.engine("JIV6"), house)]
  def house = NimbleLedger::House::Settings.defaults

  def plugs_left(car, count)
    now = car.odometer - car.changed
    ahead = hazard(now + car.horizon, plug_life) - hazard(now, plug_life)
    a = 1 / THETA
    b = (1 / THETA) + (NUMBERS.size * hazard(now, plug_life))
    [count * (1 - ((b / (b + ahead))**a)), (b / (b + (count * ahead)))**a]
  end

  # @return [Array(Float, Float)] returns, and the chance of no comeback
  def by_hand(car, targets)
    coils = targets.grep(/coil/).size
    plugs = targets.grep(/plug/).size
    marked = car.found ? MARKS.fetch(car.found) : 1
    parts = [
      old(car, "coil", 6 - coils, failures: car.failed.size + car.earlier, marked: marked),
      new_parts(car, LIVES["coil"], coils),
      old(car, "boot", 6 - coils, failures: 0),
      new_parts(car, LIVES["boot"], coils),
      plugs_left(car, 6 - plugs),
      new_parts(car, plug_life, plugs)
    ]
    [parts.sum(&:first), parts.map(&:last).reduce(:*)]
  end

  (1..12).each do |seed|
    it "agrees for car #{seed}: returns, and the chance of none" do
      car = drawn(seed)
      found = answer(car)
      car.scopes.each do |id, targets|
        returns, calm = by_hand(car, targets)
        expect(found[id]["scheduled"]).to be_nil
        expect(found[id]["returns"]).to be_within(1e-9).of(returns)
        expect(found[id]["no_comeback"]).to be_within(1e-9).of(calm)
      end
    end
  end

  it "expects no fewer returns where more time goes by, more has failed before, or more is left old" do
    (21..26).each do |seed|
      car = drawn(seed)
      returns = ->(one, id = "failed") { answer(one)[id]["returns"] }
      base = returns.call(car)
      expect(returns.call(car.dup.tap { |one| one.months += 6 })).to be >= base
      expect(returns.call(car.dup.tap { |one| one.yearly += 3_000 })).to be >= base
      expect(returns.call(car.dup.tap { |one| one.earlier += 1 })).to be > base
      expect(returns.call(car, "more")).to be <= base + 1e-9
    end
  end

  it "asks of a return what its parts cost on a day of their own, weighed by how likely each comes back" do
    car = drawn(3)
    found = answer(car)["failed"]
    built = Engines.engine("JIV6")
    priced =
      NimbleLedger::Car.new(
        engine: built,
        house: NimbleLedger::House::Precedence.resolve(house, built),
        equipment: Engines::EQUIPMENT,
        catalog: NimbleLedger::Parts::Catalog.build(CATALOG)
      )
    cents = ->(id) { priced.job([built.target(id)]).price.total_cents }
    each = NUMBERS.map { |number| cents.call("coil-#{number}") }
    plugs = NUMBERS.map { |number| cents.call("plug-#{number}") }
    boots = NUMBERS.map { |number| cents.call("boot-#{number}") }
    all = each + plugs + boots
    expect(found["return_cents"]).to be_between(all.min, all.max)
    expect(found["own_cents"]).to be_within(1).of(found["returns"] * house["return_own_cents"])
  end
end

# Plug life used (model.md section 8): of plugs that are not alike, the first-due one says what is left.
RSpec.describe NimbleLedger::Scope::ScheduledChanges do
  def plug(**known)
    told = { age: 0, interval_km: 100_000, months: nil, run_months: 0, fresh_interval_km: 100_000 }.merge(known)
    Struct.new(*told.keys).new(*told.values)
  end

  def left(*plugs) = described_class.new(plugs, fresh: false, yearly_km: 12_000, months: 6).left_share

  it "goes by the plug that falls due first, though another has the smaller share left" do
    later = plug(age: 80_000) # 20,000 km left: due in 20 months; 14 % left in six months
    sooner = plug(interval_km: 40_000, age: 25_000) # 15,000 km left: due in 15 months; 22.5 % left
    expect(left(later)).to be_within(1e-12).of(0.14)
    expect(left(sooner)).to be_within(1e-12).of(0.225)
    expect(left(later, sooner)).to be_within(1e-12).of(0.225)
  end

  it "takes the least of those that fall due together" do
    long = plug(age: 85_000) # due in 15 months, 9 % left
    short = plug(interval_km: 40_000, age: 25_000)
    expect(left(long, short)).to be_within(1e-12).of(0.09)
  end
end
