# frozen_string_literal: true

require_relative "spec_helper"
require_relative "support/started"
require_relative "support/web_process"

# The whole program as bin/start runs it, while its children of every kind are killed: the shop goes on, nothing that
# was acknowledged is lost or doubled, and it is up at the end. Short here; START_STORM_KILLS=60 makes a long one.
RSpec.describe "bin/start in a storm" do
  kills = Integer(ENV.fetch("START_STORM_KILLS", "8"))
  longest_silence = 10 # seconds

  before(:context) { @start = Started.new }
  after(:context) { @start.close }

  KINDS = {
    "a web process" => /puma.*127\.0\.0\.1:/,
    "the post" => %r{ruby server/post\.rb},
    "the learner" => %r{ruby server/learner\.rb},
    "the scan tool" => %r{ruby server/scan_tool\.rb},
    "what takes long" => %r{ruby server/long_requests\.rb},
    "PostgreSQL" => /postgres -D/,
    "a backend" => /postgres: nimble_web/
  }.freeze

  # Processes of this start: its children, and PostgreSQL's.
  def ours(pattern)
    ground = children(@start.pid)
    among = ground + ground.flat_map { |pid| children(pid) }
    among.select { |pid| line(pid).match?(pattern) }
  end

  def children(pid)
    File.read("/proc/#{pid}/task/#{pid}/children").split.map(&:to_i)
  rescue SystemCallError
    []
  end

  def line(pid)
    File.binread("/proc/#{pid}/cmdline").tr("\0", " ")
  rescue SystemCallError
    ""
  end

  def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)

  # Asks all the time, and keeps the longest time without an answer.
  def watch
    Thread.new do
      last = now
      until @over
        last = now if @start.up?
        @silence = [@silence, now - last].max
        sleep Patience::PAUSE
      end
    end
  end

  def saver(told)
    Thread.new do
      visitor = Visitor.new([@start.port]).sign_in("advisor@merrow.example")
      car = visitor.insist("GET", "/api/vehicles?search=TRE").body["vehicles"].first["id"]
      told << save(visitor, car) until @over
    end
  end

  def save(visitor, car)
    page = visitor.insist("POST", "/api/quotes", { vehicle_id: car }, "Idempotency-Key" => SecureRandom.uuid).body
    id = page["quote"]["id"]
    content = page["draft"]["content"]
    scopes = [content["scopes"].first.merge("cylinders" => [5], "works" => ["plug"])]
    given = { version: page["draft"]["version"], content: content.merge("scopes" => scopes) }
    stored = visitor.insist("PUT", "/api/quotes/#{id}/draft", given)
    shown = stored.status == 200 ? stored.body : visitor.insist("GET", "/api/quotes/#{id}").body
    body = { version: shown["draft"]["version"], priced_with: shown["priced_with"] }
    saved = visitor.insist("POST", "/api/quotes/#{id}/revisions", body, "Idempotency-Key" => SecureRandom.uuid)
    raise "not saved: #{saved.status} #{saved.body}" unless saved.status == 201

    [id, saved.body["revision"]["total_cents"]]
  end

  it "goes on" do
    @silence = 0
    told = Thread::Queue.new
    threads = [watch, @saver = saver(told)]
    KINDS
      .keys
      .cycle
      .first(kills)
      .each do |kind|
        before = told.size
        @start.wait_until { (ours(KINDS.fetch(kind)).any? && told.size > before) || !@saver.alive? }
        pid = ours(KINDS.fetch(kind)).first
        warn "#{Time.now} #{kind} #{pid} told #{told.size} silence #{@silence.round(1)}" if ENV["STORM_TALK"]
        Process.kill("KILL", pid) if pid
      end
    before = told.size
    @start.wait_until { told.size > before || !@saver.alive? }
    @over = true
    threads.each(&:join)
    list = told.size.times.map { told.pop }
    expect(list.size).to be >= kills
    expect(kept(list.map(&:first))).to match_array(list)
    expect(@start.up?).to be(true)
    expect(@silence).to be < longest_silence * Float(ENV.fetch("SLOWER", "2"))
    expect(KINDS.values.map { |pattern| @start.wait_until { ours(pattern).any? } }).to all(be(true))
  end

  def kept(ids)
    cluster = Cluster.new("#{@start.data}/postgres").attach
    db = NimbleServer::Database.connect(cluster.url)
    keys = NimbleServer::Features::Record::Keys.new(File.read("#{@start.data}/record_keys"))
    expect(NimbleServer::Features::Record::Verification.new(db, keys).run.map(&:fault)).to all(be_nil)
    db[:quote_revisions].where(quote_id: ids).select_map(%i[quote_id total_cents])
  ensure
    db&.disconnect
  end
end
