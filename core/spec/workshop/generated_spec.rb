# frozen_string_literal: true

require_relative "../spec_helper"

# Whatever is done to a drawing, it stays a profile: sound, planned as the drawing says, and no larger than it was made.
RSpec.describe NimbleLedger::Workshop do
  def kinds = @kinds ||= described_class::UsualTimes.new(Engines.codes.first(6).map { |code| Engines.profile_of(code) })
  def layers(profile) = described_class::Layers.new(profile)
  def apply(profile, act) = described_class::Acts.new(profile, kinds: kinds).apply(act)

  def blank(count)
    answers = {
      "code" => "GEN",
      "name" => "Generated",
      "arrangement" => "inline",
      "mounting" => "lengthwise",
      "cylinders" => count,
      "ignition" => %w[coil-on-plug paired rail distributor].sample(random: @random),
      "layers" => [],
      "moves" => [],
      "plug" => {
      },
      "provisional" => false
    }
    described_class::Sketch.new(answers, kinds: kinds).profile
  end

  # One act of any kind that there is something for.
  def any_act(profile, count)
    ids = profile["steps"].map { |one| one["id"] }
    shared = profile["steps"].reject { |one| one["cylinder"] }.map { |one| one["id"] }
    numbers = (1..count).to_a
    one = shared.sample(random: @random)
    return added(numbers) if shared.size < 2

    case @random.rand(6)
    when 0
      added(numbers)
    when 1
      { "do" => "lay", "step" => one, "cylinders" => numbers.sample(@random.rand(count + 1), random: @random) }
    when 2
      { "do" => "press", "step" => one, "cylinder" => numbers.sample(random: @random) }
    when 3
      { "do" => "depth", "step" => one, "to" => @random.rand(shared.size) }
    when 4
      { "do" => "drop", "step" => (shared - %w[coil-rail]).sample(random: @random) || ids.first }
    else
      { "do" => "about", "at" => "/steps/0/remove", "minutes" => @random.rand(1..60) }
    end
  end

  def added(numbers)
    over = numbers.sample(@random.rand(1..numbers.size), random: @random)
    { "do" => "add", "label" => "Layer #{@random.rand(1_000)}", "cylinders" => over }
  end

  def sound(profile)
    engine = NimbleLedger::Profile::Engine.build(profile)
    engine.cylinders.each do |cylinder|
      plan = NimbleLedger::Car.new(engine: engine).job([engine.target("plug-#{cylinder.number}")]).plan
      seen = layers(profile).ids.select { |id| layers(profile).reached_from(id).include?(cylinder.number) }
      expect(plan.steps.map(&:id)).to match_array(seen)
    end
  end

  it "stays sound under random acts, and each cylinder's plan is what lies over it" do
    @random = Random.new(17)
    25.times do
      count = @random.rand(1..6)
      profile = blank(count)
      12.times do
        act = any_act(profile, count)
        profile = apply(profile, act)
      end
      sound(profile)
    end
  end

  it "leaves what it was given as it was, whatever it makes of it" do
    @random = Random.new(3)
    profile = blank(4)
    frozen = JSON.generate(profile)
    20.times { apply(profile, any_act(profile, 4)) }
    expect(JSON.generate(profile)).to eq(frozen)
  end

  it "makes of a fork what the planner makes of a choice: the cheaper of the two" do
    @random = Random.new(1)
    profile = apply(blank(4), { "do" => "add", "label" => "Hung aside", "cylinders" => [1, 2, 3, 4] })
    profile = apply(profile, { "do" => "add", "label" => "Unplugged", "cylinders" => [1, 2, 3, 4] })
    at = profile["steps"].index { |one| one["id"] == "hung-aside" }
    profile["steps"][at].merge!("remove" => [20, 20, 20], "refit" => [20, 20, 20])
    forked = apply(profile, { "do" => "fork", "step" => "hung-aside", "with" => "unplugged" })
    engine = NimbleLedger::Profile::Engine.build(forked)
    steps = NimbleLedger::Car.new(engine: engine).job([engine.target("plug-1")]).plan.steps.map(&:id)
    expect(steps).to include("unplugged")
    expect(steps).not_to include("hung-aside")
  end
end
