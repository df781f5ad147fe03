# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Workshop::Acts do
  include Engines

  def shipped = @shipped ||= Dir[File.expand_path("../../../demo/engines/*.json", __dir__)].sort.map { |f| parsed(f) }
  def parsed(path) = JSON.parse(File.read(path))
  def kinds = @kinds ||= NimbleLedger::Workshop::UsualTimes.new(shipped)
  def act(profile, name, **rest) =
    described_class.new(profile, kinds: kinds).apply({ "do" => name, **rest.transform_keys(&:to_s) })
  def layers(profile) = NimbleLedger::Workshop::Layers.new(profile)
  def step(profile, id) = profile["steps"].find { |one| one["id"] == id }

  def blank(count = 6, **given)
    sketch = {
      code: "NEW-1",
      name: "New engine",
      arrangement: "vee",
      mounting: "sideways",
      cylinders: count,
      ignition: "coil-on-plug",
      layers: [],
      moves: [],
      plug: {
      },
      provisional: false
    }
    NimbleLedger::Workshop::Sketch.new(JSON.parse(JSON.generate(sketch.merge(given))), kinds: kinds).profile
  end

  # What comes off for work on one cylinder: over it, or above something of it with a cylinder in common.
  def brute_force(stack, cylinder)
    found = stack.select { |layer| layer[:over].include?(cylinder) }
    loop do
      more =
        stack.each_with_index.select do |layer, i|
          stack.drop(i + 1).any? { |below| found.include?(below) && below[:over].intersect?(layer[:over]) }
        end
      all = found | more.map(&:first)
      return found.map { |layer| layer[:label] }.sort if all.size == found.size

      found = all
    end
  end

  it "lays a manifold over the rear bank: work on that bank goes through it, the front stays open" do
    profile = act(blank, "add", label: "Engine cover", cylinders: [1, 2, 3, 4, 5, 6])
    profile = act(profile, "add", label: "Upper manifold", cylinders: [1, 3, 5])
    expect(step(profile, "upper-manifold")["after"]).to eq(%w[engine-cover])
    expect(step(profile, "coil-5")["after"]).to eq(%w[upper-manifold])
    expect(step(profile, "coil-2")["after"]).to eq(%w[engine-cover])
    expect(layers(profile).over("engine-cover")).to eq([1, 2, 3, 4, 5, 6])
    expect(NimbleLedger::Profile::Engine.build(profile).warnings).to be_empty
  end

  it "follows the drawing on random engines exactly as the rule says" do
    random = Random.new(41)
    60.times do
      count = random.rand(1..8)
      stack =
        Array.new(random.rand(1..7)) do |i|
          {
            label: "Layer #{"abcdefg"[i]}",
            over: (1..count).to_a.sample(random.rand(2..count + 1), random: random).sort
          }
        end
      stack.reject! { |layer| layer[:over].size < 2 }
      profile = blank(count, arrangement: "inline", mounting: "lengthwise")
      stack.each { |layer| profile = act(profile, "add", label: layer[:label], cylinders: layer[:over]) }
      engine = NimbleLedger::Profile::Engine.build(profile)
      (1..count).each do |cylinder|
        plan = NimbleLedger::Car.new(engine: engine).job([engine.target("plug-#{cylinder}")]).plan
        expect(plan.steps.map(&:label).grep(/Layer/).sort).to eq(brute_force(stack, cylinder))
      end
    end
  end

  it "changes nothing that it does not touch: every step of every shipped engine laid where it lies" do
    shipped.each do |profile|
      layers(profile).ids.each do |id|
        expect(act(profile, "lay", step: id, cylinders: layers(profile).over(id))).to eq(profile),
        "#{profile["code"]} #{id}"
      end
    end
  end

  it "takes back what it did: away and back, down and up, added and dropped" do
    profile = blank
    [
      ["Engine cover", [1, 2, 3, 4, 5, 6]],
      ["Intake pipe", [1, 3, 5]],
      ["Upper manifold", [1, 3, 5]]
    ].each { |label, over| profile = act(profile, "add", label: label, cylinders: over) }
    away = act(profile, "lay", step: "intake-pipe", cylinders: [])
    expect(step(away, "upper-manifold")["after"]).to eq(%w[engine-cover])
    expect(act(away, "lay", step: "intake-pipe", cylinders: [1, 3, 5])).to eq(profile)
    down = act(profile, "depth", step: "intake-pipe", to: 2)
    expect(step(down, "intake-pipe")["after"]).to eq(%w[upper-manifold])
    expect(step(down, "coil-1")["after"]).to eq(%w[intake-pipe])
    expect(act(down, "depth", step: "intake-pipe", to: 1)).to eq(profile)
    more = act(profile, "add", label: "Wiper tray", cylinders: [3, 5])
    expect(act(more, "drop", step: "wiper-tray")).to eq(profile)
  end

  it "keeps what was pressed where the rule brings a layer along" do
    profile = act(blank, "add", label: "Cowl tray", cylinders: [3, 5])
    profile = act(profile, "add", label: "Upper manifold", cylinders: [1, 3, 5])
    expect(step(profile, "upper-manifold")["after"]).to eq(%w[cowl-tray])
    expect(layers(profile).over("cowl-tray")).to eq([3, 5])
    under = act(profile, "depth", step: "cowl-tray", to: 1)
    expect(step(under, "coil-1")["after"]).to eq(%w[upper-manifold])
    expect(step(under, "coil-3")["after"]).to eq(%w[cowl-tray])
    expect(step(under, "cowl-tray")).not_to have_key("over")
  end

  it "presses a cylinder under a layer, and out again" do
    profile = act(blank, "add", label: "Upper manifold", cylinders: [1, 3])
    more = act(profile, "press", step: "upper-manifold", cylinder: 5)
    expect(layers(more).over("upper-manifold")).to eq([1, 3, 5])
    expect(act(more, "press", step: "upper-manifold", cylinder: 5)).to eq(profile)
  end

  it "makes a fork of two layers and joins them again" do
    profile = act(blank, "add", label: "Throttle hung aside", cylinders: [1, 3, 5])
    profile = act(profile, "add", label: "Throttle unplugged", cylinders: [1, 3, 5])
    profile = act(profile, "add", label: "Upper manifold", cylinders: [1, 3, 5])
    forked = act(profile, "fork", step: "throttle-hung-aside", with: "throttle-unplugged")
    expect(step(forked, "upper-manifold")["after"]).to eq([{ "any" => %w[throttle-hung-aside throttle-unplugged] }])
    expect(step(forked, "throttle-unplugged")["after"] || []).to be_empty
    expect(NimbleLedger::Profile::Engine.build(forked).warnings).to be_empty
    expect(act(forked, "join", step: "throttle-unplugged")).to eq(profile)
  end

  it "leaves what was written by hand, but for what leaves or comes" do
    by_hand = shipped.find { |profile| profile["code"] == "JIV6" }
    expect(step(by_hand, "coil-3")["after"]).to eq(%w[manifold cowl])
    profile = act(by_hand, "lay", step: "harness", cylinders: [])
    expect(step(profile, "coil-3")["after"]).to eq(%w[manifold cowl])
    expect(step(profile, "manifold")["after"]).to eq(%w[throttle])
    expect(profile["targets"]).to eq(by_hand["targets"])
  end

  it "says what an act lacks, names in vain, or cannot hold" do
    profile = blank
    { "lay" => {}, "fork" => { step: "coil-1" }, "drop" => { step: "nothing" } }.each do |name, given|
      expect { act(profile, name, **given) }.to raise_error(NimbleLedger::InvalidInput) { |e|
        expect(e.details.first["path"]).to match(%r{\A/act/(step|cylinders|with)\z})
      }
    end
    expect { act(profile, "join", step: "coil-1") }.to raise_error(NimbleLedger::InvalidInput, /no alternative/)
  end

  it "spreads one figure as its kind does and says so until it is typed over" do
    profile = act(blank, "about", at: "/steps/0/remove", minutes: 20)
    low, likely, high = profile["steps"][0]["remove"]
    expect([likely, low < 20, high > 20]).to eq([20, true, true])
    origins = NimbleLedger::Profile::Origins
    expect(origins.of(profile, "steps", "coil-1", "remove")).to eq({ "from" => "kind" })
    origins.note(profile, "steps", "coil-1", "remove", "typed")
    expect(origins.of(profile, "steps", "coil-1", "remove")).to eq({ "from" => "typed" })
    expect(origins.counts(profile)["typed"]).to eq(1)
    origins.note(profile, "steps", "coil-1", "remove", "learned", jobs: 14)
    expect(origins.of(profile, "steps", "coil-1", "remove")).to eq({ "from" => "learned", "jobs" => 14 })
  end
end
