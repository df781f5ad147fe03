# frozen_string_literal: true

require_relative "../spec_helper"

# What a mechanic expects to see, drawn from the profiles alone.
RSpec.describe NimbleLedger::Picture do
  def contours(sheet) = sheet.reach.contours.map { |c| [c.steps.map(&:id), c.cylinders, c.partial] }

  it "charts the sideways V6: cover over all, manifold over the rear bank, cowl over part of it" do
    expect(contours(Engines.sheet("JIV6", [5], %w[plug coil]))).to eq(
      [
        [["cover"], [1, 2, 3, 4, 5, 6], false],
        [%w[intake-pipe vacuum-hoses throttle harness manifold], [1, 3, 5], false],
        [["cowl"], [3, 5], true]
      ]
    )
  end

  it "marks the front of the vehicle and puts the right bank above when the engine lies lengthwise" do
    reach = Engines.sheet("KUJ6", [2], ["plug"]).reach
    expect([reach.front, reach.place(1), reach.place(2)]).to eq(["left", [0, 1], [1, 1]])
    expect(Engines.sheet("JIV6", [5], ["plug"]).reach.front).to eq("bottom")
  end

  it "keeps a cylinder's own coil as a ring on it, not a contour" do
    reach = Engines.sheet("SK18", [1], ["plug"]).reach
    expect(reach.locals.transform_values { |steps| steps.map(&:id) }).to eq((1..4).to_h { |n| [n, ["coil-#{n}"]] })
  end

  it "says the sounding of each cylinder: the hours of its own job" do
    sheet = Engines.sheet("JIV6", [5], %w[plug coil])
    sheet.reach.soundings.each { |n, hours| expect(hours).to eq(Engines.quoted("JIV6", ["plug-#{n}", "coil-#{n}"])) }
  end

  it "makes the rear bank cost far more than the front, and all six less than both jobs" do
    rear, front, all =
      [%w[plug-1 plug-3 plug-5], %w[plug-2 plug-4 plug-6], %w[plug-1 plug-2 plug-3 plug-4 plug-5 plug-6]].map do |t|
        Engines.quoted("JIV6", t)
      end
    expect(rear).to be > front * 2.5
    expect(all).to be < rear + front
  end

  Engines.codes.each do |code|
    engine = Engines.engine(code)

    it "draws the descent of #{code} so that its strokes add up to the plan, down and back up in reverse" do
      engine
        .cylinders
        .map(&:number)
        .each do |number|
          plan = Engines.answer(code, Engines.targets(code, "plug", [number])).plan
          strokes = NimbleLedger::Picture::Descent.new(plan).strokes
          sums = strokes.group_by(&:kind).transform_values { |list| list.sum(&:minutes) }
          expect(sums["remove"].to_f).to be_within(1e-9).of(plan.job.minutes("remove"))
          expect(sums["refit"].to_f + sums.fetch("closing", 0)).to be_within(1e-9).of(
            plan.job.minutes("refit", "closing")
          )
          expect(strokes.each_cons(2)).to all(satisfy { |a, b| (a.start + a.minutes - b.start).abs < 1e-9 })
          # A filler cap goes straight back; all else comes back in reverse.
          rest = strokes.reject { |s| engine.step(s.ref)&.back == "at-once" }
          down = rest.select { |s| s.kind == "remove" && engine.step(s.ref).refit.mean.positive? }.map(&:ref)
          expect(rest.select { |s| s.kind == "refit" }.map(&:ref)).to eq(down.reverse)
        end
    end

    it "puts every cylinder of #{code} on a place of its own, with a sounding" do
      reach = Engines.sheet(code, [], ["plug"]).reach
      expect(engine.cylinders.map { |c| reach.place(c.number) }.uniq.size).to eq(engine.cylinders.size)
      expect(reach.soundings.values).to all(be >= 0.5)
    end
  end

  it "explains in words what the plan does" do
    text = Engines.sheet("JIV6", [5], %w[plug coil]).to_h["explanation"]
    expect(text["short"]).to eq(
      "Number 5 sits on the rear bank, under the upper intake manifold and the wiper arms and cowl tray. Seven " \
        "layers come off before " \
        "anyone can touch it, so most of the 2.7 hours is reaching. The same on number 2 would be 0.7."
    )
    expect(text["in_order"].size).to be > 12
  end

  it "chooses the throttle way by what is cheaper for the job, with the relearn as closing work" do
    with = [*Engines::EQUIPMENT, "scan-tool"]
    plan = Engines.answer("KUJ6", ["coil-2"], equipment: with).plan
    expect(plan.choices).to eq("manifold" => ["throttle-unplug"])
    expect(plan.job.tasks.select { |task| task.kind == "closing" }.map(&:label)).to eq(
      ["Fill the coolant", "Bleed and recheck the coolant", "Throttle relearn"]
    )
    # a relearn without the tool takes too long
    expect(Engines.answer("KUJ6", ["coil-2"]).plan.choices).to eq("manifold" => ["throttle-aside"])
    cleaned = Engines.answer("KUJ6", %w[coil-2 throttle-clean], equipment: with)
    expect(cleaned.plan.choices).to eq("manifold" => ["throttle-aside"])
  end

  it "offers at most three bundles, each the difference of two real quotes" do
    sheet = Engines.sheet("JIV6", [5], %w[plug coil], catalog: Engines.catalog)
    rows = sheet.to_h["while_open"]
    expect(rows.size).to be_between(1, 3)
    rows.each do |row|
      joint = Engines.answer("JIV6", %w[plug-5 coil-5] | row["targets"], catalog: Engines.catalog)
      now = Engines.answer("JIV6", %w[plug-5 coil-5], catalog: Engines.catalog)
      expect(row["added_cents"]).to eq(joint.price.total_cents - now.price.total_cents)
      expect(row["alone_cents"]).to eq(
        Engines.answer("JIV6", row["targets"], catalog: Engines.catalog).price.total_cents
      )
    end
  end

  it "sells nobody a crank with the plugs out: it belongs to the work, not to what is open" do
    sheet = Engines.sheet("YUX8", [1, 2, 8], %w[plug coil], catalog: Engines.catalog).to_h
    expect(sheet.dig("offers", "extras").map { |row| row["id"] }).to include("clearing-crank")
    expect(sheet["while_open"].flat_map { |row| row["targets"] }).not_to include("clearing-crank")
  end

  it "spreads the hours so that the curve holds the whole job" do
    spread = NimbleLedger::Picture::Spread.new(Engines.answer("JIV6", ["plug-5"]).plan.job.total)
    width = (spread.high - spread.low) / NimbleLedger::Picture::Spread::POINTS
    expect(spread.curve.sum { |_hours, density| density * width }).to be_within(0.001).of(0.99)
  end
end
