# frozen_string_literal: true

require_relative "../spec_helper"

# Seven nodes: 0 and 1 lie at the bottom; 2 goes through 0, 3 through 0 and 1, 4 through 1; 5 holds a choice of 2 and 4;
# 6 stands alone. Two choices: one of 3, 5 and 6 must be in; if 5 is, so must be 2 or 4.
RSpec.describe NimbleLedger::Access::Branch do
  let(:lists) { [[0], [1], [2, 0], [3, 0, 1], [4, 1], [5], [6]] }
  let(:above) { [[0, 2, 3], [1, 3, 4], [2], [3], [4], [5], [6]] }
  let(:problem) { NimbleLedger::Access::Branch::Problem.new(lists, above, [[2, 4], [3, 5, 6]], [5, nil]) }
  let(:weights) { [8, 3, 2, 1, 4, 2, 16] }
  let(:branch) { described_class.root(problem, weights) }
  let(:bound) { NimbleLedger::Access::Bound.new(lists) }

  it "takes a node with all below it, and weighs each once" do
    expect(branch.take(2)).to be(true)
    expect(branch.take(3)).to be(true)
    expect([branch.weight, branch.open]).to eq([2 + 8 + 1 + 3, [0, 0, 0, 0, 4, 2, 16]])
    expect((0..6).select { |node| branch.in?(node) }).to eq([0, 1, 2, 3])
  end

  it "does without a node and all above it, and says when that cannot be" do
    expect(branch.leave(1)).to be(true)
    expect([branch.take(3), described_class.root(problem, weights).tap { |b| b.leave(1) }.take(4)]).to eq(
      [false, false]
    )
    other = described_class.root(problem, weights)
    other.take(4)
    expect(other.leave(1)).to be(false)
  end

  it "tells choices that must be met from those that may have to be" do
    expect(branch.force).to be(true)
    expect([branch.certain, branch.pending.map(&:to_a)]).to eq([[[3, 5, 6]], [[5, [2, 4]]]])
    branch.take(5)
    branch.force
    expect([branch.certain, branch.pending]).to eq([[[2, 4]], []])
  end

  it "takes the last member a choice has left, and what that holds in turn" do
    branch.leave(3)
    branch.leave(6)
    branch.leave(0)
    expect(branch.force).to be(true)
    expect((0..6).select { |node| branch.in?(node) }).to eq([1, 4, 5])
    expect([branch.certain, branch.pending, branch.weight]).to eq([[], [], 3 + 4 + 2])
  end

  it "does without the holder of a choice that has no member left, and ends where one must be met" do
    [2, 4].each { |node| branch.leave(node) }
    expect(branch.force).to be(true)
    expect(branch.certain).to eq([[3, 6]])
    [3, 6].each { |node| branch.leave(node) }
    expect(branch.force).to be(false)
  end

  it "leaves a copy alone" do
    copy = branch.copy
    branch.take(6)
    branch.leave(0)
    expect([copy.weight, copy.open, (0..6).select { |node| copy.in?(node) }]).to eq([0, weights, []])
    expect(copy.take(3)).to be(true)
  end

  describe NimbleLedger::Access::StartingPlan do
    it "meets every choice, what it takes holding included, for no less than the least there is" do
      found = described_class.new(problem, weights, bound).best
      expect(found.force).to be(true)
      expect([found.certain, found.pending]).to eq([[], []])
      expect((0..6).sum { |node| found.in?(node) ? weights[node] : 0 }).to eq(9) # 5 with 4 and 1; 3 with 0 and 1 is 12
    end

    it "does without what it is told to, and says when nothing is left" do
      guess = described_class.new(problem, weights, bound)
      expect((0..6).select { |node| guess.best(without: 1).in?(node) }).to eq([0, 2, 5])
      alone = NimbleLedger::Access::Branch::Problem.new(lists, above, [[3]], [nil])
      expect(described_class.new(alone, weights, bound).best(without: 1)).to be_nil
    end
  end

  describe NimbleLedger::Access::Decision do
    it "decides first about a dear node the cheapest members of three choices share" do
      decision = described_class.new([[0], [1, 0], [2, 0], [3, 0], [4]])
      choice = decision.next([[1, 4], [2, 4], [3, 4]], [[5, 9], [6, 9], [7, 9]], [20, 1, 1, 1, 30])
      expect(choice.to_a).to eq([0, 9])
    end

    it "decides about the choice that is surest of its cheapest member where none is shared like that" do
      decision = described_class.new([[0], [1], [2], [3]])
      expect(decision.next([[0, 1], [2, 3]], [[5, 6], [2, 9]], [1, 1, 1, 1]).to_a).to eq([2, 9])
    end
  end
end
