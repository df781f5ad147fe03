# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Workshop do
  def shipped = @shipped ||= Dir[File.expand_path("../../../demo/engines/*.json", __dir__)].sort.map { |f| parsed(f) }
  def parsed(path) = JSON.parse(File.read(path))
  def kinds = @kinds ||= NimbleLedger::Workshop::UsualTimes.new(shipped)
  def catalog =
    NimbleLedger::Parts::Catalog.build(parsed(File.expand_path("../../../demo/merrow.catalog.json", __dir__)))

  def sketch(**given)
    answers = {
      code: "S-1",
      name: "Sketched",
      arrangement: "vee",
      mounting: "sideways",
      cylinders: 6,
      ignition: "coil-on-plug",
      layers: [
        { label: "Engine cover", cylinders: [1, 2, 3, 4, 5, 6] },
        { label: "Upper manifold", cylinders: [1, 3, 5] }
      ],
      moves: [],
      plug: {
        construction: "one-piece"
      }
    }
    NimbleLedger::Workshop::Sketch.new(JSON.parse(JSON.generate(answers.merge(given))), kinds: kinds).profile
  end

  def engine(profile) = NimbleLedger::Profile::Engine.build(profile)

  describe described_class::Sketch do
    it "gives a sound profile for every arrangement and ignition, with every step reached" do
      [
        %w[inline lengthwise 4],
        %w[inline sideways 3],
        %w[vee lengthwise 8],
        %w[flat lengthwise 4],
        %w[single sideways 1]
      ].product(%w[coil-on-plug paired rail distributor single-coil])
        .each do |(arrangement, mounting, count), ignition|
          over = (1..count.to_i).to_a
          made =
            sketch(
              arrangement: arrangement,
              mounting: mounting,
              cylinders: count.to_i,
              ignition: ignition,
              layers: [{ label: "Cover", cylinders: over }],
              moves: described_class::MOVES
            )
          built = engine(made)
          expect(built.warnings).to be_empty
          expect(built.targets.count { |target| target.work == "plug" }).to eq(count.to_i)
        end
    end

    it "says that it is provisional and is wider by the house's figure" do
      made = sketch
      expect(made["provisional"]).to be(true)
      sure = sketch(provisional: false)
      wide, narrow =
        [made, sure].map do |profile|
          built = engine(profile)
          part = { "engine" => profile, "targets" => ["plug-5"] }
          request = { "format" => "nimble-ledger.estimate-request", "version" => 1, **part }
          NimbleLedger::Estimate::Request.build(request, documents: NimbleLedger::Documents.new(engine: built)).job
        end
      expect(wide.plan.job.total.mean).to eq(narrow.plan.job.total.mean)
      spread = ->(job) { Math.sqrt(job.plan.job.total.variance) / job.plan.job.total.mean }
      expect(spread.call(wide)).to be > 0.25
      expect(spread.call(narrow)).to be_between(0.12, 0.25)
    end

    it "takes what moves off before the manifold, with its cautions and closing work" do
      made = sketch(moves: %w[throttle coolant harness])
      ids = made["steps"].map { |step| step["id"] }
      expect(ids.first(4)).to eq(%w[engine-cover harness-and-brackets throttle-body upper-manifold])
      manifold = made["steps"][3]
      expect(manifold["releases"].first["fluid"]).to eq("coolant")
      expect(manifold["cautions"]).to include(/Hot coolant/)
      expect(made["steps"][1].values_at("battery", "cautions")).to eq([true, [described_class::BATTERY]])
    end

    it "refuses answers that do not fit together, with their place" do
      expect { sketch(cylinders: 5) }.to raise_error(NimbleLedger::InvalidInput, /even/)
      expect { sketch(layers: [{ label: "Cover", cylinders: [7] }]) }.to raise_error(NimbleLedger::InvalidInput) { |e|
        expect(e.details.first["path"]).to eq("/layers/0/cylinders")
      }
    end
  end

  describe described_class::Pattern do
    it "leaves nothing of an engine but how it is built" do
      shipped.each do |source|
        made = described_class.of(source, kinds: kinds, code: "MINE", name: "Mine")
        text = JSON.generate(made)
        parts = JSON.generate(source).scan(/"part":"([^"]+)"/).flatten.uniq
        expect(parts.select { |part| text.include?(part) }).to be_empty
        expect(text).not_to include(source["name"])
        built = engine(made)
        expect(built.steps.map(&:id)).to eq(source["steps"].map { |step| step["id"] })
        counts = NimbleLedger::Profile::Origins.counts(made)
        expect(counts.values_at("pattern", "typed")).to eq([(2 * built.steps.size) + built.targets.size, 0])
      end
    end
  end

  describe described_class::UsualTimes do
    it "knows a layer by what it is called" do
      names = ["Upper intake manifold", "Wiper arms and cowl tray", "Coil 3, pushed in", "Throttle body, hung aside"]
      expect(names.map { |label| described_class.of({ "label" => label }) }).to eq(%w[manifold tray coil throttle])
    end

    it "asks about what is unlike the others, and not about what is like them" do
      found = kinds.unlike("manifold", "remove", 90)
      expect(found.high).to be < 90
      expect(found.count).to be >= 3
      expect(kinds.unlike("manifold", "remove", found.high)).to be_nil
    end
  end

  describe described_class::ProfilePreview do
    def look(profile) = described_class.new(profile, kinds: kinds, catalog: catalog, equipment: %w[puller]).to_h

    it "prices the easiest, the deepest and the whole, falling short of none" do
      tries = look(shipped.find { |profile| profile["code"] == "JIV6" })["tries"]
      expect(tries.map { |row| row["what"] }).to eq(%w[easiest-plug deepest deepest-bank all-plugs all])
      expect(tries.map { |row| row["hours"] }).to eq(tries.map { |row| row["hours"] }.sort)
      expect(tries.last["missing"]).to be_empty
    end

    it "names a fault where it is and keeps what can be drawn without it" do
      broken = sketch
      broken["steps"][1]["remove"] = [30, 20, 40]
      found = look(broken)
      expect(found["faults"].first["path"]).to eq("/steps/1/remove")
      expect(found["page"]).to be_nil
      circle = sketch
      circle["steps"][0]["after"] = ["upper-manifold"]
      expect(look(circle)["faults"].first["message"]).to include("closes a circle: ")
      expect(look(circle)["over"].size).to eq(circle["steps"].size)
    end

    it "says what is still open and what is unlike its kind" do
      odd = sketch
      odd["steps"][1]["remove"] = [80, 90, 120]
      found = look(odd)
      expect(found["unlike"].first).to include("path" => "/steps/1/remove", "minutes" => 90)
      expect(found["open"].map { |row| row["code"] }.uniq).to eq(%w[no-price no-torque])
      expect(found["tries"].last["missing"].map { |row| row["part"] }).to include("part: coil")
    end
  end
end
