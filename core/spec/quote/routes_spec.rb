# frozen_string_literal: true

require_relative "../spec_helper"

# The ways to do a job as an advisor decides them, and what the page says of them.
RSpec.describe NimbleLedger::Quote::Routes do
  def sheet(code, cylinders, works = ["plug", code == "IXO6" ? "wire" : "coil"], **rest) =
    Engines.sheet(code, cylinders, works, catalog: Engines.catalog, **rest).to_h

  def decision(sheet) = sheet["routes"].first

  def option(sheet, label) = decision(sheet)["options"].find { |row| row["label"] == label }

  it "decides a whole bank at once: one pin for every plug and wire of it" do
    page = sheet("IXO6", [1, 3, 5])
    expect(decision(page)["label"]).to eq("Plugs and wires 1, 3 and 5")
    expect(decision(page)["options"].map { |row| [row["label"], row["in_force"], row["reason"]] }).to eq(
      [["Engine tilted", true, "least-work"], ["From beneath", false, ""]]
    )
    expect(option(page, "From beneath")["pins"]["ways"].values.uniq).to eq(["from-beneath"])
    expect(option(page, "From beneath")["pins"]["ways"].keys).to match_array(
      %w[plug-1 plug-3 plug-5 wire-1 wire-3 wire-5]
    )
  end

  it "prices another route as the whole job would cost by it" do
    page = sheet("IXO6", [5])
    other = option(page, "Engine tilted")
    pinned = sheet("IXO6", [5], %w[plug wire], pins: other["pins"])
    expect(pinned["estimate"]["price"]["total_cents"]).to eq(other["total_cents"])
    expect(pinned["estimate"]["hours"]["quoted"]).to eq(other["quoted_hours"])
    expect(other["added_cents"]).to eq(other["total_cents"] - page["estimate"]["price"]["total_cents"])
    expect(other["added_minutes"]).to be_within(1e-6).of(
      pinned["estimate"]["plan"]["minutes"]["total"] - page["estimate"]["plan"]["minutes"]["total"]
    )
  end

  it "shows a pin as a pin, and letting go takes it off" do
    page = sheet("IXO6", [5])
    pinned = sheet("IXO6", [5], %w[plug wire], pins: option(page, "Engine tilted")["pins"])
    standing = option(pinned, "Engine tilted")
    expect([standing["in_force"], standing["pinned"], standing["reason"], pinned["pinned"]]).to eq(
      [true, true, "pinned", true]
    )
    free = sheet("IXO6", [5], %w[plug wire], pins: standing["pins"])
    expect([free["pinned"], free["estimate"]]).to eq([false, page["estimate"]])
  end

  it "holds a route that is in force, so that it stays when the job grows" do
    held = option(sheet("IXO6", [5]), "From beneath")["pins"]
    grown = sheet("IXO6", [1, 3, 5], %w[plug wire], pins: held)
    expect(grown["estimate"]["plan"]["ways"].values.uniq).to eq(["from-beneath"])
    expect(sheet("IXO6", [1, 3, 5])["estimate"]["plan"]["ways"].values.uniq).to eq(["engine-tilted"])
  end

  it "says what the shop lacks for a route, and what it would take if it were here" do
    page = sheet("IXO6", [1, 3, 5], %w[plug wire], equipment: ["two-post-lift"])
    expect(option(page, "From beneath")).to include("in_force" => true, "reason" => "only-one", "missing" => [])
    expect(option(page, "Engine tilted")).to include("missing" => ["strap and block"])
    expect(option(page, "Engine tilted")["added_minutes"]).to be < 0
  end

  it "decides one tool for every coil that asks for one" do
    page = sheet("WK20", [3, 4], ["coil"])
    expect(decision(page)["label"]).to eq("Coils 3 and 4")
    expect(option(page, "Cord")["pins"]["ways"]).to eq("coil-3" => "cord", "coil-4" => "cord")
    pinned = sheet("WK20", [3, 4], ["coil"], pins: { "ways" => { "coil-3" => "levers", "coil-4" => "levers" } })
    expect(pinned["estimate"]["plan"]["steps"]).to include("levers")
    expect(page["estimate"]["plan"]["steps"]).not_to include("levers", "cord") # a puller is a tool
  end

  it "is empty where there is one way only" do
    expect(sheet("SK18", [1, 2])["routes"]).to eq([])
    expect(sheet("TB20", [1])["routes"]).to eq([])
  end

  it "keeps out of the reckoning: an estimate with and without routes looked at is the same" do
    request =
      NimbleLedger::Estimate::Request.build(
        Engines.request(%w[plug-5 wire-5], equipment: Engines::EQUIPMENT),
        documents: NimbleLedger::Documents.new(engine: Engines.engine("IXO6"), catalog: Engines.catalog)
      )
    answer = NimbleLedger::Estimate::Answer.new(request)
    before = answer.to_h
    described_class.new(answer).decisions
    expect(answer.to_h).to eq(before)
  end

  describe "the page around it" do
    it "draws the route in force over the cylinders in the job, and their own best route over the others" do
      tilted = sheet("IXO6", [1, 3, 5])
      over = ->(page, id) { page["layers"].find { |layer| layer["step"] == id }&.fetch("over") }
      expect(over.call(tilted, "upper-mounts")).to eq([1, 3, 5])
      expect(over.call(tilted, "heat-shield")).to be_nil
      one = sheet("IXO6", [5])
      expect(over.call(one, "heat-shield")).to eq([1, 3, 5])
      pinned = sheet("IXO6", [5], %w[plug wire], pins: option(one, "Engine tilted")["pins"])
      expect([over.call(pinned, "upper-mounts"), over.call(pinned, "heat-shield")]).to eq([[5], [1, 3]])
    end

    it "marks layers and cylinders that are reached from beneath" do
      page = sheet("IXO6", [5])
      beneath = page["reach"]["contours"].select { |contour| contour["beneath"] }
      expect(beneath.map { |contour| contour["cylinders"] }).to eq([[1, 3, 5]])
      expect(page["reach"]["cylinders"].select { |c| c["beneath"] }.map { |c| c["number"] }).to match_array([1, 3, 5])
    end

    it "gives a contour the depth of everything above it" do
      contours = sheet("JIV6", [5])["reach"]["contours"]
      expect(contours.map { |contour| [contour["cylinders"].size, contour["depth"]] }).to eq([[6, 1], [3, 6], [2, 7]])
    end

    it "names for each piece of work the steps it goes through, and for each multiplier where it is from" do
      tasks = sheet("IXO6", [5], %w[plug wire], condition: { "corrosion" => "light", "brittle" => false })["tasks"]
      work = tasks.find { |task| task["kind"] == "work" && task["ref"] == "plug-5" }
      expect(work["chain"]).to eq(
        ["Car raised on the lift", "Undertray", "Exhaust heat shield", "Wire 5, from beneath"]
      )
      expect(work["reasons"]).to eq(
        [{ "kind" => "reach", "level" => "from-beneath", "factor" => 2.4, "source" => "engine" }]
      )
      shield = tasks.find { |task| task["kind"] == "remove" && task["ref"] == "heat-shield" }
      expect(shield["reasons"]).to eq([{ "kind" => "rust", "level" => "light", "factor" => 1.15, "source" => "house" }])
    end

    it "names every layer's targets" do
      sheet("FM27", [2, 6])["layers"]
        .select { |layer| layer["in_plan"] }
        .each { |layer| expect(layer["needed_by"]).not_to be_empty, layer["label"] }
    end

    it "speaks of what is over, behind or beneath, and leaves out what only holds the car" do
      said = ->(code, cylinders) { sheet(code, cylinders)["explanation"]["short"] }
      expect(said.call("IXO6", [5])).to start_with(
        "Number 5 sits on the rear bank, reached from beneath past the exhaust heat shield and the undertray."
      )
      expect(said.call("IXO6", [1, 3, 5])).to start_with(
        "Numbers 1, 3 and 5 sit on the rear bank, reached past the upper engine mounts and the engine cover."
      )
      expect(said.call("OZB4", [2])).to start_with(
        "Number 2 sits on the left bank, behind the control module and its ground bracket and the battery lifted out."
      )
    end

    it "lists what to have before the car comes in: for the work, disturbed, and at hand" do
      parts = sheet("GV28", [6])["parts"]
      expect(parts.map { |row| [row["part"], row["rule"]] }).to include(
        %w[PLG-13443 needed],
        %w[SEA-59711 replace],
        %w[SEA-30954 if-needed],
        %w[HOS-97361 if-needed]
      )
      expect(parts.find { |row| row["part"] == "HOS-97361" }).to include(
        "label" => "Valley coolant hose",
        "because" => ["Valley coolant hose, moved aside"],
        "chance" => 0.07
      )
    end
  end

  describe NimbleLedger::Quote::Bundles do
    it "offers seals before anything else the opening makes cheap" do
      rows = sheet("JIV6", [5])["while_open"]
      expect(rows.map { |row| row["label"] }).to eq(
        ["Plugs and coils 1 and 3", "Plugs and coils 2, 4 and 6", "Tube seals, rear bank"]
      )
      expect(rows.last["alone_hours"]).to be > rows.last["added_hours"] + 1
    end

    it "names only what is added: the partner's plug, not the coil that is in already" do
      first = sheet("PW16", [4])["while_open"].first
      expect([first["label"], first["targets"]]).to eq(["Plug 1", ["plug-1"]])
    end

    it "offers boots for the cylinders in the job only, and none where new coils bring theirs" do
      offered = ->(code, cylinders, works) do
        sheet(code, cylinders, works)["while_open"].flat_map { |row| row["targets"] }
      end
      Engines.codes.each do |code|
        number = Engines.engine(code).cylinders.first.number
        expect(offered.call(code, [number], %w[plug]).grep(/boot|wire/) - ["boot-#{number}", "wire-#{number}"]).to eq(
          []
        ),
        code
        expect(offered.call(code, [number], %w[plug coil]).grep(/boot/)).to eq([]), code
      end
      expect(offered.call("UGZ4", [4], %w[plug])).to include("wire-4")
    end
  end
end
