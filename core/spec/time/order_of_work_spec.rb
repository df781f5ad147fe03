# frozen_string_literal: true

require_relative "../spec_helper"

# The order of the work (model.md section 15, rules 3) on every demo engine, with every soak: whatever is asked for.
RSpec.describe NimbleLedger::Time::OrderOfWork do
  def plan(engine, targets, soak: "none", codes: false, **house)
    car =
      NimbleLedger::Car.new(
        engine: engine,
        house: NimbleLedger::House::Settings.defaults.with(house.transform_keys(&:to_s)),
        equipment: engine.steps.flat_map(&:needs) + engine.targets.flat_map { |one| one.ways.flat_map(&:needs) },
        rules: NimbleLedger::Rules[3]
      )
    car.job(targets, soak: soak, codes: codes)
  end

  # Places of the pieces that a step or target has.
  def at(ids, id) = ids.index(id)

  # What must hold whatever the job is.
  def check(job)
    ids = job.plan.sequence.ids
    expect(ids.uniq).to eq(ids)
    job.plan.steps.each { |step| check_step(step, ids, job) }
    job.targets.each { |target| check_target(target, ids, job) }
    check_engine_runs(ids, job)
    minutes_stay(job)
  end

  def check_step(step, ids, job)
    off = at(ids, "step:#{step.id}:remove")
    back = at(ids, "step:#{step.id}:refit")
    job.plan.before(step).each { |id| expect(at(ids, "step:#{id}:remove")).to be < off, "#{id} before #{step.id}" }
    expect(off).to be < back, step.id if back
  end

  # A step that is off while the work below it is done; a cap may be back by then.
  def check_target(target, ids, job)
    done = at(ids, "target:#{target.id}:work") || at(ids, "target:#{target.id}:out")
    job
      .plan
      .chains
      .fetch(target)
      .each do |id|
        off = at(ids, "step:#{id}:remove")
        expect(off).to be < done, "#{id} off before #{target.id}"
        back = at(ids, "step:#{id}:refit")
        next if back.nil? || job.car.engine.step(id).back == "at-once"
        next if target.plug? && job.car.engine.step(id).takes_out_plug?

        expect(back).to be > done, "#{id} back after #{target.id}"
      end
  end

  # Everything is on, and the battery, before the engine runs; codes are cleared before the drive and read after it.
  def check_engine_runs(ids, job)
    run = at(ids, "house:leak_check")
    expect(at(ids, "house:battery-on")).to be < run if at(ids, "house:battery-on")
    read_there = job.codes || job.car.engine.injection != "carburetor"
    expect(ids.last).to eq(read_there ? "house:read" : "house:road_test")
    expect(at(ids, "house:clear")).to be < at(ids, "house:road_test") if at(ids, "house:clear")
    check_soak(ids)
  end

  # The wait follows, and every well is clean before.
  def check_soak(ids)
    soak = at(ids, "soak")
    expect(ids[soak + 1]).to eq("wait:soak") if soak
    expect(at(ids, "clean")).to be < (soak || ids.size) if at(ids, "clean")
  end

  def minutes_stay(job)
    pieces = job.plan.sequence.pieces
    expect(pieces.sum(&:labor_minutes)).to be_within(1e-6).of(job.plan.job.tasks.sum(&:mean))
  end

  Engines
    .codes
    .map { |code| Engines.engine(code).usual }
    .each do |engine|
      it "#{engine.code}: nothing is done under something that is on, nothing twice, nothing left undone" do
        plugs = engine.targets.select(&:plug?)
        jobs = [[plugs.first], [plugs.last], plugs, engine.targets.select { |one| one.work == "coil" }, engine.targets]
        jobs
          .reject(&:empty?)
          .each do |targets|
            engine.soaks.each { |soak| check(plan(engine, targets, soak: soak)) }
            check(plan(engine, targets, order_of_work: "all-out", codes: true))
          end
      end
    end

  it "takes a plug out once: out where its step comes off, in where it goes back" do
    engine = Engines.engine("TB20").usual
    plug = engine.targets.find(&:plug?)
    work = plan(engine, [plug]).plan.sequence
    acts = work.acts.values.flatten
    expect(%w[out read in tighten].map { |act| acts.count(act) }).to all(eq(1))
  end

  it "adds the clearing crank where three wells are soaked, and leaves it out where that is said" do
    engine = Engines.engine("YUX8").usual
    hash = JSON.parse(JSON.generate(engine.source))
    crank = hash["targets"].find { |target| target["work"] == "other" && target["plugs_out"] }
    crank["crank"] = true
    made = NimbleLedger::Profile::Engine.build(hash)
    plugs = made.targets.select(&:plug?)
    soak = (made.soaks - ["none"]).first
    added = ->(count, **rest) { plan(made, plugs.first(count), soak: soak, **rest).targets.map(&:id) - plugs.map(&:id) }
    expect([added.call(2), added.call(3)]).to eq([[], [crank["id"]]])
    expect(added.call(3, clear_after_soak_from: 0)).to eq([])
  end

  it "refuses a second crank, and one that is no work of another kind" do
    hash = JSON.parse(JSON.generate(Engines.engine("YUX8").usual.source))
    hash["targets"].first["crank"] = true
    expect { NimbleLedger::Profile::Engine.build(hash) }.to raise_error(
      NimbleLedger::InvalidInput,
      %r{/targets/0/crank}
    )
  end
end
