# frozen_string_literal: true

require "matrix"

# The effects of a history by solving the normal equations whole: what the ledger's updates must come to.
class NormalEquations
  # @return [Hash] quarter number, engine or technician to its effect
  def self.solve(jobs) = new(jobs).solve

  def initialize(jobs)
    @jobs = jobs
    @quarters = jobs.map { |job| quarter(job) }.then { |all| (all.min..all.max).to_a }
    @names = @quarters + names("engine") + names("technician")
    @at = @names.each_with_index.to_h
    @lhs = Array.new(@names.size) { Array.new(@names.size, 0.0) }
    @rhs = Array.new(@names.size, 0.0)
  end

  def solve
    penalties
    @jobs.each { |job| add(job) }
    @names.zip((Matrix[*@lhs].inverse * Vector[*@rhs]).to_a).to_h
  end

  private

  def names(key) = @jobs.map { |job| job[key] }.uniq.sort
  def quarter(job) = Time.iso8601(job["finished"]).then { |at| (at.year * 4) + ((at.month - 1) / 3) }

  def penalties
    @lhs[0][0] += 1
    (1...@quarters.size).each do |i|
      [i, i - 1].each { |place| @lhs[place][place] += 20 }
      [[i, i - 1], [i - 1, i]].each { |row, column| @lhs[row][column] -= 20 }
    end
    (@quarters.size...@names.size).each { |i| @lhs[i][i] += 5 }
  end

  def add(job)
    places = [quarter(job), job["engine"], job["technician"]].map { |name| @at.fetch(name) }
    spread = Math.log(1 + ((job["sd_minutes"] / job["mean_minutes"])**2))
    ratio = Math.log(job["actual_minutes"] / job["mean_minutes"]) + (spread / 2)
    places.each { |row| @rhs[row] += ratio }
    places.product(places) { |row, column| @lhs[row][column] += 1 }
  end
end
