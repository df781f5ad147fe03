# frozen_string_literal: true

require_relative "../spec_helper"

# What a mechanic expects of each shipped engine, said before it is computed: which cylinder is dearest and which
# easiest, which bank, what is shared, what one more cylinder adds. One row of the trade's table of access patterns
# each.
RSpec.describe "the shipped engines" do
  def minutes(code, works, cylinders, **rest) =
    Engines.answer(code, Engines.targets(code, works, cylinders), **rest).plan.job.total.mean

  def hours(code, works, cylinders, **rest) = Engines.quoted(code, Engines.targets(code, works, cylinders), **rest)

  def numbers(code) = Engines.engine(code).cylinders.map(&:number).sort

  def ways(code, works, cylinders, **rest) = plan(code, works, cylinders, **rest).ways.values.map(&:id).uniq

  def plan(code, works, cylinders, **rest) = Engines.answer(code, Engines.targets(code, works, cylinders), **rest).plan

  def dearest(code, work = "plug") = numbers(code).max_by { |n| [minutes(code, work, [n]), -n] }

  def easiest(code, work = "plug") = numbers(code).min_by { |n| [minutes(code, work, [n]), n] }

  def shared(code, works, cylinders) = plan(code, works, cylinders).turns.shared_steps.map(&:id)

  # What cylinder b adds to a job on a.
  def added(code, works, a, b) = minutes(code, works, [*a, *b]) - minutes(code, works, [*a])

  it "cover every pattern of the trade's table, at least one engine each" do
    expect(Engines.codes).to match_array(
      %w[SK18 QT14 WK20 QEZ4 TP23 PW16 UGZ4 GV28 OC30 JIV6 FM27 IXO6 KUJ6 YUX8 OZB4 ZUW2 AS04 TB20 UWO6 OJU3]
    )
    ignitions = Engines.codes.map { |code| Engines.engine(code).ignition }
    expect(ignitions.uniq).to match_array(%w[coil-on-plug paired rail distributor single-coil])
    expect(Engines.codes.map { |code| Engines.engine(code).arrangement }.uniq).to match_array(
      %w[inline vee flat single]
    )
  end

  # [easiest, dearest, all plugs between these hours]
  {
    "SK18" => [1, 4, 0.9..1.2],
    "QT14" => [1, 4, 1.0..1.5],
    "WK20" => [1, 4, 1.5..2.0],
    "QEZ4" => [2, 1, 0.9..1.3],
    "TP23" => [1, 4, 1.7..2.3],
    "PW16" => [2, 1, 0.9..1.3],
    "UGZ4" => [1, 4, 0.8..1.1],
    "GV28" => [4, 6, 2.4..3.0],
    "OC30" => [1, 6, 2.3..2.9],
    "JIV6" => [2, 3, 2.9..3.6],
    "FM27" => [1, 6, 2.3..2.9],
    "IXO6" => [2, 5, 2.2..2.9],
    "KUJ6" => [1, 6, 2.8..3.6],
    "YUX8" => [1, 8, 3.2..4.2],
    "OZB4" => [1, 4, 1.9..2.5],
    "ZUW2" => [1, 2, 0.5..0.8],
    "AS04" => [1, 1, 0.6..0.9],
    "TB20" => [1, 4, 1.2..1.7],
    "UWO6" => [2, 5, 1.4..2.0],
    "OJU3" => [1, 3, 0.9..1.3]
  }.each do |code, (easy, hard, all)|
    it "#{code}: #{easy} is the easiest plug, #{hard} the dearest, all together #{all.min} to #{all.max} h" do
      expect([easiest(code), dearest(code)]).to eq([easy, hard])
      expect(hours(code, "plug", numbers(code))).to be_between(all.min, all.max)
    end
  end

  it "SK18, baseline four: four plugs with the house tasks take about an hour, one more plug a few minutes" do
    expect(added("SK18", "plug", [1], [2])).to be_between(6, 10)
    expect(shared("SK18", "plug", [1, 2])).to eq(%w[oil-cap cover])
  end

  it "QT14, turbo four: short interval, and the swivel extension saves the charge hose" do
    expect(Engines.engine("QT14").plug("interval_km")).to be <= 60_000
    expect(plan("QT14", "plug", [4]).ways.values.map(&:id)).to eq(["swivel-extension"])
    without = plan("QT14", "plug", [4], equipment: ["thin-wall-socket"])
    expect(without.steps.map(&:id)).to include("charge-hose")
    expect { plan("QT14", "plug", [1], equipment: []) }.to raise_error(NimbleLedger::ImpossiblePlan, /thin-wall-socket/)
  end

  it "WK20, valve bracket: half the cylinders cost more; without the puller two other ways are left" do
    expect(minutes("WK20", "plug", [3]) - minutes("WK20", "plug", [1])).to be > 25
    expect(added("WK20", "plug", [3], [4])).to be < 15
    expect(ways("WK20", "coil", [1])).to eq(["puller"])
    expect(ways("WK20", "coil", [1, 2, 3, 4], equipment: [])).to eq(["cord"])
    by_hand = plan("WK20", "coil", [1, 2, 3, 4], equipment: [])
    expect(by_hand.steps.count { |step| step.id == "cord" }).to eq(1)
    expect(by_hand.job.total.mean).to be > plan("WK20", "coil", [1, 2, 3, 4]).job.total.mean
  end

  it "QEZ4, rail: one part for all cylinders, the same removal whichever is meant, slower without the puller" do
    expect(numbers("QEZ4").map { |n| Engines.targets("QEZ4", "coil", [n]) }.uniq).to eq([["rail"]])
    coils =
      Engines.answer("QEZ4", ["rail"], catalog: Engines.catalog).to_h["parts"].select do |row|
        row["part"] == "RAI-47849"
      end
    expect(coils.map { |row| row["quantity"] }).to eq([1])
    expect(shared("QEZ4", "plug", [2])).to eq(shared("QEZ4", "plug", [1, 2, 3, 4]))
    expect(added("QEZ4", "coil", [1], [2, 3, 4])).to eq(0)
    expect([ways("QEZ4", "plug", [1]), ways("QEZ4", "plug", [1], equipment: [])]).to eq([["puller"], ["cord"]])
  end

  it "TP23, two plugs a cylinder: eight plugs, the exhaust side behind a shield, two independent outcomes" do
    plugs =
      Engines.answer("TP23", Engines.targets("TP23", "plug", [1, 2, 3, 4])).to_h["parts"].select do |row|
        row["part"].start_with?("PLG")
      end
    expect(plugs.to_h { |row| [row["part"], row["quantity"]] }).to eq("PLG-80928" => 4, "PLG-35402" => 4)
    expect(plugs.last["because"]).to eq((1..4).map { |n| "plug-#{n}-exhaust" })
    intake = Engines.quoted("TP23", ["plug-1-intake"])
    expect(Engines.quoted("TP23", ["plug-1-exhaust"])).to be >= intake + 0.2
    expect(Engines.engine("TP23").target("plug-1-exhaust").label).to eq("Plug 1, exhaust side")
    history = { "odometer_km" => 90_000, "plugs_changed_km" => 0, "plugs_changed_years" => 6 }
    expect(
      Engines.answer("TP23", Engines.targets("TP23", "plug", [4]), history: history).outcomes.broken_counts.size
    ).to eq(3)
  end

  it "PW16, paired firing: three plugs of work on a coil's pair, the coil bought once, drawn as links" do
    needed =
      Engines.answer("PW16", Engines.targets("PW16", "coil", [1, 4])).to_h["parts"].find do |row|
        row["part"] == "COI-75700"
      end
    expect(needed["quantity"]).to eq(1)
    expect(Engines.targets("PW16", "coil", [4])).to eq(["coil-a"])
    expect(Engines.sheet("PW16", [4], ["coil"]).reach.links.map(&:cylinders)).to eq([[1, 4], [3, 2]])
    wires =
      Engines.answer("PW16", %w[wire-2 wire-4]).to_h["parts"].select do |row|
        row["part"].start_with?("WIR") && row["rule"] == "needed"
      end
    expect(wires.map { |row| [row["part"], row["quantity"]] }).to match_array([["WIR-56121", 1], ["WIR-59446", 1]])
  end

  it "UGZ4, distributor: cap and rotor once for all, each wire its own part, short interval, cast iron" do
    engine = Engines.engine("UGZ4")
    expect([engine.head, engine.plug("interval_km")]).to eq(["cast-iron", 20_000])
    expect(Engines.answer("UGZ4", ["cap-and-rotor"]).to_h["parts"].map { |row| row["part"] }.first(2)).to eq(
      %w[CAP-58719 ROT-78067]
    )
    expect((1..4).map { |n| engine.target("wire-#{n}").own_parts.first["part"] }.uniq.size).to eq(4)
    expect(added("UGZ4", "plug", [1], [2])).to be < 7
  end

  it "GV28, covered valley: all the work is reaching, so five more plugs add less than the first" do
    expect(minutes("GV28", "plug", [1])).to be > added("GV28", "plug", [1], [2, 3, 4, 5, 6])
    expect(shared("GV28", "plug", [1]).size).to eq(7)
    expect(Engines.engine("GV28").target("plug-6").wrench_fits?).to be(false)
  end

  it "GV28 and TB20: plug-out is a step that plug, compression and look share, and compression makes the job all-out" do
    both = plan("GV28", %w[plug compression look], [2])
    expect(both.steps.count { |step| step.id == "plug-out-2" }).to eq(1)
    expect(both.order_of_work).to eq("all-out")
    expect(plan("GV28", "plug", [2]).order_of_work).to eq("one-at-a-time")
    expect(plan("GV28", %w[plug look], [2]).order_of_work).to eq("all-out")
    expect(minutes("TB20", %w[plug look], [1]) - minutes("TB20", "plug", [1])).to be < 3
  end

  it "OC30, under the cowl: the tray comes off only when the rear is in the job" do
    expect(shared("OC30", "plug", [1, 2, 3, 4])).not_to include("cowl")
    expect(plan("OC30", "plug", [6]).steps.map(&:id)).to include("cowl", "bracket")
    expect(minutes("OC30", "plug", [6])).to be > minutes("OC30", "plug", [5]) + 30
    expect(added("OC30", "plug", [6], [5])).to be < minutes("OC30", "plug", [5]) - 25
  end

  it "JIV6, sideways V6: the rear bank is the deep one, and 1 is the easiest of it" do
    rear, front = [[1, 3, 5], [2, 4, 6]].map { |bank| minutes("JIV6", "plug", bank) }
    expect(rear).to be > front * 2
    expect([1, 3, 5].min_by { |n| minutes("JIV6", "plug", [n]) }).to eq(1)
  end

  it "FM27, the other way round: the front bank is the deep one" do
    rear, front = [[1, 3, 5], [2, 4, 6]].map { |bank| minutes("FM27", "plug", bank) }
    expect(front).to be > rear * 1.6
    expect(shared("FM27", "plug", [1])).to eq(%w[cover duct])
    expect(shared("FM27", "plug", [2])).to include("plenum")
  end

  it "IXO6, fixed manifold: two routes to the rear, by equipment; two people at the mounts count twice" do
    rear = Engines.targets("IXO6", "plug", [1, 3, 5])
    by = ->(equipment) { Engines.answer("IXO6", rear, equipment: equipment).plan.ways.values.map(&:id).uniq }
    expect([by.call(["strap-and-block"]), by.call(["two-post-lift"])]).to eq([["engine-tilted"], ["from-beneath"]])
    expect { by.call([]) }.to raise_error(NimbleLedger::ImpossiblePlan, /strap-and-block.*two-post-lift/m)
    mounts =
      Engines
        .answer("IXO6", rear, equipment: ["strap-and-block"])
        .plan
        .job
        .tasks
        .find { |task| task.ref == "upper-mounts" && task.kind == "remove" }
    expect(mounts.mean).to be_within(1e-9).of(mounts.points.mean * 2)
    expect(hours("IXO6", "plug", [2])).to eq(0.7)
  end

  it "KUJ6, throttle: the relearn is closing work, and the kit holds lower seals that stay in the box" do
    answer =
      Engines.answer(
        "KUJ6",
        ["plug-2"],
        catalog: Engines.catalog,
        pins: {
          "choices" => {
            "manifold" => "throttle-aside"
          }
        }
      )
    expect(answer.to_h["price"]["left_over"].map { |row| row["part"] }).to include("SEA-15400")
    expect(plan("KUJ6", "plug", [2]).job.tasks.map(&:kind)).to include("closing")
  end

  it "YUX8, multi-piece plugs: the rear is worse to extract, and every soak is allowed" do
    engine = Engines.engine("YUX8")
    factors = (1..8).map { |n| engine.target("plug-#{n}").extraction_factor }
    expect(factors.last).to be > factors.first
    expect(engine.soaks).to eq(NimbleLedger::Profile::SOAKS)
  end

  it "OZB4, flat four: each side behind its own things; the battery brings its task and its resets" do
    expect(shared("OZB4", "plug", [1])).to eq(["air-box"])
    expect(shared("OZB4", "plug", [2])).to eq(%w[battery module])
    expect(added("OZB4", "plug", [1], [2])).to be > added("OZB4", "plug", [1], [3]) * 2
    left = plan("OZB4", "plug", [2]).job.tasks
    expect(left.select { |task| task.kind == "closing" }.map(&:label)).to eq(["Idle relearn", "Window and clock reset"])
    expect(left.map(&:ref)).to include("battery")
    expect(plan("OZB4", "plug", [1]).job.tasks.map { |task| [task.kind, task.ref] }).not_to include(%w[house battery])
  end

  it "ZUW2 and AS04, motorcycles: near the least charge" do
    least = NimbleLedger::House::Settings.defaults["minimum_hours"]
    expect(hours("ZUW2", "plug", [1])).to eq(least)
    expect(hours("ZUW2", "plug", [1, 2])).to be <= least + 0.3
    expect(hours("AS04", "plug", [1])).to be <= least + 0.3
    expect(shared("ZUW2", "plug", [2])).to eq(["tank"])
  end

  it "TB20, tuned: a closer gap than standard, cheap plugs, read often" do
    engine = Engines.engine("TB20")
    expect([engine.plug("gap_mm")["high"] < 0.7, engine.plug("grade"), engine.plug("interval_km") <= 20_000]).to eq(
      [true, "nickel", true]
    )
    expect(NimbleLedger::Quote::Selection.works_of(engine)).to include("look", "compression")
  end

  it "say in their notes which is the easy one, and that the figures are examples" do
    Engines.codes.each do |code|
      expect(Engines.engine(code).notes).to match(/eas(y|iest|ier)|One plug/i).and(include("examples")), code
    end
  end

  it "carry the cautions at the step they belong to" do
    Engines.codes.each do |code|
      engine = Engines.engine(code)
      said = ->(holder, words) { holder.cautions.any? { |line| line.match?(words) } }
      expect(engine.steps.select { |step| step.needs.intersect?(%w[two-post-lift strap-and-block]) }).to all(
        satisfy { |step| said.call(step, /rated/i) }
      ),
      code
      expect(engine.steps.select { |step| step.id.match?(/\Acoil-\d/) }).to all(
        satisfy { |step| said.call(step, /ignition voltage/i) }
      ),
      code
      expect(engine.steps.select { |step| step.releases.any? }).to all(satisfy { |step| said.call(step, /coolant/i) }),
      code
      expect(engine.targets.select { |target| target.work == "compression" }).to all(
        satisfy { |target| said.call(target, /Cranking with plugs out/) }
      ),
      code
    end
  end

  it "name only parts the price list knows, and invented codes only" do
    catalog = Engines.catalog
    Engines.codes.each do |code|
      page =
        NimbleLedger::Library::EnginePage.new(
          Engines.engine(code),
          equipment: Engines::EQUIPMENT,
          catalog: catalog
        ).to_h
      expect(page["parts"].reject { |row| row["priced"] }).to eq([]), code
      expect(page["parts"].map { |row| row["part"] }).to all(match(/\A[A-Z]{3}-\d{5}\z/)), code
    end
  end

  # What a car does not have drops out of every plan, and nothing else with it.
  Engines
    .codes
    .map { |code| Engines.engine(code) }
    .reject { |engine| engine.variants.questions.empty? }
    .each do |engine|
      engine.variants.questions.each do |question|
        question.options.each do |option|
          it "#{engine.code}: where #{question.id} is #{option["id"]}, the rest still comes off" do
            built = engine.variant({ question.id => option["id"] })
            absent = engine.steps.map(&:id) - built.steps.map(&:id)
            usual = engine.usual
            house = NimbleLedger::House::Settings.defaults
            steps = ->(car, id) do
              NimbleLedger::Car
                .new(engine: car, house: house, equipment: car.equipment)
                .job([car.target(id)])
                .plan
                .steps
                .map(&:id)
            end
            engine
              .targets
              .map(&:id)
              .each { |id| expect(steps.call(built, id)).to match_array(steps.call(usual, id) - absent), id }
          end
        end
      end
    end
end
