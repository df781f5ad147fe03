# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Library::AlignedSteps do
  def engine(*steps)
    rows = steps.map { |id, label, off, on| step(id, off).merge("label" => label, "refit" => [on, on, on]) }
    through = steps.map(&:first)
    NimbleLedger::Profile::Engine.build(
      profile(steps: rows, targets: [target("plug-1", work: "plug", through: through)])
    )
  end

  def rows(one, other) = described_class.new(one, other).rows
  def labels(one, other) = rows(one, other).map { |row| row["label"] }

  it "lays steps of one id beside each other, with what each side takes" do
    older = engine(["cover", "Cover", 2, 3], ["pipe", "Pipe", 4, 5])
    newer = engine(["cover", "Engine cover", 2, 3], ["pipe", "Pipe", 9, 5])
    expect(rows(older, newer)).to eq(
      [
        {
          "label" => "Engine cover",
          "left" => {
            "remove" => 2,
            "refit" => 3
          },
          "right" => {
            "remove" => 2,
            "refit" => 3
          }
        },
        { "label" => "Pipe", "left" => { "remove" => 4, "refit" => 5 }, "right" => { "remove" => 9, "refit" => 5 } }
      ]
    )
  end

  it "takes steps of one name for one where two engines call them by other ids" do
    one = engine(["cover", "Engine cover", 2, 2])
    other = engine(["lid", "Engine cover", 3, 3])
    expect(rows(one, other).map { |row| row.values_at("left", "right").none?(&:nil?) }).to eq([true])
  end

  it "leaves the rest alone, each after the step it stands after on its own side" do
    one = engine(["cover", "Cover", 1, 1], ["pipe", "Pipe", 1, 1], ["manifold", "Manifold", 1, 1])
    other =
      engine(["cover", "Cover", 1, 1], ["box", "Air box", 1, 1], ["manifold", "Manifold", 1, 1], ["tray", "Tray", 1, 1])
    expect(labels(one, other)).to eq(["Cover", "Air box", "Pipe", "Manifold", "Tray"])
    alone = rows(one, other).to_h { |row| [row["label"], [row["left"].nil?, row["right"].nil?]] }
    expect(alone).to eq(
      "Cover" => [false, false],
      "Air box" => [true, false],
      "Pipe" => [false, true],
      "Manifold" => [false, false],
      "Tray" => [true, false]
    )
  end

  it "says the same of every shipped engine against itself, and loses no step against another" do
    codes = Engines.codes
    codes.each_cons(2) do |one, other|
      left, right = [one, other].map { |code| Engines.engine(code) }
      same = rows(left, left)
      expect(same.map { |row| row["left"] }).to eq(same.map { |row| row["right"] })
      both = rows(left, right)
      expect(both.count { |row| row["left"] }).to eq(left.source["steps"].size)
      expect(both.count { |row| row["right"] }).to eq(right.source["steps"].size)
    end
  end
end
