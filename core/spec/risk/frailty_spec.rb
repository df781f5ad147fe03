# frozen_string_literal: true

require_relative "../spec_helper"

# One frailty (model.md section 5, rules 3): plugs of one car break together, each keeps its own chance.
RSpec.describe NimbleLedger::Risk::Frailty do
  def lot(hazard, count) = described_class::Lot.new(hazard, count)
  def choose(n, k) = (1..k).reduce(1r) { |product, i| product * (n - i + 1) / i }

  # The closed form, in signed sums: exact where few plugs are in it.
  def closed(theta, hazard, count, broken)
    none = ->(sum) { (1 + (theta * sum))**(-1.0 / theta) }
    signed = (0..broken).sum { |j| ((-1)**j) * choose(broken, j) * none.call((count - broken + j) * hazard) }
    choose(count, broken) * signed
  end

  [0.05, 0.3, 0.8, 2.0, 5.0, 100.0].each do |theta|
    it "keeps each plug's chance and has the closed form's joint distribution at a variance of #{theta}" do
      [0.003, 0.07, 0.4, 0.95].each do |chance|
        hazard = described_class.new(theta).hazard(chance)
        frailty = described_class.new(theta, left: [hazard] * 6)
        expect(frailty.breaks(hazard)).to be_within(1e-10).of(chance)
        counts = frailty.counts([lot(hazard, 6)])
        counts.each_with_index do |found, k|
          expect(found).to be_within(1e-9).of(closed(theta, hazard, 6, k)), "#{chance}: #{k}"
        end
        expect(frailty.none(6 * hazard)).to be_within(1e-10).of(counts.first)
        expect(counts.sum).to be_within(1e-12).of(1)
      end
    end
  end

  it "is independence without variance, and makes several breaks likelier with more of it" do
    alone = described_class.new(0)
    hazard = alone.hazard(0.07)
    expect(alone.counts([lot(hazard, 3)])[3]).to be_within(1e-12).of(0.07**3)
    all_eight =
      [0.1, 0.8, 3].map do |theta|
        one = described_class.new(theta)
        described_class.new(theta, left: [one.hazard(0.07)] * 8).counts([lot(one.hazard(0.07), 8)]).last
      end
    expect(all_eight).to eq(all_eight.sort)
  end

  it "adds the joint distribution of unlike plugs up to their counts" do
    one = described_class.new(0.8)
    hazards = [0.02, 0.2, 0.5].map { |chance| one.hazard(chance) }
    frailty = described_class.new(0.8, left: hazards)
    joint = frailty.joint(hazards.map { |hazard| lot(hazard, 1) })
    counts = frailty.counts(hazards.map { |hazard| lot(hazard, 1) })
    (0..3).each { |k| expect(joint.sum { |key, chance| key.sum == k ? chance : 0 }).to be_within(1e-12).of(counts[k]) }
    expect(frailty.exactly(hazards[0] + hazards[1], [hazards[2]])).to be_within(1e-12).of(joint[[0, 0, 1]])
  end

  # Learned by Bayes' rule over the same plugs taken as not out yet.
  it "learns from what came out what the joint distribution says of the rest" do
    one = described_class.new(0.8)
    hazards = [0.1, 0.1, 0.3].map { |chance| one.hazard(chance) }
    before = described_class.new(0.8, left: hazards)
    joint = before.joint(hazards.map { |hazard| lot(hazard, 1) })
    after = described_class.new(0.8, broken: [hazards[0]], whole: [hazards[1]], left: [hazards[2]])
    expected = joint[[1, 0, 1]] / (joint[[1, 0, 1]] + joint[[1, 0, 0]])
    expect(after.breaks(hazards[2])).to be_within(1e-10).of(expected)
    expect(after.breaks(hazards[2])).to be > 0.3
  end

  it "lets plugs of chance 0 and 1 say nothing" do
    one = described_class.new(0.8)
    hazard = one.hazard(0.1)
    sure =
      described_class.new(0.8, broken: [one.hazard(1.0), one.hazard(0.0)], whole: [one.hazard(0.0)], left: [hazard])
    expect(sure.breaks(hazard)).to be_within(1e-10).of(0.1)
    expect([sure.breaks(one.hazard(1.0)), sure.none(one.hazard(1.0))]).to eq([1.0, 0.0])
  end

  describe "in an estimate under rules 3" do
    def risk(**rest)
      request = JSON.parse(File.read(File.join(Engines::ROOT, "formats/examples/rules-three.request.json")))
      request = request.merge(rest.transform_keys(&:to_s))
      request["engine"] = JSON.parse(File.read(File.join(Engines::ROOT, "formats/examples/plover-v6.engine.json")))
      NimbleLedger::Answers.to(request.compact)["risk"]
    end

    it "keeps every plug's own chance, and moves the chance that none breaks" do
      two, three = [2, 3].map { |rules| risk(rules: rules, live: nil) }
      expect(three["plugs"].map { |row| row["broken"] }).to eq(two["plugs"].map { |row| row["broken"] })
      expect(three["broken_counts"].first).to be > two["broken_counts"].first
      expect(three["broken_counts"].last).to be > two["broken_counts"].last
      expect(three["broken_counts"].sum).to be_within(1e-12).of(1)
      expect(three["expected_extra_minutes"]).to be_within(1e-9).of(two["expected_extra_minutes"])
    end

    it "is rules 2 where the variance is 0" do
      two, three = [2, 3].map { |rules| risk(rules: rules, live: nil, house: { "live_variance" => 0 }) }
      expect(three["broken_counts"]).to eq(two["broken_counts"])
    end
  end
end
