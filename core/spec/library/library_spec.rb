# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Library do
  describe NimbleLedger::Library::Difference do
    let(:before) { Engines.profile_of("SK18") }

    def lines
      after = Engines.profile_of("SK18")
      yield after
      described_class.new(before, after).lines
    end

    it "is empty for the same profile, whatever the order of its keys" do
      shuffled = before.to_a.reverse.to_h
      expect(described_class.new(before, shuffled).same?).to be(true)
      expect(described_class.new(before, shuffled).lines).to eq([])
    end

    it "says what a mechanic would: torque, minutes, a step more, a piece of work gone" do
      expect(lines { |h| h["plug"]["torque_nm"] = 25 }).to eq(["plug: torque nm 23 → 25"])
      expect(lines { |h| h["steps"][0]["remove"] = [2, 3, 5] }).to eq(["Oil filler cap: off 0.3 / 0.5 / 1 → 2 / 3 / 5"])
      expect(lines { |h| h["steps"] << step("brace") }).to eq(["brace is new."])
      expect(lines { |h| h["targets"].pop }).to eq(["Work throttle-clean is gone."])
      expect(lines { |h| h["notes"] = "x" * 300 }.first).to end_with("→ #{"x" * 67}…")
    end

    it "tells a changed order from changed steps, since ties follow the file" do
      expect(lines { |h| h["steps"].rotate! }).to eq(["Step: the order in the file changes."])
    end

    it "stops at a readable number of lines and says how many more there are" do
      many = lines { |h| h["steps"] = (1..75).map { |i| step("new-#{i}") } }
      expect(many.size).to eq(described_class::MOST + 1)
      expect(many.last).to match(/\A\d+ more changes\z/)
    end
  end

  describe NimbleLedger::Library::EnginePage do
    def page(code, **rest) = described_class.new(Engines.engine(code), equipment: Engines::EQUIPMENT, **rest).to_h

    it "says the hours of every kind of work on every cylinder as a quote would" do
      %w[JIV6 PW16 OZB4].each do |code|
        page(code)["works"].each do |row|
          row["cylinders"].each do |cell|
            expect(cell["hours"]).to eq(Engines.quoted(code, Engines.targets(code, row["work"], [cell["cylinder"]])))
          end
          everything = Engines.engine(code).targets.select { |t| t.work == row["work"] && t.cylinders.any? }.map(&:id)
          expect(row["all"]).to eq(Engines.quoted(code, everything))
        end
      end
    end

    it "draws the work asked for, and plugs when it is not offered" do
      expect(page("UGZ4", work: "wire")["work"]).to eq("wire")
      expect(page("UGZ4", work: "tube-seal")["work"]).to eq("plug")
      expect(page("IXO6")["deepest"]).to eq(5)
    end

    it "shows an engine the shop cannot open, with no hours and no descent" do
      railed = Engines.profile_of("QEZ4")
      railed["steps"].find { |step| step["id"] == "cover" }["needs"] = ["coil-puller"]
      bare = described_class.new(NimbleLedger::Profile::Engine.build(railed)).to_h
      expect(bare["works"].flat_map { |row| row["cylinders"].map { |cell| cell["hours"] } }).to all(be_nil)
      expect([bare["descent"], bare["deepest"], bare["equipment"]]).to eq(
        [nil, nil, [{ "id" => "coil-puller", "label" => "coil puller" }]]
      )
    end

    it "lists every part once, with what it is for" do
      rows = page("JIV6", catalog: Engines.catalog)["parts"]
      expect(rows.map { |row| row["part"] }.uniq.size).to eq(rows.size)
      expect(rows.find { |row| row["part"] == "SEA-46375" }).to include(
        "for" => ["Upper intake manifold"],
        "label" => "Upper manifold seal",
        "priced" => true
      )
    end
  end

  describe "a profile as a file" do
    Engines.codes.each do |code|
      it "#{code} goes out and comes back the same, keys in the order of the format" do
        engine = Engines.engine(code)
        text = JSON.pretty_generate(engine.document)
        expect(JSON.parse(text)).to eq(engine.source)
        expect(JSON.parse(text).keys.first(4)).to eq(%w[format version code name])
        expect(NimbleLedger::Profile::Engine.build(JSON.parse(text)).source).to eq(engine.source)
      end
    end

    it "keeps numbers as they were written and text as it was typed" do
      hash = Engines.profile_of("SK18")
      hash["notes"] = "Größe „M“ <script>alert(1)</script> & \t tab"
      hash["steps"][0]["remove"] = [1e-3, 0.1, 2.50]
      built = NimbleLedger::Profile::Engine.build(JSON.parse(JSON.generate(hash)))
      expect(JSON.parse(JSON.generate(built.document))).to eq(hash)
    end
  end
end
