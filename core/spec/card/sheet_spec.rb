# frozen_string_literal: true

require_relative "../spec_helper"

# What the card says at each piece (model.md section 15, rules 3), held on every demo engine, with every soak it allows
# and in both orders of work; then the words of single pieces.
RSpec.describe NimbleLedger::Card::Sheet do
  PAST_OF_CARDS = { "odometer_km" => 180_000, "plugs_changed_km" => 60_000, "plugs_changed_years" => 9 }.freeze

  def job(code, targets, **rest)
    hash = Engines.request(targets, equipment: Engines::EQUIPMENT, history: PAST_OF_CARDS, **rest)
    documents = NimbleLedger::Documents.new(engine: Engines.engine(code), catalog: Engines.catalog)
    NimbleLedger::Estimate::Request.build(hash, documents: documents).job
  end

  def sheet(...) = described_class.new(job(...)).to_h
  def piece(sheet, id) = sheet["pieces"].find { |row| row["id"] == id }

  # Plugs alone, and everything the engine offers at its first cylinder.
  def self.scopes(engine)
    first = engine.cylinders.first.number
    [engine.targets.select(&:plug?), engine.targets.select { |target| target.cylinders.include?(first) }]
  end

  Engines.codes.each do |code|
    it "#{code}: takes every plug through its acts once, in order, with what it is tightened to" do
      each_sheet(code) do |found, sheet|
        done = acts_by_plug(sheet)
        wanted = %w[clean out read] + (found.plan.soaked_together? ? %w[dry] : []) + %w[in tighten]
        expect(done.values.uniq).to eq([wanted])
        expect(done.keys).to include(*found.targets.select(&:plug?).map(&:id))
        tight = sheet["pieces"].select { |row| acts(row).include?("tighten") }
        expect(tight.map { |row| row["plug"].values_at("torque_nm", "turns").any? }).to all(be(true))
      end
    end

    it "#{code}: names what is let go, ticks it when it goes back, and repeats nothing of the way in" do
      each_sheet(code) do |found, sheet|
        found.plan.steps.each do |step|
          off, on = %w[remove refit].map { |act| piece(sheet, "step:#{step.id}:#{act}") }
          names = (step.hoses + step.connectors).map { |one| one["what"] }
          expect(off["does"].join).to include(*names) if names.any?
          next unless on

          expect(on["ticks"].map { |tick| tick["label"] }.join(" ")).to include(*names) if names.any?
          expect(on["cautions"].to_a).to eq([])
          expect(on["with"].to_a).to eq([]) unless step.takes_out_plug?
          musts = [off, on].map { |row| row["ticks"].count { |tick| tick["must"] } }
          expect(musts).to eq(step.opens_ports? ? [1, 2] : [0, 0])
        end
      end
    end

    it "#{code}: says what to do at every piece that is no step and no work, and lays out every tool it names" do
      each_sheet(code) do |_found, sheet|
        expect(sheet["pieces"].select { |row| %w[house clean soak again].include?(row["kind"]) }).to all(
          include("does" => be_any, "title" => match(/\A[A-Z]/))
        )
        named = sheet["pieces"].flat_map { |row| row["with"].to_a }.map { |tool| tool.tr("-", " ") }
        sizes = sheet["pieces"].flat_map { |row| row["fasteners"].to_a.filter_map { |one| one["size"] } }
        expect(sheet["lay_out"]["tools"].map { |tool| tool["what"] }).to include(*named, *sizes)
      end
    end
  end

  def each_sheet(code)
    engine = Engines.engine(code)
    self
      .class
      .scopes(engine)
      .each do |targets|
        engine
          .soaks
          .product(%w[one-at-a-time all-out])
          .each do |soak, order|
            found = job(code, targets.map(&:id), soak: soak, house: { "order_of_work" => order })
            yield found, described_class.new(found).to_h
          end
      end
  end

  def acts(row) = row["acts"].to_a.map { |act| act["act"] }

  # Plug to what is done to it, in the order of the card.
  def acts_by_plug(sheet)
    sheet["pieces"].each_with_object(Hash.new { |hash, key| hash[key] = [] }) do |row, done|
      row["plugs"].to_a.each { |plug| done[plug["target"]].concat(acts(row)) }
    end
  end

  it "has each soaked bore emptied and turned by hand, unless the engine is cranked clear" do
    dry = ->(sheet) { sheet["pieces"].flat_map { |row| row["acts"].to_a }.select { |act| act["act"] == "dry" } }
    by_hand = dry.call(sheet("YUX8", %w[plug-1 plug-2], soak: "short"))
    expect(by_hand.map { |act| act["does"].join }).to all(match(/by hand.*Never with the starter/m))
    cranked = sheet("YUX8", %w[plug-1 plug-2 plug-3], soak: "short")
    expect(cranked["targets"]).to include("clearing-crank")
    expect(dry.call(cranked).map { |act| act["does"].join }).not_to include(/starter/)
  end

  it "says of a soak what goes in, how far, how long and with what, each protocol its own, by the house's figures" do
    says = ->(soak) do
      piece(sheet("YUX8", %w[plug-1], soak: soak, house: { "soaks" => soaks_of(25) }), "soak")["does"].join(" ")
    end
    expect(says.call("short")).to include("25 minutes", "by hand only", "no flame", "Goggles")
    expect(says.call("crack-and-soak")).to match(/eighth of a turn.*25 minutes/m)
    expect(says.call("overnight")).to include("overnight", "do not start")
    expect(says.call("overnight-impact")).to match(/eighth of a turn.*small impact wrench, lowest step.*hand tools/m)
    expect(piece(sheet("YUX8", %w[plug-1], soak: "overnight"), "wait:soak")).to include("overnight" => true)
  end

  def soaks_of(wait)
    shipped = NimbleLedger::House::Settings.defaults["soaks"]
    shipped.to_h { |name, soak| [name, soak["overnight"] || name == "none" ? soak : soak.merge("wait" => wait)] }
  end

  it "numbers coils that are all off at once, and no others" do
    numbered = ->(order) do
      sheet("SK18", %w[plug-1 plug-2], house: { "order_of_work" => order })["pieces"].count do |row|
        row["does"].to_a.join.include?("Number it")
      end
    end
    expect([numbered.call("all-out"), numbered.call("one-at-a-time")]).to eq([2, 0])
  end

  it "says from where to where each wire goes, renewed or not, coming off and going on" do
    found = sheet("GV28", %w[plug-4 plug-6])
    expect(found["wires"].map { |wire| [wire["cylinder"], wire["from"]] }).to eq(
      [[4, "coil 3"], [5, "coil 2"], [6, "coil 1"]]
    )
    expect(%w[remove refit].map { |act| piece(found, "step:wire-6:#{act}")["does"].first }).to all(
      match(/\AWire 6 goes from coil 1 to plug 6: .*470 mm\.\z/)
    )
    expect(sheet("UGZ4", %w[plug-1])["wires"].first["from"]).to eq("tower 1 of the cap")
    expect(sheet("IXO6", %w[plug-2])["wires"].first["from"]).to eq("the coil of 1 and 4")
  end

  it "says of a coil with a wire of its own that the wire goes from it, at the wire and not where the coil comes off" do
    found = sheet("TP23", %w[plug-1-exhaust])
    expect(found["wires"].map { |wire| wire["from"] }).to eq(["coil 1", "coil 2", "coil 3", "coil 4"])
    expect(found["pieces"].select { |row| row["does"].to_a.join.include?("goes from") }.map { |row| row["id"] }).to eq(
      %w[step:wire-1:remove step:wire-1:refit]
    )
  end

  it "names a tool once: what a way needs is not said again beside the tool that is it" do
    found = sheet("QT14", %w[plug-1])
    expect(piece(found, "step:plug-out-1:remove")["with"]).to eq(["14 mm thin-wall socket", "250 mm extension"])
    expect(found["lay_out"]["tools"].map { |tool| tool["what"] }).not_to include("thin wall socket")
  end

  it "has marked what could go back crossed: two of a kind, not a hose beside a connector" do
    marked = ->(code, id, target) { piece(sheet(code, [target]), "step:#{id}:remove")["does"].join.include?("swapped") }
    expect(marked.call("KUJ6", "hoses", "plug-2")).to be(true)
    expect(marked.call("KUJ6", "air-box", "plug-1")).to be(false)
  end

  it "keeps a puller with what it pulls, and says a label that tells what is done as it is" do
    found = sheet("WK20", %w[plug-1])
    expect(piece(found, "step:coil-1:remove")["with"]).to eq(["coil-puller"])
    expect(piece(found, "target:plug-1:work")["with"]).not_to include("coil-puller")
    tilted = sheet("IXO6", %w[plug-1 plug-3 plug-5])
    expect(%w[remove refit].map { |act| piece(tilted, "step:strap:#{act}")["title"] }).to eq(
      ["Strap and block set, engine held", "Back as it was: Strap and block set, engine held"]
    )
    expect(piece(tilted, "step:cover:remove")["title"]).to eq("Engine cover, off")
  end

  it "names on the list what closing work needs and this shop lacks" do
    found = sheet("KUJ6", %w[plug-2], pins: { "choices" => { "manifold" => "throttle-unplug" } })
    expect(found["lay_out"]["tools"]).to include("what" => "scan tool", "lacking" => true)
    expect(found["lay_out"]["parts"]).to include(a_hash_including("quantity" => 6, "perhaps" => false))
  end

  it "fills coolant before the engine is started, and bleeds it before the relearn" do
    titles = sheet("KUJ6", %w[plug-2], pins: { "choices" => { "manifold" => "throttle-unplug" } })["pieces"]
    order = titles.map { |row| row["title"] }.grep(/coolant\z|Start, idle|relearn/)
    expect(order.last(4)).to eq(
      ["Fill the coolant", "Start, idle, look and listen", "Bleed and recheck the coolant", "Throttle relearn"]
    )
  end

  it "pulls a wire off its coil before the coil, and ticks both ends home" do
    sheet = sheet("UWO6", %w[plug-2 plug-5])
    expect(piece(sheet, "step:coil-2:remove")["does"]).to include(
      "The wire to plug 5 comes off it first: twist the boot, never pull at the cable."
    )
    expect(piece(sheet, "step:coil-2:refit")["ticks"].map { |tick| tick["label"] }).to include("wire to plug 5 on it")
    ends = ->(code, target) do
      step = Engines.engine(code).target(target).ways.first.through.find { |id| id.start_with?("wire") }
      piece(sheet(code, [target]), "step:#{step}:refit")["ticks"].last["label"]
    end
    expect(ends.call("UWO6", "plug-5")).to eq("seated on plug 5")
    expect(ends.call("UGZ4", "plug-3")).to eq("seated on plug 3 and at tower 3 of the cap")
    expect(piece(sheet("TP23", %w[plug-1-intake]), "step:coil-1:remove")["does"].join).to include(
      "wire to plug 1 comes off"
    )
  end

  it "says the gap where the new plug is made ready, and clips where they come off" do
    ready = piece(sheet("ZUW2", %w[plug-1]), "target:plug-1:work")
    expect(ready["does"]).to eq(["The new one looked at, its gap checked: 0.7 to 0.8 mm, laid at its place."])
    expect(piece(sheet("FM27", %w[plug-1]), "step:cover:remove")["does"]).to include("Clips: 2.")
  end
end
