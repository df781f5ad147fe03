# frozen_string_literal: true

require_relative "../spec_helper"

# Finding the fault: stories a good technician would recognize, and what must hold of every answer.
RSpec.describe NimbleLedger::Trace do
  def trace(code = "JIV6", engine: nil, catalog: false, **rest)
    hash = {
      "format" => "nimble-ledger.trace-request",
      "version" => 1,
      "engine" => engine || Engines.profile_of(code),
      "equipment" => [*Engines::EQUIPMENT, "scan-tool", "compression-gauge"]
    }
    hash["catalog"] = JSON.parse(File.read(File.join(Engines::ROOT, "demo/merrow.catalog.json"))) if catalog
    NimbleLedger::Answers.to(hash.merge(rest.transform_keys(&:to_s)))
  end

  def code(*numbers) =
    numbers.map { |n| { "code" => n.is_a?(Integer) ? format("P03%02d", n) : n, "status" => "stored" } }

  def done(test, cylinder, outcome, with: nil)
    { "test" => test, "cylinder" => cylinder, "with" => with, "outcome" => outcome }.compact
  end

  def lead(answer) = answer["hypotheses"].first
  def chance(answer, cause, cylinder) =
    answer["hypotheses"].select { |h| h["cause"] == cause && h["cylinders"].include?(cylinder) }.sum { |h| h["chance"] }

  def refused(path, &block) =
    expect(&block).to raise_error(NimbleLedger::InvalidInput) { |e| expect(e.details.first["path"]).to eq(path) }

  describe "stories" do
    it "a code moves with the coil: it is the coil, wherever it sits now" do
      found = trace(codes: code(3), evidence: [done("swap-coil", 3, "moved", with: 2)])
      expect(lead(found)).to include("cause" => "coil", "cylinders" => [3], "now" => [2], "target" => "coil-2")
      expect(found["advice"]).to eq("repair")
    end

    it "a code moves with the plug" do
      found = trace(codes: code(2), evidence: [done("swap-plug", 2, "moved", with: 4)])
      expect(lead(found)).to include("cause" => "plug", "cylinders" => [2], "now" => [4], "target" => "plug-4")
    end

    it "a code stays whatever is swapped: not coil, not plug" do
      evidence = [done("swap-coil", 2, "stayed", with: 4), done("swap-plug", 2, "stayed", with: 6)]
      found = trace(codes: code(2), evidence: evidence)
      expect(%w[wiring injector compression]).to include(lead(found)["cause"])
      expect(chance(found, "coil", 2) + chance(found, "plug", 2)).to be < 0.1
    end

    it "a fault that spreads over all cylinders is looked for elsewhere" do
      found = trace(codes: code("P0300", 1, 2, 3, 4, 5, 6))
      expect([lead(found)["cause"], found["advice"]]).to eq(%w[elsewhere elsewhere])
    end

    it "both partners of a paired coil: the coil, not two plugs" do
      engine = Engines.codes.find { |c| Engines.engine(c).ignition == "paired" }
      pair = Engines.engine(engine).coils.first.cylinders.sort
      found = trace(engine, codes: code(*pair))
      expect(lead(found)).to include("cause" => "coil", "cylinders" => pair)
      one = trace(engine, codes: code(pair.first))
      expect(chance(one, "plug", pair.first)).to be > chance(found, "plug", pair.first)
    end

    it "a coil that is suspected on a buried cylinder: guessing is fairer than knowing" do
      evidence = [done("look-coil", 5, "cracked")]
      dear = trace(codes: code(5), when: "load", evidence: evidence, catalog: true, diagnosis_rate_cents: 40_000)
      expect(%w[suspect repair]).to include(dear["advice"])
      cheap = trace(codes: code(5), when: "load", catalog: true, diagnosis_rate_cents: 1_000)
      expect(cheap["advice"]).to eq("test")
    end

    it "the same on an open cylinder: the next test is cheap, and comes before any part" do
      found = trace(codes: code(2), catalog: true)
      expect(found["advice"]).to eq("test")
      expect(found["tests"].first["lost_minutes"]).to be < 15
    end

    it "an oily plug speaks of compression more than of spark" do
      found = trace(codes: code(2), evidence: [done("read-plug", 2, "oily")])
      expect(chance(found, "compression", 2)).to be > chance(trace(codes: code(2)), "compression", 2)
    end

    it "a fault that moved back with its coil is the same fault" do
      there = [done("swap-coil", 3, "moved", with: 2)]
      back = there + [done("swap-coil", 2, "moved", with: 3)]
      found = trace(codes: code(3), evidence: back)
      expect(lead(found)).to include("cause" => "coil", "cylinders" => [3], "target" => "coil-3")
      expect(lead(found)).not_to have_key("now")
    end

    it "a blinking lamp is said, and is no evidence; so is a permanent code" do
      calm = trace(codes: code(3))
      loud =
        trace(
          codes: [{ "code" => "P0303", "status" => "permanent" }, { "code" => "P0420", "status" => "stored" }],
          lamp: "blinking"
        )
      expect(loud["hypotheses"]).to eq(calm["hypotheses"])
      expect(loud["cautions"].first).to include("do not drive")
      expect(loud["other_codes"]).to eq(["P0420"])
    end
  end

  describe "what holds" do
    it "chances sum to 1 and fall, bits are never below nothing, and no test is there twice, on every engine" do
      Engines.codes.each do |name|
        numbers = Engines.engine(name).cylinders.map(&:number)
        found = trace(name, codes: code(numbers.first), when: "load")
        chances = found["hypotheses"].map { |h| h["chance"] }
        expect(chances.sum).to be_within(1e-9).of(1)
        expect(chances).to eq(chances.sort.reverse)
        expect(found["tests"].map { |t| t["bits"] }).to all(be >= 0)
        expect(found["tests"].map { |t| t.values_at("test", "cylinder") }.uniq.size).to eq(found["tests"].size)
        worth = found["tests"].map { |t| t["bits_per_minute"] }
        expect(worth).to eq(worth.sort.reverse)
        expect(found["tests"]).to all(satisfy { |t| t["lost_minutes"] <= t["minutes"] + 1e-9 })
      end
    end

    it "what a test is expected to tell is what its outcomes tell on average" do
      before = trace(codes: code(2), when: "idle")
      test = before["tests"].find { |t| t["test"] == "look-coil" && t["cylinder"] == 2 }
      entropy = ->(answer) do
        answer["hypotheses"].sum { |h| h["chance"].positive? ? -h["chance"] * Math.log2(h["chance"]) : 0 }
      end
      tables = described_class::SHIPPED["tests"]["look-coil"]
      outcomes =
        tables["outcomes"].each_with_index.map do |outcome, i|
          likely =
            before["hypotheses"].sum do |h|
              here = h["cylinders"].include?(2)
              boot = h["target"].to_s.start_with?("boot")
              row =
                if h["cause"] == "elsewhere"
                  tables["elsewhere"]
                else
                  here ? tables["here"][boot ? "boot" : h["cause"]] : tables["other"]
                end
              h["chance"] * row[i]
            end
          likely * entropy.call(trace(codes: code(2), when: "idle", evidence: [done("look-coil", 2, outcome)]))
        end
      expect(test["bits"]).to be_within(1e-9).of(entropy.call(before) - outcomes.sum)
    end

    it "counts the same test on the same cylinders once, the last time; other orders of looking change nothing" do
      twice = trace(codes: code(2), evidence: [done("look-coil", 2, "clean"), done("look-coil", 2, "cracked")])
      expect(twice["hypotheses"]).to eq(
        trace(codes: code(2), evidence: [done("look-coil", 2, "cracked")])["hypotheses"]
      )
      looks = [done("look-coil", 2, "clean"), done("read-plug", 2, "wet"), done("check-wiring", 2, "good")]
      chances =
        looks.permutation.map do |order|
          trace(codes: code(2), evidence: order)["hypotheses"].to_h { |h| [h.except("chance"), h["chance"].round(12)] }
        end
      expect(chances.uniq.size).to eq(1)
    end

    it "asks no test again where it was done, nor of a part that had it elsewhere" do
      found = trace(codes: code(3), evidence: [done("look-coil", 3, "clean"), done("swap-coil", 3, "both", with: 2)])
      expect(found["tests"].map { |t| t.values_at("test", "cylinder") }).not_to include(
        ["look-coil", 3],
        ["swap-coil", 3]
      )
      tested = found["tests"].select { |t| t["test"] == "look-coil" && t["cylinder"] == 2 }
      expect(tested).to eq([])
    end

    it "what is open already costs nothing again, and what the repair needs anyway is not lost" do
      shut = trace(codes: code(5))["tests"].find { |t| t["test"] == "look-coil" && t["cylinder"] == 5 }
      open =
        trace(codes: code(5), open: %w[cover intake-pipe vacuum-hoses cowl throttle harness manifold coil-5])[
          "tests"
        ].find { |t| t["test"] == "look-coil" && t["cylinder"] == 5 }
      expect(open["minutes"]).to eq(3)
      expect(shut["lost_minutes"]).to be < shut["minutes"]
      expect(shut["minutes"]).to be > 40
    end

    it "swaps no coil where all hang on one, and none on a rail" do
      rail = Engines.codes.find { |c| Engines.engine(c).ignition == "rail" }
      expect(trace(rail, codes: code(1))["tests"].map { |t| t["test"] }).not_to include("swap-coil", "swap-both")
      refused("/evidence/0/test") { trace(rail, evidence: [done("swap-coil", 1, "moved", with: 2)]) }
    end

    it "stays within the budget's reach on the largest engine" do
      found =
        trace(
          "YUX8",
          codes: code(8),
          history: {
            "odometer_km" => 190_000,
            "plugs_changed_km" => 0,
            "plugs_changed_years" => 14
          }
        )
      expect(found["tests"].size).to be > 4
    end
  end

  describe "guessing beside knowing" do
    def sheet(code, **rest)
      hash = {
        "format" => "nimble-ledger.trace-request",
        "version" => 1,
        "engine" => Engines.profile_of(code),
        "equipment" => [*Engines::EQUIPMENT, "scan-tool", "compression-gauge"],
        "catalog" => JSON.parse(File.read(File.join(Engines::ROOT, "demo/merrow.catalog.json")))
      }
      NimbleLedger::Trace::Request.build(hash.merge(rest.transform_keys(&:to_s))).sheet
    end

    it "is worth what a test saves of what is renewed for nothing, by hand" do
      found = sheet("SK18", codes: code(3))
      guess, know = found["worth"].values_at("guess", "know")
      best = found["tests"].first
      expect(know.values_at("test", "cylinder")).to eq(best.values_at("test", "cylinder"))
      rate = NimbleLedger::House::Settings.defaults["rate_cents"]
      expect(know["test_cents"]).to eq((best["lost_minutes"] * rate / 60.0).round)
      wasted =
        found["outcomes"][best["test"]].sum do |outcome|
          evidence = [done(best["test"], best["cylinder"], outcome, with: best["with"])]
          after = sheet("SK18", codes: code(3), evidence: evidence)
          chance_of(found, best, outcome) * after["worth"]["guess"]["wasted_cents"]
        end
      by_hand = guess["wasted_cents"] - know["test_cents"] - wasted
      expect(found["worth"]["worth_cents"]).to be_within(2).of(by_hand)
    end

    # P(outcome), from the tables themselves.
    def chance_of(found, best, outcome)
      test = NimbleLedger::Trace::SHIPPED["tests"][best["test"]]
      at = test["outcomes"].index(outcome)
      found["hypotheses"].sum { |one| one["chance"] * row_of(test, one, best["cylinder"])[at] }
    end

    def row_of(test, one, cylinder)
      return test["elsewhere"] if one["cause"] == "elsewhere"
      return test["other"] unless one["cylinders"].include?(cylinder)

      boot = one["target"].to_s.start_with?("boot") && test["here"]["boot"]
      boot || test["here"][one["cause"] == "cap-and-rotor" ? "wire" : one["cause"]]
    end

    it "never wastes less by guessing than by the best of what could be known for nothing" do
      Engines.codes.each do |name|
        found = sheet(name, codes: code(1))
        next unless found["worth"]&.dig("know")

        guess, know = found["worth"].values_at("guess", "know")
        expect(guess["for_nothing"]).to be_between(0, 1)
        expect(found["worth"]["worth_cents"]).to be <= guess["wasted_cents"] - know["test_cents"] + 1
      end
    end

    it "says what each code says, and that a catalyst's beside a misfire is no evidence" do
      told = sheet("SK18", codes: code(3, "P0300", "P0316", "P0420", "P0171"))["codes"]
      expect(told.map { |row| row.values_at("says", "cylinder") }).to eq(
        [["cylinder", 3], ["several", nil], ["cold", nil], ["catalyst", nil], ["other", nil]]
      )
    end

    it "leads to the part alone, and to all that sparks on its cylinder" do
      moved = [done("swap-coil", 3, "moved", with: 2)]
      expect(sheet("SK18", codes: code(3), evidence: moved)["leads_to"]).to eq(
        [{ "works" => ["coil"], "cylinders" => [2] }, { "works" => %w[plug coil], "cylinders" => [2] }]
      )
      wires = sheet("UGZ4", codes: code(2), evidence: [done("check-wire", 2, "bad")])
      expect(wires["leads_to"]).to eq(
        [{ "works" => ["wire"], "cylinders" => [2] }, { "works" => %w[plug wire], "cylinders" => [2] }]
      )
      rail = sheet("QEZ4", codes: code(1, 2, 3, 4), evidence: [])
      expect(rail["leads_to"].first["cylinders"]).to eq([1, 2, 3, 4]).or eq([1])
    end

    it "knows what repairs it once it is known, its boot included; nothing before" do
      found = sheet("SK18", codes: code(3), evidence: [done("swap-coil", 3, "moved", with: 2)])
      boots = found["hypotheses"].select { |one| one["part"] == "boot" && (one["now"] || one["cylinders"]).include?(2) }
      coil = found["hypotheses"].find { |one| one["target"] == "coil-2" }
      expect(found["repair"]["target"]).to eq("coil-2")
      expect(found["repair"]["cured"]).to be_within(1e-9).of(coil["chance"] + boots.sum { |one| one["chance"] })
      expect(sheet("SK18", codes: code(3))["repair"]).to be_nil
    end

    it "takes a part that was put back for one that sits where it came from" do
      away = done("swap-coil", 3, "moved", with: 2)
      back = sheet("SK18", codes: code(3), evidence: [away.merge("back" => true)])
      left = sheet("SK18", codes: code(3), evidence: [away])
      expect(back["moved"]).to eq([])
      expect([back["repair"]["target"], left["repair"]["target"]]).to eq(%w[coil-3 coil-2])
      expect(back["hypotheses"].first["chance"]).to be_within(1e-12).of(left["hypotheses"].first["chance"])
    end

    it "knows which parts do not sit where they came from, until they are back" do
      away = done("swap-coil", 3, "moved", with: 2)
      expect(sheet("SK18", codes: code(3), evidence: [away])["moved"]).to eq(
        [{ "kind" => "coil", "from" => [2], "now" => [3] }, { "kind" => "coil", "from" => [3], "now" => [2] }]
      )
      back = done("swap-coil", 2, "moved", with: 3)
      expect(sheet("SK18", codes: code(3), evidence: [away, back])["moved"]).to eq([])
    end
  end

  it "refuses what cannot be, and says where" do
    refused("/codes/0/code") { trace(codes: code(9)) }
    refused("/evidence/0/test") { trace(evidence: [done("shake", 1, "moved")]) }
    refused("/evidence/0/outcome") { trace(evidence: [done("look-coil", 1, "moved")]) }
    refused("/evidence/0/with") { trace(evidence: [done("swap-plug", 1, "moved")]) }
    refused("/evidence/0/with") { trace(evidence: [done("look-coil", 1, "clean", with: 2)]) }
    refused("/evidence/0/cylinder") { trace(evidence: [done("look-coil", 9, "clean")]) }
    refused("/open/0") { trace(open: ["roof"]) }
    refused("/tables/prior/rail") { trace(tables: { "prior" => { "rail" => { "coil" => 0.9 } } }) }
    refused("/tables/weather") { trace(tables: { "weather" => {} }) }
  end

  it "takes parts of the tables anew, and refuses evidence they rule out" do
    sure = { "tests" => { "look-coil" => { "here" => { "coil" => [0, 1, 0, 0] } } } }
    found = trace(codes: code(2), tables: sure, evidence: [done("look-coil", 2, "clean")])
    expect(chance(found, "coil", 2)).to eq(0)
    nothing = %w[coil plug wire wiring injector compression boot].to_h { |cause| [cause, [0, 1, 0, 0]] }
    ruled = {
      "tests" => {
        "look-coil" => {
          "here" => nothing,
          "other" => [0, 1, 0, 0],
          "elsewhere" => [0, 1, 0, 0]
        }
      }
    }
    refused("/evidence") { trace(tables: ruled, evidence: [done("look-coil", 2, "clean")]) }
  end

  describe "given more" do
    let(:swapped) { done("swap-both", 3, "moved", with: 2) }

    it "takes no proof from a fault that was gone while it was not run the way it misfires" do
      plain = trace(codes: code(3))
      gone = done("swap-coil", 3, "none", with: 2)
      idle = trace(codes: code(3), evidence: [gone.merge("run" => "otherwise")])
      expect(idle["hypotheses"].map { |h| h["chance"] }).to eq(plain["hypotheses"].map { |h| h["chance"] })
      expect(idle["hypotheses"].find { |h| h["cause"] == "coil" && h["cylinders"] == [3] }["now"]).to eq([2])
      proved = trace(codes: code(3), evidence: [gone.merge("run" => "as-it-misfires")])
      expect(proved["hypotheses"]).to eq(trace(codes: code(3), evidence: [gone])["hypotheses"])
      moved = ->(run) { trace(codes: code(3), evidence: [done("swap-coil", 3, "moved", with: 2).merge(run)]) }
      expect(moved.call("run" => "otherwise")["hypotheses"]).to eq(moved.call({})["hypotheses"])
    end

    it "renews coil and plug together where both moved and neither alone is surely it" do
      found = trace(codes: code(3), evidence: [swapped])
      expect(found["together"]).to eq(%w[coil-2 plug-2])
      expect(trace(codes: code(3))).not_to include("together")
      alone = trace(codes: code(3), evidence: [swapped, done("swap-plug", 2, "stayed", with: 4)])
      expect(alone).not_to include("together")
      refused("/evidence/0/run") { trace(evidence: [swapped.merge("run" => "idle")]) }
    end

    it "believes counters, as much as a few misfires, where the parts sit now" do
      counted = trace(counters: { "3" => 214, "1" => 4 })
      expect(chance(counted, "coil", 3)).to be > 5 * chance(counted, "coil", 1)
      expect(trace(counters: { "3" => 0 })["hypotheses"]).to eq(trace["hypotheses"])
      here = trace(evidence: [done("swap-coil", 3, "moved", with: 2)], counters: { "2" => 90 })
      there = trace(evidence: [done("swap-coil", 3, "moved", with: 2)], counters: { "3" => 90 })
      expect(chance(here, "coil", 3)).to be > chance(there, "coil", 3)
      refused("/counters/9") { trace(counters: { "9" => 1 }) }
    end

    it "knows a whole set that is weak together, which no one cylinder explains" do
      random = [{ "code" => "P0300", "status" => "stored" }]
      found = trace(codes: random, when: "load", sets: ["coil"])
      set = found["hypotheses"].find { |h| h["cause"] == "coil" && h["cylinders"].size == 6 }
      expect(set["chance"]).to eq(found["hypotheses"].map { |h| h["chance"] }.max)
      expect(found["hypotheses"].sum { |h| h["chance"] }).to be_within(1e-9).of(1)
      expect(trace("QEZ4", sets: ["coil"])["hypotheses"]).to eq(trace("QEZ4")["hypotheses"])
    end

    it "takes what a test needs, for any test" do
      away = trace(codes: code(3), tables: { "tests" => { "look-coil" => { "needs" => ["borescope"] } } })
      expect(away["tests"].map { |test| test["test"] }).not_to include("look-coil")
      refused("/tables/tests/look-coil/needs") { trace(tables: { "tests" => { "look-coil" => { "needs" => [3] } } }) }
    end

    it "prices by the rules it is asked by" do
      expect(trace(rules: 2)["advice"]).to eq(trace["advice"])
      refused("/rules") { trace(rules: 9) }
    end
  end

  it "formats/trace-tables.json is what is shipped (run bin/formats)" do
    path = File.join(Engines::ROOT, "formats/trace-tables.json")
    expect(JSON.parse(File.read(path))).to eq(described_class::SHIPPED)
  end
end
