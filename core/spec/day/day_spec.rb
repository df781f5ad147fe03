# frozen_string_literal: true

require_relative "../spec_helper"

# The day, worked out by hand on small boards (2026-11-24 is a Tuesday).
RSpec.describe NimbleLedger::Day do
  WEEK = {
    "mon" => %w[08:00 17:00],
    "tue" => %w[08:00 17:00],
    "wed" => %w[08:00 17:00],
    "thu" => %w[08:00 17:00],
    "fri" => %w[08:00 17:00],
    "sat" => nil,
    "sun" => nil
  }.freeze

  # A job that takes exactly its minutes.
  def job(id, number, *segments, person: "ada", arrives: "2026-11-24T08:00", exactly: nil, **rest)
    rows = segments.map { |one| one.is_a?(Integer) ? { "kind" => "work", "minutes" => one } : one }
    work = rows.sum { |row| row["kind"] == "work" ? row["minutes"] : 0 }
    {
      "id" => id,
      "number" => number,
      "person" => person,
      "arrives" => arrives,
      "segments" => rows,
      "time" => [{ "chance" => 1, "mean_minutes" => exactly || work, "variance" => 0 }]
    }.merge(rest.transform_keys(&:to_s))
  end

  def wait(minutes, **rest) = { "kind" => "wait", "minutes" => minutes }.merge(rest.transform_keys(&:to_s))
  def two(minutes) = { "kind" => "work", "minutes" => minutes, "people" => 2 }

  def request(*jobs, people: ["ada"], bays: 1, **rest)
    {
      "format" => "nimble-ledger.day-request",
      "version" => 1,
      "now" => "2026-11-24T08:00",
      "opening" => WEEK,
      "people" => people.map { |one| one.is_a?(String) ? { "id" => one } : one },
      "bays" => Array.new(bays) { |i| { "id" => "bay #{i}" } },
      "jobs" => jobs
    }.merge(rest.transform_keys(&:to_s))
  end

  def answer(...) = NimbleLedger::Answers.to(JSON.parse(JSON.generate(request(...))))
  def ends(...) = answer(...)["jobs"].to_h { |row| [row["id"], row["p50"]] }

  it "does one job after another, and says when each can be fetched" do
    found = answer(job("a", 1, 50), job("b", 2, 60), bays: 2)
    expect(found["jobs"].map { |row| row.values_at("p50", "p80", "ready") }).to eq(
      [[50, 50, "2026-11-24T09:00"], [110, 110, "2026-11-24T10:00"]]
    )
    expect(found["load"]).to eq([{ "person" => "ada", "date" => "2026-11-24", "minutes" => 110.0, "at_work" => 540.0 }])
  end

  it "fills a wait with another job, unless that is longer than what is left of it" do
    soak = ->(other) { ends(job("a", 1, 30, wait(40), 20), job("b", 2, other), bays: 2) }
    expect(soak.call(40)).to eq("a" => 90, "b" => 70)
    expect(soak.call(41)).to eq("a" => 90, "b" => 131)
  end

  it "does not stand by a car that cools before any work is done" do
    expect(ends(job("a", 1, wait(30), 20), job("b", 2, 60), bays: 2)).to eq("a" => 80, "b" => 60)
  end

  it "keeps the bay where the wait holds it, and frees it where it does not" do
    held = ends(job("a", 1, 30, wait(60, holds_bay: true), 20), job("b", 2, 60, person: "bo"), people: %w[ada bo])
    expect(held).to eq("a" => 110, "b" => 170)
    free = ends(job("a", 1, 30, wait(60), 20), job("b", 2, 60, person: "bo"), people: %w[ada bo])
    expect(free).to eq("a" => 110, "b" => 90)
  end

  it "stands still over lunch, night and closed days, and begins nothing in the last quarter of an hour" do
    lunch = { "id" => "ada", "away" => [{ "from" => "2026-11-24T12:00", "to" => "2026-11-24T12:45" }] }
    expect(ends(job("a", 1, 300), people: [lunch])).to eq("a" => 345)
    found = answer(job("a", 1, 530), job("b", 2, 30), bays: 2, closed: ["2026-11-25"])
    expect(found["jobs"].map { |row| row["ready"] }).to eq(%w[2026-11-24T17:00 2026-11-26T08:30])
    expect(ends(job("a", 1, 525), job("b", 2, 30), bays: 2, last_start_minutes: 0)["b"]).to eq(1440 + 15)
  end

  it "waits until the next opening, strictly after it began" do
    overnight = { "kind" => "wait", "until" => "opening" }
    expect(ends(job("a", 1, 30, overnight, 10))).to eq("a" => 1450)
  end

  it "takes two people where both are free, and one where there is only one" do
    pair = ends(job("a", 1, two(60)), job("b", 2, 30, person: "bo"), people: %w[ada bo], bays: 2)
    expect(pair).to eq("a" => 60, "b" => 90)
    expect(ends(job("a", 1, two(60)))).to eq("a" => 60)
  end

  it "goes on with what is in hand, whoever helps" do
    held = job("a", 1, two(60), bay: "bay 0", in_hand: true, with: "bo", arrives: "2026-11-23T08:00")
    expect(ends(held, job("b", 2, 30, person: "bo"), people: %w[ada bo cy], bays: 2)).to eq("a" => 60, "b" => 90)
  end

  it "waits for parts, and for a bay with what the job needs, the plainest first" do
    found =
      NimbleLedger::Answers.to(
        request(
          job("a", 1, 60, parts_at: "2026-11-24T09:00"),
          job("b", 2, 60, person: "bo", equipment: ["lift"]),
          people: %w[ada bo]
        ).merge("bays" => [{ "id" => "lifted", "equipment" => ["lift"] }, { "id" => "plain" }])
      )
    expect(found["jobs"].map { |row| row["p50"] }).to eq([120, 60])
  end

  it "says with what chance a promise is kept, in scenarios" do
    spread = job("a", 7, 60, promise: "2026-11-24T09:00")
    spread["time"] = [
      { "chance" => 0.5, "mean_minutes" => 50, "variance" => 0 },
      { "chance" => 0.5, "mean_minutes" => 70, "variance" => 0 }
    ]
    row = answer(spread)["jobs"].first
    expect(row["chance"]).to be_within(1.0 / 251).of(0.5)
    expect(row.values_at("p80", "p95")).to all(be_within(1e-9).of(70))
    late = answer(job("a", 1, 60, promise: "2026-11-23T09:00"))["jobs"].first
    expect(late["chance"]).to eq(0.0)
  end

  it "offers the place that keeps the promises, is soonest ready and does least harm" do
    asked = job("new", 9, 60).except("person", "arrives")
    found =
      answer(
        job("a", 1, 120, promise: "2026-11-24T10:00"),
        job("b", 2, 60, promise: "2026-11-24T17:00"),
        bays: 3,
        ask: {
          "job" => asked,
          "drop_offs" => %w[2026-11-24T08:00 2026-11-25T09:00],
          "wanted" => "2026-11-24T12:00"
        }
      )
    expect(found["offers"]).to eq(
      [
        {
          "drop_off" => "2026-11-24T08:00",
          "ready" => "2026-11-24T11:00",
          "person" => "ada",
          "place" => 1,
          "chance" => 1.0,
          "harm" => []
        },
        { "drop_off" => "2026-11-25T09:00", "ready" => nil }
      ]
    )
  end

  it "names the one move that keeps more promises" do
    board =
      request(
        job("long", 1, 300, promise: "2026-11-24T17:00"),
        job("short", 2, 30, promise: "2026-11-24T09:00"),
        bays: 2,
        moves: true
      )
    expect(NimbleLedger::Answers.to(board)["move"]).to eq(
      { "job" => "long", "person" => "ada", "place" => 1, "raises" => 1.0 }
    )
    expect(answer(job("a", 1, 30, promise: "2026-11-24T09:00"), moves: true)["move"]).to be_nil
  end

  it "has no end for what is not done within four weeks" do
    row = answer(job("a", 1, 30, exactly: 40 * 540))["jobs"].first
    expect(row.values_at("p50", "ready")).to eq([nil, nil])
  end

  it "draws scenarios up, not out: every rank once, no two jobs alike" do
    time = [{ "chance" => 1, "mean_minutes" => 60, "variance" => 90 }]
    totals = (1..250).map { |number| NimbleLedger::Day::Board.totals(number, time) }
    expect(totals.map(&:sort).uniq.size).to eq(1)
    expect(totals.uniq.size).to eq(250)
  end

  it "finds the least time that a mixture reaches, between its parts and across a jump" do
    mixed =
      NimbleLedger::Day::Duration.new(
        [
          { "chance" => 0.3, "mean_minutes" => 50, "variance" => 80 },
          { "chance" => 0.2, "mean_minutes" => 90, "variance" => 0 },
          { "chance" => 0.5, "mean_minutes" => 200, "variance" => 900 }
        ]
      )
    values = (1..99).map { |i| mixed.quantile(i / 100.0) }
    expect(values.each_cons(2)).to all(satisfy { |one, next_one| next_one > one - 1e-9 })
    expect([mixed.quantile(0.35), mixed.quantile(0.49)]).to all(be_within(1e-6).of(90))
    expect(mixed.quantile(0.75)).to be_within(1).of(198)
  end

  it "learns from what is done how the rest will go: nothing known, nothing changed; noise believed little" do
    pace = ->(took, variance) do
      NimbleLedger::Day::Pace.new(
        0.12,
        done: took && NimbleLedger::Day::Pace::Done.new(60.0, variance, took),
        left: NimbleLedger::Day::Pace::Left.new(90.0, 100.0)
      )
    end
    expect(pace.call(nil, 0).factor).to be_within(1e-12).of(1)
    expect(pace.call(72.0, 1e-9).factor).to be_within(0.001).of(1.2)
    expect(pace.call(72.0, 900.0).factor).to be_between(1, 1.05)
    half = NimbleLedger::Day::Pace::InHand.new(20.0, 100.0)
    known =
      NimbleLedger::Day::Pace.new(0.0, done: nil, left: NimbleLedger::Day::Pace::Left.new(90.0, 0.0), in_hand: half)
    expect([known.mean_minutes, known.variance]).to eq([72.0, 0.0])
  end

  {
    "two alike modulo 250" => [->(r) { r["jobs"][1]["number"] = 251 }, "/jobs/1/number"],
    "a person nobody knows" => [->(r) { r["jobs"][0]["person"] = "eve" }, "/jobs/0/person"],
    "a bay held twice" => [->(r) { r["jobs"].each { |job| job["bay"] = "bay 0" } }, "/jobs/1/bay"],
    "in hand without a bay" => [->(r) { r["jobs"][0]["in_hand"] = true }, "/jobs/0/in_hand"],
    "with, but not in hand" => [->(r) { r["jobs"][0]["with"] = "ada" }, "/jobs/0/with"],
    "a job without work" => [
      ->(r) { r["jobs"][0]["segments"] = [{ "kind" => "wait", "minutes" => 5 }] },
      "/jobs/0/segments"
    ],
    "chances that do not sum to 1" => [->(r) { r["jobs"][0]["time"][0]["chance"] = 0.9 }, "/jobs/0/time"],
    "no minutes" => [->(r) { r["jobs"][0]["segments"][0]["minutes"] = 0 }, "/jobs/0/segments/0/minutes"],
    "a day that is none" => [->(r) { r["closed"] = ["2026-02-30"] }, "/closed/0"],
    "a shop that never opens" => [->(r) { r["opening"].transform_values! { nil } }, "/opening"],
    "hours the wrong way round" => [->(r) { r["opening"]["mon"] = %w[17:00 08:00] }, "/opening/mon"],
    "equipment in no bay" => [->(r) { r["jobs"][0]["equipment"] = ["lift"] }, "/jobs/0/equipment"],
    "a share of all" => [->(r) { r["share"] = 1 }, "/share"],
    "nobody" => [->(r) { r["people"] = [] }, "/people"],
    "a car to come in a bay" => [
      ->(r) { r["jobs"][0].merge!("bay" => "bay 0", "arrives" => "2026-11-25T08:00") },
      "/jobs/0/arrives"
    ]
  }.each do |what, (change, path)|
    it "refuses #{what}, with the path" do
      asked = JSON.parse(JSON.generate(request(job("a", 1, 60), job("b", 2, 30), bays: 2)))
      change.call(asked)
      expect { NimbleLedger::Answers.to(asked) }.to raise_error(NimbleLedger::InvalidInput) { |error|
        expect(error.details.map { |row| row["path"] }).to include(path)
      }
    end
  end

  # Offers go on from a common beginning, leave out places that are one, give up what cannot be chosen: what is chosen
  # is what all places played out in full give.
  describe "offers on drawn boards" do
    def drawn(random)
      count = 2 + random.rand(4)
      Array.new(count) do |i|
        segments = [20 + random.rand(80)]
        segments += [wait(10 + random.rand(40), holds_bay: random.rand(2) == 1), 15 + random.rand(60)] if random.rand(
          2
        ) == 1
        work = segments.grep(Integer).sum
        row =
          job(
            "j#{i}",
            i + 1,
            *segments,
            person: %w[ada ben][random.rand(2)],
            arrives: "2026-11-24T0#{8 + random.rand(2)}:#{random.rand(6)}0"
          )
        row.merge(
          "time" => [
            { "chance" => 0.8, "mean_minutes" => work, "variance" => work },
            { "chance" => 0.2, "mean_minutes" => work * 1.6, "variance" => 60 }
          ]
        )
      end
    end

    def promised(jobs, random)
      rows = answer(*jobs, people: %w[ada ben], bays: 2)["jobs"]
      jobs.zip(rows).map { |one, row| random.rand(4).zero? ? one : one.merge("promise" => row["ready"]) }
    end

    # @return [Hash, nil] ready, person, place of the choice by the letter of the model
    def chosen(jobs, asked, drop_off, wanted)
      row = asked.merge("arrives" => drop_off, "promise" => wanted).compact
      before = by_id(answer(*jobs, people: %w[ada ben], bays: 2))
      places =
        %w[ada ben].flat_map do |person|
          (0..jobs.count { |one| one["person"] == person }).map { |place| [person, place] }
        end
      pick(places.filter_map { |person, place| tried(jobs, row.merge("person" => person), place, before) }, wanted)
    end

    def by_id(answer) = answer["jobs"].to_h { |row| [row["id"], row] }

    # At a place of its person's list.
    def inserted(jobs, row, place)
      list = jobs.select { |one| one["person"] == row["person"] }
      jobs.dup.insert(place < list.size ? jobs.index(list[place]) : jobs.size, row)
    end

    # @return [Hash, nil] nil where a promise is broken
    def tried(jobs, row, place, before)
      after = by_id(answer(*inserted(jobs, row, place), people: %w[ada ben], bays: 2))
      moved = before.filter_map { |id, one| [one["chance"], after[id]["chance"]] if one["chance"] }
      return nil if moved.any? { |was, now| now < [was, 0.8].min - 1e-9 }

      lost = moved.sum { |was, now| [was - now, 0].max * 251 }.round
      mine = after[row["id"]].slice("ready", "chance").transform_keys(&:to_sym)
      { **mine, lost: lost, person: %w[ada ben].index(row["person"]), place: place }
    end

    def pick(tried, wanted)
      tried = tried.select { |one| wanted ? one[:chance].positive? : one[:ready] }
      return nil if tried.empty?

      most = tried.map { |one| one[:chance] }.max if wanted
      soonest = tried.map { |one| Time.iso8601("#{one[:ready]}:00Z") }.min unless wanted
      near = tried.select { |one| wanted ? one[:chance] == most : Time.iso8601("#{one[:ready]}:00Z") <= soonest + 1800 }
      near.min_by { |one| [one[:lost], one[:ready] || "9", one[:person], -one[:place]] }
    end

    it "choose as all places in full would" do
      8.times do |seed|
        random = Random.new(seed)
        jobs = promised(drawn(random), random)
        asked = drawn(random).first.except("person", "arrives").merge("id" => "asked", "number" => 90)
        drop_offs = %w[2026-11-24T08:00 2026-11-24T10:30 2026-11-25T08:00]
        wanted = "2026-11-24T13:00" if seed % 3 == 0
        ask = { "job" => asked, "drop_offs" => drop_offs, "wanted" => wanted }.compact
        found = answer(*jobs, people: %w[ada ben], bays: 2, ask: ask)["offers"]
        expected = drop_offs.map { |at| chosen(jobs, asked, at, wanted) }
        say = ->(row) { row && [row["ready"], row["person"], row["place"]] }
        wish = ->(row) { row && [row[:ready], %w[ada ben][row[:person]], row[:place]] }
        expect([seed, found.map { |row| row["person"] ? say.call(row) : nil }]).to eq([seed, expected.map(&wish)])
      end
    end
  end
end
