# frozen_string_literal: true

require_relative "spec_helper"
require_relative "../../core/spec/support/profiles"
require_relative "../../core/spec/support/tangled_profiles"
require_relative "support/web_process"

# The worst a stranger and a technician can ask of two web processes, while somebody else works. The worst case this
# states: six strangers at a time with bodies of 1 MB; a technician with bursts of 200 at once, each the most tangled
# engine the format allows, a body of 4 MB of nonsense, lists of 100,000 members, or an engine with thousands of faults.
RSpec.describe "other users' answers under the worst requests" do
  HALF_A_SECOND = 0.5

  before(:context) do
    TestServer.db
    @web = 2.times.map { WebProcess.new(TestServer.cluster) }.each(&:ready)
    @ports = @web.map(&:port)
  end

  after(:context) { @web.each(&:kill) }

  def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

  # Seconds of one answer after the other of somebody who reads and changes a quote, while the block runs.
  def answers_meanwhile
    times = []
    over = false
    worker =
      Thread.new do
        until over
          started = clock
          @page = @work.call("GET", "/api/quotes/#{@id}").body
          times << (clock - started)
          started = clock
          status =
            @work.call(
              "PUT",
              "/api/quotes/#{@id}/draft",
              { version: @page["draft"]["version"], content: @page["draft"]["content"] }
            ).status
          times << (clock - started)
          raise "the worker was refused: #{status}" unless status == 200
        end
      end
    yield times
    over = true
    worker.join
    times.sort
  end

  def share(sorted, part) = sorted[((sorted.size - 1) * part).floor]

  before do
    @work = Visitor.new(@ports.first(1)).sign_in("advisor@merrow.example")
    car = @work.call("GET", "/api/vehicles?search=TRE").body["vehicles"].first["id"]
    @id = @work.call("POST", "/api/quotes", { vehicle_id: car }).body["quote"]["id"]
    quiet = answers_meanwhile { |times| Thread.pass until times.size >= 30 }
    # On a machine half as fast everything takes twice as long; this one answers in about a fiftieth of a second.
    @limit = HALF_A_SECOND * [1.0, share(quiet, 0.5) / 0.02].max
  end

  # @param count [Integer] requests, so many at once
  def storm(count, at_once)
    queue = Thread::Queue.new(count.times.to_a).close
    at_once
      .times
      .map { Thread.new { [].tap { |seen| seen << yield(queue.pop) until queue.empty? } } }
      .flat_map(&:value)
      .compact
  end

  it "strangers with large bodies are told to sign in before anything is read into them" do
    body =
      JSON.generate(
        { "format" => "nimble-ledger.engine", "steps" => Array.new(20_000) { { "id" => 7, "label" => nil } } }
      ).ljust(1_000_000)
    statuses = nil
    times =
      answers_meanwhile do
        stranger = Visitor.new(@ports)
        statuses =
          storm(60, 6) do |i|
            Visitor
              .new(@ports.rotate(i || 0))
              .call("POST", %w[/api/estimates /api/engines /api/account/login][(i || 0) % 3], body)
              &.status
          end
        expect(stranger.call("GET", "/api/health").status).to eq(200)
      end
    expect(statuses.uniq - [401, 403, 413]).to be_empty
    expect(share(times, 0.95)).to be < @limit
  end

  it "a technician's bursts of 200 leave the others at work, and memory stays where it is" do
    engine = TangledProfiles.build(3)
    estimate =
      JSON.generate(
        {
          format: "nimble-ledger.estimate-request",
          version: 1,
          engine: engine,
          targets: engine["targets"].first(24).map { |t| t["id"] }
        }
      )
    faulty =
      JSON.generate(
        {
          format: "nimble-ledger.estimate-request",
          version: 1,
          engine: {
            "steps" => Array.new(60_000) { {} }
          },
          targets: Array.new(100_000, "t")
        }
      )
    nonsense = "[#{"1," * 1_900_000}1]"
    bay = Visitor.new(@ports).sign_in("bay@merrow.example")
    bay.call("POST", "/api/estimates", estimate)
    memory = @web.map(&:memory)
    statuses = nil
    times =
      answers_meanwhile do
        statuses =
          storm(200, 40) do |i|
            bay.dup.call("POST", "/api/estimates", [estimate, estimate, faulty, nonsense][(i || 0) % 4])&.status
          end
      end
    expect(statuses.tally).to include(429, 200).and include(400)
    expect(statuses.uniq - [200, 400, 413, 429]).to be_empty
    expect(share(times, 0.95)).to be < @limit
    @web.zip(memory).each { |web, before| expect(web.memory).to be < [before * 2, 450_000].max }
  end

  it "a request whose client is gone is given up, and a server at work can be stopped" do
    engine = TangledProfiles.build(5)
    body =
      JSON.generate(
        {
          format: "nimble-ledger.estimate-request",
          version: 1,
          engine: engine,
          targets: engine["targets"].map { |t| t["id"] }
        }
      )
    third = WebProcess.new(TestServer.cluster).ready
    bay = Visitor.new([third.port]).sign_in("bay@merrow.example")
    requests = 4.times.map { Thread.new { bay.dup.call("POST", "/api/estimates", body) } }
    Patience.until(60) { File.read("/proc/#{third.pid}/stat").split[13].to_i > 150 }
    started = clock
    third.kill("TERM")
    expect(clock - started).to be < 30
    requests.each(&:join)
  end
end
