# frozen_string_literal: true

require_relative "spec_helper"
require "open3"
require_relative "../../bin/support/supervisor"
require_relative "support/started"
require_relative "support/web_process"

# bin/start once everything is installed: one at a time, watched, and gone with whoever started it.
RSpec.describe "bin/start" do
  before(:context) { @start = Started.new }
  after(:context) { @start.close }

  # @return [Array(String, Integer)] what it said and its exit code
  def said(*arguments) = Open3.capture2e(*@start.command(*arguments)).then { |text, status| [text, status.exitstatus] }

  # Processes of this start, by what they were called with.
  def processes(pattern)
    Dir["/proc/[0-9]*/cmdline"].filter_map do |path|
      File.dirname(path)[/\d+/].to_i if File.binread(path).tr("\0", " ").match?(pattern)
    rescue SystemCallError
      nil
    end
  end

  def postgres = processes(/postgres -D #{@start.data}/)

  def web = processes(/puma.*127\.0\.0\.1:#{@start.port}\b/)

  it "says where it is, and serves with several processes that are not root and know no owner's password" do
    expect(@start.output).to include(@start.address).and include("owner@merrow.example")
    expect(web.size).to eq(2)
    web.each do |pid|
      expect(File.stat("/proc/#{pid}").uid).to eq(Process.uid.zero? ? Etc.getpwnam("www-data").uid : Process.uid)
      expect(File.read("/proc/#{pid}/environ")).not_to include("//nimble:")
    end
  end

  it "works off what takes long beside the web processes, as they would" do
    owner = Visitor.new([@start.port]).sign_in("owner@merrow.example")
    rows = "finished;engine\n2026-05-04;GV28\n"
    past = owner.call("POST", "/api/ledger/past/report", { text: rows })
    library = owner.call("POST", "/api/library/report", { archive: "AAAA" })
    garage = owner.call("GET", "/api/garage/export")
    expect([past.status, library.status, garage.status]).to eq([200, 422, 200])
    expect(past.body["rows"].size).to eq(1)
  end

  it "lets the record be verified beside it, and a paper's head be looked up" do
    verify = ->(*words) do
      command = @start.command(*words, script: File.expand_path("../../bin/support/verify.rb", __dir__))
      Open3.capture2e(*command).then { |text, status| [text, status.exitstatus] }
    end
    text, code = verify.call
    expect([text, code]).to match([/Merrow Quay Garage: holds \(43 entries, 9 saved revisions, head 43 \h{12}\)/, 0])
    head = text[/head (43 \h{12})/, 1].split
    expect(verify.call("--has", *head)).to match([include("stands in the record of Merrow Quay Garage"), 0])
    expect(verify.call("--has", "43", "0" * 12)).to match([include("No record here has"), 1])
    expect(verify.call("--has", "six", "now")).to match([include("Usage: bin/verify"), 1])
    expect(@start.up?).to be(true)
  end

  it "refuses a second start in the same folder, with words, and the first goes on" do
    text, code = said("--port", Cluster.free_port)
    expect([text, code]).to match([include("already runs from this folder").and(include(@start.address)), 1])
    expect(@start.up?).to be(true)
  end

  {
    "a word for a port" => [%w[--port seven], "is no port"],
    "a port out of range" => [%w[--port 70000], "is no port"],
    "a port that needs rights" => [%w[--port 80], "needs more rights"],
    "an address that is not this machine's" => [%w[--host 192.0.2.77], "has no address 192.0.2.77"],
    "an option nobody knows" => [["--fast"], "does not know --fast"],
    "a stray word" => [["now"], "does not know"]
  }.each do |name, (arguments, words)|
    it "answers #{name} plainly" do
      text, code = said(*arguments)
      expect([text, code]).to match([include(words), 1])
      expect(text).not_to match(/\.rb:\d+/)
    end
  end

  it "serves under an address tablets and customers reach as well, and puts it into their links" do
    started = Started.new("--host", "127.0.0.9")
    expect(File.read("#{started.data}/out")).to include("http://127.0.0.9:#{started.port}")
    expect(Net::HTTP.get_response(URI("http://127.0.0.9:#{started.port}/readyz")).code).to eq("200")
    expect(started.up?).to be(true)
  ensure
    started&.close
  end

  it "says so when its folder cannot be used" do
    text, code =
      Open3
        .capture2e({ "NIMBLE_DATA" => "/proc/nowhere" }, "bundle", "exec", "ruby", Started::SCRIPT)
        .then { |said, status| [said, status.exitstatus] }
    expect([text, code]).to match([include("cannot be written"), 1])
  end

  it "starts PostgreSQL again when it falls; with one web process gone the other answers" do
    before = postgres
    before.each { |pid| Process.kill("KILL", pid) }
    expect(@start.wait_until { postgres.any? && (postgres & before).empty? && @start.up? }).to be(true)
    gone = web.first
    Process.kill("KILL", gone)
    expect(@start.up?).to be(true)
    expect(@start.wait_until { web.size == 2 && !web.include?(gone) }).to be(true)
    expect(@start.output).to include("PostgreSQL ended by itself").and include("Web server 1 ended by itself")
  end

  it "goes on serving whatever falls beside it, as often as it falls" do
    learner = -> { processes(%r{ruby server/learner\.rb}).select { |pid| ours?(pid) } }
    # falls that come soon after the database's are not counted, however many they are
    counted = -> { @start.output.include?("The learner ended by itself; starting it again in 2 s") }
    last = Process.clock_gettime(Process::CLOCK_MONOTONIC) + (4 * Supervisor::EXCUSED)
    until counted.call || Process.clock_gettime(Process::CLOCK_MONOTONIC) > last
      pids = @start.wait_until { learner.call.first && learner.call }
      pids.each { |pid| kill(pid) }
      @start.wait_until { (learner.call & pids).empty? }
    end
    expect([@start.up?, postgres.any?, web.size]).to eq([true, true, 2])
    expect(counted.call).to be(true)
  end

  def kill(pid)
    Process.kill("KILL", pid)
  rescue Errno::ESRCH
    nil
  end

  # A process that is gone by now is nobody's.
  def ours?(pid)
    File.read("/proc/#{pid}/stat").split(") ").last.split[1].to_i == @start.pid
  rescue SystemCallError
    false
  end

  it "keeps the heads of the records outside the database, and names a record that was cut" do
    path = "#{@start.data}/record_heads"
    expect(File.readlines(path).size).to eq(2)
    expect(File.stat(path).mode & 0o777).to eq(0o600)
  end

  it "logs nothing a customer said" do
    Net::HTTP.get_response("127.0.0.1", "/api/quotes?search=Calloway", @start.port)
    logs =
      Dir["#{@start.data}/*.log", "#{@start.data}/postgres/*.log", "/var/lib/nimble-ledger-*/server.log"]
        .map { |path| File.binread(path) }
        .join
    expect(logs).to include("/api/health")
    expect(logs).not_to match(/Calloway|4-TRE-1M|ferry-at-seven/)
  end

  it "takes its children along, whatever ends it" do
    first, @start = @start, Started.new
    expect([postgres.size, web.size]).to all(be_positive)
    @start.stop("KILL")
    expect(@start.wait_until(60) { postgres.empty? && web.empty? }).to be(true)
    @start = Started.new("--empty", data: @start.data)
    expect(@start.output).to include("--empty changed nothing").and include("owner@merrow.example")
  ensure
    @start.close
    @start = first
  end
end
