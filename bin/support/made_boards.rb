# frozen_string_literal: true

require_relative "../../core/lib/nimble_ledger"
require_relative "../../core/spec/support/engines"

# Boards of a made-up shop, from the demo engines: for measuring how quick and how true the day's answers are.
module MadeBoards
  WEEK =
    %w[mon tue wed thu fri].to_h { |day| [day, %w[08:00 17:30]] }.merge("sat" => %w[08:30 12:30], "sun" => nil).freeze
  HISTORY = { "odometer_km" => 180_000, "plugs_changed_km" => 40_000, "plugs_changed_years" => 9 }.freeze

  module_function

  # @param count [Integer] of jobs
  # @param people [Integer]
  # @param seed [Integer]
  # @return [Hash] a day request, every job with the promise that its time allows
  def request(count, people:, seed: 1)
    random = Random.new(seed)
    jobs = (0...count).map { |i| job(i, people, random) }
    asked = {
      "format" => NimbleLedger::Day::Request::FORMAT,
      "version" => 1,
      "now" => "2026-11-24T08:00",
      "opening" => WEEK,
      "people" => (1..people).map { |i| { "id" => "person-#{i}" } },
      "bays" => (1..people).map { |i| { "id" => "bay-#{i}" } },
      "jobs" => jobs
    }
    answer = NimbleLedger::Day::Request.build(asked).answer
    asked.merge("jobs" => jobs.zip(answer["jobs"]).map { |one, row| one.merge("promise" => row["ready"]) })
  end

  # A job nobody has a time for yet, as it is asked about.
  def asked(random = Random.new(7)) = job(249, 1, random).except("person", "arrives").merge("id" => "asked")

  def job(number, people, random)
    code = Engines.codes.sample(random: random)
    engine = Engines.engine(code)
    cylinders = engine.cylinders.map(&:number).sample(1 + random.rand(4), random: random)
    targets = Engines.targets(code, %w[plug coil], cylinders)
    work = Engines.answer(code, targets, catalog: Engines.catalog, history: HISTORY, rules: 3).job
    hour = 8 + random.rand(8)
    {
      "id" => "job-#{number}",
      "number" => number,
      "person" => "person-#{1 + random.rand(people)}",
      "arrives" => format("2026-11-%02dT%02d:00", 24 + random.rand(2), hour),
      "segments" => NimbleLedger::Day::Segments.of(work.plan.sequence.pieces, overnight: work.plan.overnight?),
      "time" => NimbleLedger::Day::WorkTime.of(work).rows
    }
  end
end
