# frozen_string_literal: true

require_relative "../spec_helper"
require_relative "../../../bin/support/answer_command"

# From a job to the board: its sequence drawn together, its time on the clock, and how it most likely goes.
RSpec.describe NimbleLedger::Day do
  request = JSON.parse(File.read("#{Engines::ROOT}/formats/examples/rules-three.request.json"))

  let(:job) { NimbleLedger::Estimate::Request.build(request, documents: documents).job }
  let(:documents) { AnswerCommand::Files.new("#{Engines::ROOT}/formats/examples") }
  let(:pieces) { job.plan.sequence.pieces }
  let(:rows) { described_class::WorkTime.of(job).rows }

  def piece(id, minutes, people: 1, waiting: false, holds_bay: false)
    NimbleLedger::Time::Sequence::Piece.new(
      id,
      "work",
      id,
      id,
      nil,
      NimbleLedger::ThreePoints.exactly(minutes),
      people,
      waiting,
      holds_bay
    )
  end

  it "keeps every minute of the sequence in its segments, works never side by side for as many people" do
    segments = described_class::Segments.of(pieces, overnight: job.plan.overnight?)
    sum = ->(kind) { segments.select { |row| row["kind"] == kind }.sum { |row| row["minutes"].to_f } }
    works, waits = pieces.partition { |one| !one.waiting? }
    expect(sum.call("work")).to be_within(1e-9).of(works.sum(&:clock_minutes))
    expect(sum.call("wait")).to be_within(1e-9).of(waits.sum(&:clock_minutes))
    alike =
      segments
        .each_cons(2)
        .select { |one, other| one["kind"] == "work" && one.slice("kind", "people") == other.slice("kind", "people") }
    expect(alike).to eq([])
  end

  it "parts a job at its waits, at an overnight soak until the next opening, and lets it cool first" do
    given = [
      piece("off", 20),
      piece("lift", 5, people: 2),
      piece("wait:soak", 0, waiting: true, holds_bay: true),
      piece("nothing", 0),
      piece("on", 30)
    ]
    expect(described_class::Segments.of(given, overnight: true, cooling: 60)).to eq(
      [
        { "kind" => "wait", "minutes" => 60, "holds_bay" => false },
        { "kind" => "work", "minutes" => 20, "people" => 1 },
        { "kind" => "work", "minutes" => 5, "people" => 2 },
        { "kind" => "wait", "until" => "opening", "holds_bay" => true },
        { "kind" => "work", "minutes" => 30, "people" => 1 }
      ]
    )
    expect(described_class::Segments.of([piece("wait", 30, waiting: true)], overnight: false)).to eq([])
    many = (1..9).flat_map { |i| [piece("w#{i}", i), piece("s#{i}", 10 + i, waiting: true, holds_bay: true)] }
    short = described_class::Segments.of(many, overnight: false)
    expect(short.size).to be <= 12
    expect(short.sum { |row| row["minutes"] }).to eq(many.sum(&:clock_minutes))
  end

  it "takes as long as the quote's own mixture where one person does it all" do
    expect(rows.sum { |row| row["chance"] }).to be_within(1e-9).of(1)
    expect(rows.size).to be_between(2, described_class::WorkTime::MOST)
    alone = job.plan.job.tasks.all? { |task| task.people == 1 }
    space = NimbleLedger::Risk::OutcomeSpace.new(job.outcomes, house: job.car.house)
    total = job.plan.job.tasks.sum { |task| task.points.mean }
    expected = space.list.sum { |one| one.chance * one.mean } / space.list.sum(&:chance)
    mean = rows.sum { |row| row["chance"] * row["mean_minutes"] }
    cures =
      job.outcomes.multi_piece? ? 60 * job.outcomes.broken_counts.each_with_index.sum { |chance, k| chance * k } : 0
    expect(alone || total < job.plan.job.total.mean).to be(true)
    expect(mean - total).to be_within(0.05).of(expected).or be_within(0.05).of(expected + cures)
  end

  it "puts the outcomes of a large engine together where a board takes no more, and keeps what they come to" do
    history = { "odometer_km" => 190_000, "plugs_changed_km" => 0, "plugs_changed_years" => 15 }
    targets = Engines.targets("GV28", "plug", (1..8).to_a)
    asked = Engines.request(targets, history: history, equipment: Engines::EQUIPMENT, rules: 3)
    documents = NimbleLedger::Documents.new(engine: Engines.engine("GV28"), catalog: Engines.catalog)
    large = NimbleLedger::Estimate::Request.build(asked, documents: documents).job
    space = NimbleLedger::Risk::OutcomeSpace.new(large.outcomes, house: large.car.house)
    expect(space.likely.size).to be > described_class::WorkTime::MOST
    rows = described_class::WorkTime.of(large).rows
    expect(rows.size).to be_between(20, described_class::WorkTime::MOST)
    mean = rows.sum { |row| row["chance"] * row["mean_minutes"] } - large.plan.job.tasks.sum { |task| task.points.mean }
    expect(mean).to be_within(0.5).of(space.list.sum { |one| one.chance * one.mean })
  end

  it "has the same quantiles one by one and as a table, whose every row is found from the one before" do
    duration = described_class::Duration.new(rows)
    one_by_one = Array.new(251) { |rank| duration.quantile((rank + 0.5) / 251) }
    duration.table(251).zip(one_by_one).each { |found, known| expect(found).to be_within(known * 1e-10).of(known) }
    exact = [
      { "chance" => 0.4, "mean_minutes" => 30, "variance" => 0 },
      { "chance" => 0.6, "mean_minutes" => 50, "variance" => 9 }
    ]
    table = described_class::Duration.table(exact, 251)
    expect(table.first(100)).to all(be_within(1e-9).of(30))
    expect(table).to be_frozen
    expect(described_class::Duration.table(exact.map(&:dup), 251)).to equal(table)
  end

  it "is taken by a board, whose middle course ends where half the scenarios do" do
    segments = described_class::Segments.of(pieces, overnight: job.plan.overnight?)
    week = %w[mon tue wed thu fri sat sun].to_h { |day| [day, %w[00:00 24:00]] }
    board =
      described_class::Request.build(
        {
          "format" => "nimble-ledger.day-request",
          "version" => 1,
          "now" => "2026-11-24T08:00",
          "opening" => week,
          "people" => [{ "id" => "ada" }],
          "bays" => [{ "id" => "1" }],
          "jobs" => [
            {
              "id" => "a",
              "number" => 7,
              "person" => "ada",
              "arrives" => "2026-11-24T08:30",
              "segments" => segments,
              "time" => rows
            }
          ]
        }
      )
    stretches = described_class::Course.new(board.board).stretches.first
    expect(stretches.first.from).to eq(30)
    expect(stretches.each_cons(2).all? { |one, other| one.to <= other.from + 1e-6 }).to be(true)
    expect(stretches.last.to).to be_within(1e-6).of(board.answer["jobs"].first["p50"])
  end

  it "stands still over the night, and draws the parts of the work on both days" do
    board =
      described_class::Request.build(
        {
          "format" => "nimble-ledger.day-request",
          "version" => 1,
          "now" => "2026-11-24T16:00",
          "opening" => %w[mon tue wed thu fri].to_h { |day| [day, %w[08:00 17:00]] }.merge("sat" => nil, "sun" => nil),
          "people" => [{ "id" => "ada" }],
          "bays" => [{ "id" => "1" }],
          "jobs" => [
            {
              "id" => "a",
              "number" => 7,
              "person" => "ada",
              "arrives" => "2026-11-24T16:00",
              "segments" => [
                { "kind" => "work", "minutes" => 90 },
                { "kind" => "wait", "minutes" => 20, "holds_bay" => true },
                { "kind" => "work", "minutes" => 10 }
              ],
              "time" => [{ "chance" => 1, "mean_minutes" => 100, "variance" => 0 }]
            }
          ]
        }
      ).board
    stretches = described_class::Course.new(board).stretches.first
    expect(stretches.map { |one| [one.segment, one.kind, one.from, one.to, one.bay] }).to eq(
      [[0, :work, 0, 60, 0], [0, :work, 960, 990, 0], [1, :wait, 990, 1010, 0], [2, :work, 1010, 1020, 0]]
    )
  end
end
