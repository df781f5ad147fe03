# frozen_string_literal: true

require_relative "../spec_helper"

# What is said to a customer is true of every cylinder it names, and short enough to be read out.
RSpec.describe NimbleLedger::Quote::Explanation do
  def said(code, cylinders, works = %w[plug]) = Engines.sheet(code, cylinders, works).to_h["explanation"]

  it "names only the cylinders a layer lies over" do
    expect(said("OC30", [1, 2, 3, 4, 5, 6])["short"]).to include("5 and 6 also under the wiper arms and cowl tray")
    expect(said("JIV6", [1, 2, 3, 4, 5, 6])["short"]).to start_with(
      "Numbers 1 to 6 sit under the engine cover; 1, 3 and 5 also under the upper intake manifold"
    )
    expect(said("UGZ4", [3, 4])["short"]).to start_with(
      "Numbers 3 and 4 are not alike: 3 sits in the open; 4 sits under"
    )
    expect(said("OZB4", [2, 4])["short"]).to start_with("Numbers 2 and 4 sit on the left bank, behind")
  end

  # Every group of cylinders with the layers named for it, against the plan's own chains.
  it "is true of every engine and any choice of cylinders" do
    Engines.codes.each do |code|
      numbers = Engines.engine(code).cylinders.map(&:number)
      rng = Random.new(code.sum)
      4.times do
        chosen = numbers.sample(rng.rand(1..numbers.size), random: rng).sort
        plan = Engines.answer(code, Engines.targets(code, "plug", chosen)).plan
        under = NimbleLedger::Quote::LayersOver.new(plan, chosen)
        over = ->(step) do
          plan.chains.select { |_target, ids| ids.include?(step.id) }.keys.flat_map(&:cylinders).uniq.sort & chosen
        end
        under.common.each { |step| expect(over.call(step)).to eq(chosen), "#{code} #{chosen}" }
        under.some.each do |group, steps|
          steps.each { |step| expect(over.call(step)).to eq(group), "#{code} #{chosen}" }
        end
        under.open.each do |number|
          expect(plan.turns.shared_steps.flat_map { |step| over.call(step) }).not_to include(number)
        end
      end
    end
  end

  it "is a spoken paragraph of at most ninety words, whatever a layer is called" do
    Engines.codes.each do |code|
      expect(said(code, Engines.engine(code).cylinders.map(&:number))["spoken"].split.size).to be_between(25, 90), code
    end
    long =
      Engines
        .profile_of("JIV6")
        .tap do |hash|
          hash["steps"].each { |step| step["label"] = "#{step["label"]} #{"with its very long name " * 12}" }
        end
    engine = NimbleLedger::Profile::Engine.build(long)
    selection = NimbleLedger::Quote::Selection.new(engine, { "cylinders" => [1, 5, 6], "works" => ["plug"] })
    text =
      NimbleLedger::Quote::Sheet.new(selection, Engines.request([]).except("targets"), engine: engine).to_h[
        "explanation"
      ]
    expect(text["spoken"].split.size).to be <= 90
    expect(text["spoken"]).to include("Numbers 1, 5 and 6 sit under seven layers.").and include("80 of 100")
  end

  it "lists the job below it, off and back on" do
    expect(said("SK18", [1])["in_order"].values_at(0, -1)).to eq(
      ["Off: Oil filler cap, 1 min.", "Back on: Oil filler cap, 1 min."]
    ).or all(match(/\A(Off|Back on): .*, \d+ min\.\z/))
  end

  it "says of work that is at no cylinder what it is" do
    said = ->(cylinders, works) { Engines.sheet("UGZ4", cylinders, works).to_h["explanation"]["short"] }
    expect(said.call([1], %w[cap-and-rotor])).to start_with(
      "This is work on the engine as a whole. Two layers come off before it can start, so "
    )
    expect(said.call([4], %w[plug cap-and-rotor])).to start_with("Number 4 sits under ")
  end

  it "puts cautions where they belong, each once" do
    rows = Engines.sheet("JIV6", [1, 3, 5], %w[plug coil]).to_h["cautions"]
    expect(rows).to include(
      "text" => "Cover the open intake ports, also overnight.",
      "refs" => ["manifold"],
      "at" => ["Upper intake manifold"]
    )
    expect(rows.map { |row| row["text"] }.uniq.size).to eq(rows.size)
    expect(rows.find { |row| row["text"].include?("ignition voltage") }["at"]).to eq(["Coil 1", "Coil 3", "Coil 5"])
  end
end
