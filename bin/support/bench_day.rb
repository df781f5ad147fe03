# frozen_string_literal: true

require_relative "made_boards"

# Rows of the day (model.md section 11): three people, twelve jobs.
module BenchDay
  def day
    hash = MadeBoards.request(12, people: 3, seed: 12)
    played = median(9) { NimbleLedger::Day::Simulation.new(NimbleLedger::Day::Request.build(hash).board).run }
    row("day: a board of 12 jobs and 3 people played through (25 ms)", played)
    drop_offs = %w[2026-11-24T09:00 2026-11-24T17:15 2026-11-25T08:00 2026-11-25T12:00 2026-11-26T08:00]
    first = median(5) { offers(hash, drop_offs.first(1)) }
    row("day: the first offer on it (300 ms)", first)
    row("day: offers at five drop-offs on it (1,500 ms)", median(3) { offers(hash, drop_offs) })
  end

  def offers(hash, drop_offs)
    ask = { "job" => MadeBoards.asked, "drop_offs" => drop_offs }
    NimbleLedger::Day::Request.build(hash.merge("ask" => ask)).answer["offers"]
  end
end
