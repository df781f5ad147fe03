# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Practice do
  EQUIPPED = [*Engines::EQUIPMENT, "scan-tool", "compression-gauge"].freeze

  def practice(seed, code: "QT14") =
    NimbleLedger::Practice::Case.new(seed, engine: Engines.engine(code), catalog: Engines.catalog, equipment: EQUIPPED)

  def score(kase, tests: [], targets: [], words: "") =
    NimbleLedger::Practice::Score.new(kase, tests, targets, words).to_h

  it "is the same car for the same number, and tests done again show the same" do
    told = ->(kase) { [kase.codes, kase.moment, kase.lamp, kase.history, kase.fault.cause, kase.plugs] }
    expect(told.call(practice(7))).to eq(told.call(practice(7)))
    expect((1..12).map { |seed| told.call(practice(seed)) }.uniq.size).to eq(12)
    tests = [{ "test" => "look-coil", "cylinder" => 2 }, { "test" => "swap-coil", "cylinder" => 1, "with" => 3 }]
    expect(practice(7).done(tests)).to eq(practice(7).done(tests))
    expect(practice(7).done(tests).first).to eq(practice(7).done(tests.first(1)).first)
  end

  it "hides faults as often as the tables say they occur" do
    causes = (1..400).map { |seed| practice(seed).fault.cause }.tally
    prior = practice(1).request.belief.held # the codes are in it: what is drawn from stands before them
    expect(prior.sum(&:chance)).to be_within(1e-9).of(1)
    shares = NimbleLedger::Trace::Tables.new.prior("coil-on-plug")
    %w[coil plug injector].each do |cause|
      expect(causes.fetch(cause, 0) / 400.0).to be_within(0.08).of(shares[cause] / shares.values.sum.to_f)
    end
  end

  it "shows a coil going along with the coil, where it is the coil, as often as the tables say" do
    coils = (1..300).map { |seed| practice(seed) }.select { |kase| kase.fault.cause == "coil" }
    moved =
      coils.count do |kase|
        here = kase.fault.cylinders.first
        swap = { "test" => "swap-coil", "cylinder" => here, "with" => here == 1 ? 2 : 1 }
        kase.done([swap]).first["outcome"] == "moved"
      end
    row = NimbleLedger::Trace::Tables.new.test("swap-coil")
    chance = row["here"]["coil"][row["outcomes"].index("moved")]
    expect(moved / coils.size.to_f).to be_within(0.1).of(chance)
  end

  it "takes plugs out as the odds of the car say, before any soak" do
    cases = (1..60).map { |seed| practice(seed, code: "YUX8") }
    expected = Hash.new(0.0)
    cases.each do |kase|
      odds = NimbleLedger::Risk::PlugRemoval.new(kase.request.car)
      kase
        .request
        .car
        .engine
        .targets
        .select(&:plug?)
        .each do |target|
          chances = odds.chances(target)
          whole = 1 - chances.broken
          expected["broken"] += target.cylinders.size * chances.broken
          expected["thread"] += target.cylinders.size * whole * chances.thread
          expected["stubborn"] += target.cylinders.size * whole * (1 - chances.thread) * chances.stubborn
        end
    end
    came = cases.flat_map(&:plugs).map(&:outcome).tally
    expected.each { |outcome, sum| expect(came.fetch(outcome, 0)).to be_within(4 * Math.sqrt(sum)).of(sum) }
  end

  it "reads codes as the fault sets them: its own cylinder nearly always, others now and then" do
    cases = (1..200).map { |seed| practice(seed) }.reject { |kase| kase.fault.elsewhere? }
    tables = NimbleLedger::Trace::Tables.new
    named = ->(kase, number) { kase.codes.any? { |row| row["code"] == format("P03%02d", number) } }
    own = cases.count { |kase| named.call(kase, kase.fault.cylinders.first) } / cases.size.to_f
    expect(own).to be_within(0.07).of(tables.code("hit"))
    others = cases.flat_map { |kase| ([1, 2, 3, 4] - kase.fault.cylinders).map { |number| named.call(kase, number) } }
    expect(others.count(true) / others.size.to_f).to be_within(0.04).of(tables.code("stray"))
    silent = cases.select { |kase| kase.codes.empty? }
    expect(silent.map(&:lamp).uniq).to eq(["off"])
  end

  it "refuses a test that cannot be done, with its path" do
    expect { practice(1).done([{ "test" => "swap-coil", "cylinder" => 1 }]) }.to raise_error(
      NimbleLedger::InvalidInput
    ) { |error| expect(error.details.first["path"]).to eq("/evidence/0/with") }
    expect { practice(1).done([{ "test" => "guess", "cylinder" => 1 }]) }.to raise_error(NimbleLedger::InvalidInput)
  end

  describe "how it went" do
    # A car whose coil is at fault, and one whose wiring is.
    let(:coil) { (1..99).lazy.map { |seed| practice(seed) }.find { |kase| kase.fault.cause == "coil" } }
    let(:wiring) { (1..400).lazy.map { |seed| practice(seed) }.find { |kase| kase.fault.cause == "wiring" } }

    it "counts bits of the truth, minutes lost and what the tables would have done" do
      number = coil.fault.cylinders.first
      other = number == 1 ? 2 : 1
      told = score(coil, tests: [{ "test" => "swap-coil", "cylinder" => number, "with" => other }])
      chances = told["yours"]["path"].map { |point| point["chance"] }
      expect(told["bits"]["learned"]).to be_within(1e-9).of(Math.log2(chances.last / chances.first))
      expect(told["bits"]["hidden"]).to be_within(1e-9).of(-Math.log2(chances.first))
      request = coil.request
      cost = request.cost_of({ "test" => "swap-coil", "cylinder" => number, "with" => other })
      expect(told["yours"]["minutes"]).to eq(cost.lost)
      expect(told["tables"]["tests"].map { |one| one["test"] }).to include(request.answer["tests"].first["test"])
    end

    it "adds up finding out, what was renewed, and the return where that did not cure" do
      target = "coil-#{coil.fault.cylinders.first}"
      right = score(coil, targets: [target])["yours"]
      price = coil.request.car.then { |car| car.job([car.engine.target(target)]).price.total_cents }
      expect(right).to include("cured" => true, "renewed_cents" => price, "return_cents" => 0, "cents" => price)
      wrong = score(coil, targets: ["plug-#{coil.fault.cylinders.first}"])["yours"]
      expect(wrong["cured"]).to be(false)
      expect(wrong["return_cents"]).to eq(price + coil.request.car.house["return_own_cents"])
      expect(wrong["cents"]).to eq(wrong["renewed_cents"] + wrong["return_cents"])
    end

    it "renews nothing by the tables where it is known that no part mends it" do
      known =
        (1..300)
          .lazy
          .map { |seed| practice(seed) }
          .find do |kase|
            next unless %w[wiring injector compression].include?(kase.fault.cause)

            path = score(kase)["tables"]["path"]
            path.last["chance"] >= 0.9
          end
      told = score(known)["tables"]
      expect(told).to include("labels" => [], "cured" => true, "renewed_cents" => 0, "return_cents" => 0)
    end

    it "takes renewing nothing for right where no part mends it" do
      expect(score(wiring)["yours"]).to include("cured" => true, "cents" => 0)
      expect(score(wiring, targets: ["coil-1"])["yours"]["cured"]).to be(false)
    end

    it "asks the words for the place, the part, the reach and the amount, without codes" do
      number = coil.fault.cylinders.first
      whole = score(coil, targets: ["coil-#{number}"])["yours"]["renewed_cents"] / 100
      said = ->(words) { score(coil, targets: ["coil-#{number}"], words: words)["words"].to_h(&:values) }
      good =
        said.call("The coil of number #{number} under the engine cover is at fault; renewing it comes to #{whole}.")
      expect(good).to eq("place" => true, "part" => true, "reach" => true, "amount" => true, "plain" => true)
      bad = said.call("P030#{number}, needs work")
      expect(bad).to include("part" => false, "amount" => false, "plain" => false)
      expect(score(coil)["words"]).to eq([])
    end

    it "says what the plugs would have done that were to be taken out, and no others" do
      told = score(coil, targets: ["plug-2"])["truth"]["plugs"]
      expect(told.map { |plug| plug["cylinder"] }).to eq([2])
      expect(told.first["outcome"]).to eq(coil.plugs.find { |plug| plug.cylinder == 2 }.outcome)
    end
  end
end
