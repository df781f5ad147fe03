# frozen_string_literal: true

require_relative "made_boards"

# How true the chances are that 251 drawn-up scenarios give: the same boards on a million days whose times are drawn by
# chance (docs/day.md).
#   bundle exec ruby bin/support/random_days.rb [DAYS]
class RandomDays
  BOARDS = [[1, 1], [3, 1], [6, 2], [9, 3], [12, 3]].freeze

  def initialize(days)
    @days = days
  end

  def run
    puts "| jobs, people | promises | greatest error, points | mean error, points |\n|---|---|---|---|"
    BOARDS.each { |count, people| puts row(count, people) }
  end

  private

  def row(count, people)
    hash = MadeBoards.request(count, people: people, seed: count)
    told = NimbleLedger::Day::Request.build(hash).answer["jobs"].map { |job| job["chance"] }
    errors = told.zip(drawn(hash)).filter_map { |chance, share| chance && ((chance - share).abs * 100) }
    mean = errors.sum / errors.size
    format("| %d, %d | %d | %.2f | %.2f |", count, people, errors.size, errors.max, mean)
  end

  # @return [Array<Float>] shares of days that keep each promise
  def drawn(hash)
    board = NimbleLedger::Day::Request.build(hash).board
    times = hash["jobs"].map { |job| Drawn.new(job["time"], Random.new(job["number"])) }
    rounds = (@days / NimbleLedger::Day::Board::SCENARIOS.to_f).ceil
    kept = Array.new(board.jobs.size, 0)
    rounds.times { count(drawn_board(board, times), kept) }
    kept.map { |number| number / (rounds * NimbleLedger::Day::Board::SCENARIOS.to_f) }
  end

  def count(board, kept)
    result = NimbleLedger::Day::Simulation.new(board).run
    board.jobs.each_with_index { |job, i| kept[i] += result.by(i, job.promise) if job.promise }
  end

  # A time drawn by chance: one of its lognormals, then a draw of that.
  class Drawn
    def initialize(rows, random)
      @random = random
      sum = 0.0
      @parts = rows.map { |row| [sum += row["chance"], *log(row["mean_minutes"], row["variance"])] }
    end

    def draw
      at = @random.rand * @parts.last.first
      _up_to, center, spread = @parts.bsearch { |part| part.first >= at }
      normal = Math.sqrt(-2 * Math.log(1 - @random.rand)) * Math.cos(2 * Math::PI * @random.rand)
      Math.exp(center + (spread * normal))
    end

    private

    def log(mean, variance)
      spread2 = Math.log(1 + (variance / (mean * mean)))
      [Math.log(mean) - (spread2 / 2), Math.sqrt(spread2)]
    end
  end
  private_constant :Drawn

  def drawn_board(board, times)
    jobs =
      board.jobs.each_with_index.map do |job, i|
        totals = Array.new(NimbleLedger::Day::Board::SCENARIOS) { times[i].draw }
        job.dup.tap { |one| one.totals = totals }
      end
    NimbleLedger::Day::Board.new(
      clock: board.clock,
      opening: board.opening,
      people: board.people,
      bays: board.bays,
      jobs: jobs,
      share: board.share,
      last_start: board.last_start
    )
  end
end

RandomDays.new((ARGV.first || 1_000_000).to_i).run if $PROGRAM_NAME == __FILE__
