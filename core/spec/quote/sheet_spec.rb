# frozen_string_literal: true

require_relative "../spec_helper"

# What the page shows must hang together, whatever is chosen on whatever engine.
RSpec.describe NimbleLedger::Quote::Sheet do
  HISTORY_OF_A_CAR = { "odometer_km" => 180_000, "plugs_changed_km" => 60_000, "plugs_changed_years" => 9 }.freeze

  # A few selections of cylinders and work for an engine, the same for every run.
  def selections(engine, count: 6)
    rng = Random.new(engine.code.sum * 7)
    works = NimbleLedger::Quote::Selection.works_of(engine)
    numbers = engine.cylinders.map(&:number)
    Array.new(count) do
      [numbers.sample(rng.rand(1..numbers.size), random: rng), works.sample(rng.rand(1..2), random: rng)]
    end
  end

  def shown(code, cylinders, works, **rest) =
    Engines.sheet(code, cylinders, works, catalog: Engines.catalog, history: HISTORY_OF_A_CAR, **rest).to_h

  Engines.codes.each do |code|
    engine = Engines.engine(code)

    it "#{code}: drawing, list, descent, ledger and explanation tell one story" do
      selections(engine).each do |cylinders, works|
        page = shown(code, cylinders, works)
        next if page["estimate"].nil?

        plan = page["estimate"]["plan"]
        layers = page["layers"]
        own = layers.select { |layer| layer["in_plan"] }
        expect(own.map { |layer| layer["step"] }).to eq(plan["steps"])
        expect(layers.map { |layer| layer["number"] }).to eq((1..layers.size).to_a)
        expect(own.sum { |layer| layer["off_minutes"] }).to be_within(1e-6).of(plan["minutes"]["remove"])
        expect(own.sum { |layer| layer["on_minutes"] + layer["closing_minutes"] }).to be_within(1e-6).of(
          plan["minutes"]["refit"]
        )
        tasks = page["tasks"].sum { |task| task["mean"] }
        expect(tasks).to be_within(1e-6).of(page["estimate"]["hours"]["mean_minutes"])
        expect(page["explanation"]["short"].scan(/[\d.]+(?= hours?)/)).to all(
          eq(page["estimate"]["hours"]["quoted"].to_s)
        )
        expect(page["estimate"]["price"]["lines"].first["quantity"]).to eq(page["estimate"]["hours"]["quoted"])
      end
    end

    it "#{code}: every contour is drawn once, outer before inner, and holds the cylinders its layers lie over" do
      selections(engine).each do |cylinders, works|
        page = shown(code, cylinders, works)
        contours = page["reach"]["contours"]
        sets = contours.map { |contour| contour["cylinders"] }
        expect(sets.uniq).to eq(sets)
        expect(contours.size).to be <= NimbleLedger::Picture::Reach::MAX_CONTOURS
        sets.each_with_index { |set, i| expect(sets.drop(i + 1)).to all(satisfy { |later| later.size <= set.size }) }
        contours.each do |contour|
          contour["numbers"].each do |number|
            expect(page["layers"].find { |layer| layer["number"] == number }["over"]).to eq(contour["cylinders"])
          end
          inside = contours.select { |other| (other["cylinders"] - contour["cylinders"]).empty? && other != contour }
          expect(inside.map { |other| other["depth"] }).to all(be > contour["depth"])
        end
      end
    end

    # Every answer to every question the engine asks; one empty set for an engine that asks none.
    engine
      .variants
      .questions
      .flat_map { |question| question.options.map { |option| { question.id => option["id"] } } }
      .push({})
      .each do |variants|
        it "#{code}#{
             variants.map { |question, option| " with #{question}: #{option}" }.join
           }: whatever comes off is drawn over its cylinders" do
          selections(engine, count: 4).each do |cylinders, works|
            page = shown(code, cylinders, works, variants: variants)
            reach = page["reach"]
            drawn =
              reach["contours"].flat_map { |contour| contour["numbers"] } +
                reach["cylinders"].flat_map { |cylinder| cylinder["layers"] }
            over = page["layers"].reject { |layer| layer["over"].empty? }
            listed = reach["listed"].map { |row| row["cylinders"] }
            expect(
              over.reject { |layer| drawn.include?(layer["number"]) }.map { |layer| layer["over"] } - listed
            ).to eq([])
            expect(page["layers"].select { |layer| layer["in_plan"] }.map { |layer| layer["over"] & cylinders }).to all(
              be_any
            )
          end
        end
      end

    it "#{code}: a bundle adds what it says, for what it says" do
      cylinders, works = selections(engine, count: 1).first
      page = shown(code, cylinders, works)
      now = page["estimate"]["price"]["total_cents"]
      chosen = page["estimate"]["plan"]["ways"].keys
      page["while_open"].each do |row|
        joint =
          Engines.answer(
            code,
            engine.targets.map(&:id) & (chosen | row["targets"]),
            catalog: Engines.catalog,
            history: HISTORY_OF_A_CAR
          )
        expect(joint.price.total_cents - now).to eq(row["added_cents"])
        expect(row["targets"] & chosen).to eq([])
      end
    end
  end

  it "is the same for the same input, whatever was asked before" do
    first = shown("JIV6", [5], %w[plug coil])
    shown("JIV6", [1, 2, 3], %w[boot])
    expect(shown("JIV6", [5], %w[plug coil])).to eq(first)
  end

  it "shows an engine with nothing chosen: every layer that lies over anything, no figures" do
    page = shown("YUX8", [], %w[plug])
    expect(page).not_to have_key("estimate")
    expect(page["layers"].map { |layer| layer["in_plan"] }.uniq).to eq([false])
    expect(page["reach"]["cylinders"].map { |cylinder| cylinder["hours"] }).to all(be_positive)
  end

  it "titles a scope by its work, and by its extras" do
    engine = Engines.engine("QT14")
    title =
      lambda do |cylinders, works, extras|
        selection =
          NimbleLedger::Quote::Selection.new(engine, { "cylinders" => cylinders, "works" => works, "extras" => extras })
        described_class.new(
          selection,
          Engines.request([], equipment: Engines::EQUIPMENT).except("targets"),
          engine: engine
        ).title
      end
    expect(title.call([4], %w[plug coil], [])).to eq("Plug and coil 4")
    expect(title.call([1, 2, 3, 4], %w[plug], ["charge-seal"])).to eq("Plugs 1 to 4, Renew charge hose seal ring")
    expect(title.call([], [], ["charge-seal"])).to eq("Renew charge hose seal ring")
  end

  describe "fitting a content to another engine" do
    def fit(scope, code)
      NimbleLedger::Quote::Content.fit(
        { "scopes" => [scope], "active" => 0, "condition" => { "wells" => { "1" => "wet", "6" => "wet" } } },
        Engines.engine(code)
      )
    end

    it "keeps what fits and names what does not" do
      content, dropped =
        fit(
          {
            "cylinders" => [1, 6],
            "works" => ["plug"],
            "extras" => ["throttle-clean"],
            "soak" => "overnight",
            "pins" => {
              "ways" => {
                "plug-6" => "from-above"
              }
            }
          },
          "SK18"
        )
      expect(content["scopes"]).to eq([{ "cylinders" => [1], "works" => ["plug"], "extras" => ["throttle-clean"] }])
      expect(content["condition"]["wells"]).to eq("1" => "wet")
      expect(dropped).to eq(["cylinder 6", "the soak", "the pinned routes"])
    end

    it "changes nothing when everything fits" do
      scope = {
        "cylinders" => [4],
        "works" => ["plug"],
        "pins" => {
          "ways" => {
            "plug-4" => "hose-off"
          }
        },
        "soak" => "short"
      }
      content, dropped = fit(scope, "QT14")
      expect([content["scopes"], dropped]).to eq([[scope], []])
    end

    it "drops a soak the engine does not allow" do
      expect(fit({ "cylinders" => [1], "works" => ["plug"], "soak" => "overnight" }, "TB20").last).to include(
        "the soak"
      )
    end
  end
end
