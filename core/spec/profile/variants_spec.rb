# frozen_string_literal: true

require_relative "../spec_helper"

# Cars differ within one engine code (model.md section 1, "Variants").
RSpec.describe NimbleLedger::Profile::Variants do
  TRAY = {
    "id" => "tray",
    "ask" => "Is there a tray?",
    "options" => [{ "id" => "yes", "label" => "yes" }, { "id" => "no", "label" => "no" }],
    "usual" => "yes"
  }.freeze

  let(:hash) do
    steps = [
      step("cover"),
      step("tray", after: ["cover"], when: { "tray" => ["yes"] }),
      step("a"),
      step("b", when: { "tray" => ["no"] }),
      step("holder", after: [any("a", "b")]),
      step("deep", after: [any("tray", "b")])
    ]
    profile(
      variants: [TRAY],
      steps: steps,
      targets: [
        target("t", through: ["tray"]),
        target("u", through: [any("tray", "b")]),
        target("h", through: ["holder"]),
        target("d", through: ["deep"])
      ]
    )
  end

  def answer(targets, **rest) =
    NimbleLedger::Estimate::Request.build(Engines.request(targets, engine: hash, **rest)).answer

  it "drops what does not exist, its prerequisites with it; a way left without steps is open" do
    expect(answer(["t"], variants: { "tray" => "yes" })["plan"]["steps"]).to eq(%w[cover tray])
    expect(answer(["t"], variants: { "tray" => "no" })["plan"]["steps"]).to eq([])
  end

  it "makes a choice with one member left plain, and does not list it" do
    with, without = %w[yes no].map { |tray| answer(%w[h], variants: { "tray" => tray })["plan"] }
    expect([with["steps"], with["choices"]]).to eq([%w[a holder], {}])
    expect([without["steps"], without["choices"]]).to eq([%w[a holder], { "holder" => ["a"] }])
    expect(answer(%w[d], variants: { "tray" => "no" })["plan"].slice("steps", "choices")).to eq(
      "steps" => %w[b deep],
      "choices" => {
      }
    )
  end

  it "keeps one engine for the answers last given, and no more than it may" do
    asked = Array.new(6) { |i| TRAY.merge("id" => "q#{i}") }
    steps = asked.map { |question| step("s-#{question["id"]}", when: { question["id"] => ["yes"] }) }
    engine =
      NimbleLedger::Profile::Engine.build(
        profile(variants: asked, steps: steps, targets: [target("t", through: steps.map { |one| one["id"] })])
      )
    sets =
      %w[yes no].repeated_permutation(6).map { |answers| asked.map { |question| question["id"] }.zip(answers).to_h }
    made = sets.map { |answers| engine.variant(answers) }
    expect(made.map { |one| one.steps.size }).to eq(sets.map { |answers| answers.values.count("yes") })
    expect(engine.variant(sets.last)).to equal(made.last)
    expect(engine.instance_variable_get(:@built).size).to eq(NimbleLedger::Profile::Engine::VARIANTS_KEPT)
  end

  it "takes the usual answer where nothing was said, and says so" do
    expect(answer(["t"])["plan"]).to include("steps" => %w[cover tray], "assumed_variants" => { "tray" => "yes" })
    expect(answer(["t"], variants: { "tray" => "no" })["plan"].keys).not_to include("assumed_variants")
  end

  it "refuses unknown questions and options with their path; a pin on an absent step is a warning" do
    { { "roof" => "yes" } => "/variants/roof", { "tray" => "maybe" } => "/variants/tray" }.each do |given, path|
      expect { answer(["t"], variants: given) }.to raise_error(NimbleLedger::InvalidInput) { |e|
        expect(e.details.first["path"]).to eq(path)
      }
    end
    pinned = answer(%w[h], variants: { "tray" => "yes" }, pins: { "choices" => { "holder" => "b" } })
    expect([pinned["plan"]["steps"], pinned["warnings"].map { |w| w["path"] }]).to eq(
      [%w[a holder], ["/pins/choices/holder"]]
    )
    expect { answer(%w[h], pins: { "choices" => { "holder" => "ghost" } }) }.to raise_error(NimbleLedger::InvalidInput)
  end

  {
    "options told apart" => [->(h) { h["variants"][0]["options"][1]["id"] = "yes" }, "/variants/0/options/1/id"],
    "a usual answer among them" => [->(h) { h["variants"][0]["usual"] = "perhaps" }, "/variants/0/usual"],
    "two options" => [->(h) { h["variants"][0]["options"].pop }, "/variants/0/options"],
    "questions a step can name" => [->(h) { h["steps"][1]["when"] = { "roof" => ["yes"] } }, "/steps/1/when/roof"],
    "options a step can name" => [->(h) { h["steps"][1]["when"] = { "tray" => ["maybe"] } }, "/steps/1/when/tray"],
    "something in a when list" => [->(h) { h["steps"][1]["when"] = { "tray" => [] } }, "/steps/1/when/tray"],
    "closing work that takes no less without its tool" => [
      ->(h) { h["steps"][0]["closing"] = [{ "what" => "x", "minutes" => [2, 3, 4], "without" => [2, 2, 9] }] },
      "/steps/0/closing/0/without"
    ]
  }.each do |name, (spoil, path)|
    it "asks for #{name}" do
      spoiled = JSON.parse(JSON.generate(hash)).tap(&spoil)
      expect { NimbleLedger::Profile::Engine.build(spoiled) }.to raise_error(NimbleLedger::InvalidInput) { |e|
        expect(e.details.first["path"]).to eq(path)
      }
    end
  end

  it "plans every variant of a random profile as if it had been written without the absent steps" do
    300.times do |seed|
      rng = Random.new(70_000 + seed)
      written = random_profile(rng, steps: 9, targets: 3).merge("variants" => [TRAY])
      written["steps"].each { |row| row["when"] = { "tray" => [%w[yes no].sample(random: rng)] } if rng.rand < 0.3 }
      engine = NimbleLedger::Profile::Engine.build(written)
      %w[yes no].each do |tray|
        reduced = engine.variants.reduce(written, { "tray" => tray })
        plain = reduced.except("variants").merge("steps" => reduced["steps"].map { |row| row.except("when") })
        ids = plain["targets"].map { |t| t["id"] }
        car = NimbleLedger::Car.new(engine: engine.variant({ "tray" => tray }), equipment: %w[lift strap scan])
        best = BruteForce.new(plain, equipment: %w[lift strap scan]).best(ids)
        expect(car.planner.least_cost(ids.map { |id| car.engine.target(id) }).to_f).to be_within(1e-9).of(best.cost),
        "seed #{seed}"
      end
    end
  end
end
