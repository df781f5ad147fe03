# frozen_string_literal: true

require_relative "spec_helper"
require "net/http"
require "open3"
require "tmpdir"

# bin/start once everything is installed: one at a time, watched, and gone with whoever started it.
RSpec.describe "bin/start" do
  before(:context) do
    @data = Dir.mktmpdir("nimble-start-")
    File.chmod(0o755, @data)
    @port = free_port
    @parent = run_in_background(@port)
    wait_until { up? } or raise "bin/start did not come up: #{File.read("#{@data}/out")}"
  end

  after(:context) do
    end_now(@parent, "TERM")
    FileUtils.rm_rf(@data)
  end

  SCRIPT = File.expand_path("../../bin/support/start.rb", __dir__)

  def free_port = TCPServer.new("127.0.0.1", 0).then { |server| server.addr[1].tap { server.close } }

  def command(*arguments) =
    [
      { "NIMBLE_DATA" => @data, "WEB_PROCESSES" => "2", "RACK_ENV" => nil },
      "bundle",
      "exec",
      "ruby",
      SCRIPT,
      *arguments.map(&:to_s)
    ]

  def run_in_background(port) =
    Process.spawn(*command("--port", port), out: "#{@data}/out", err: %i[child out], pgroup: true)

  # @return [Array(String, Integer)] what it said and its exit code
  def said(*arguments) = Open3.capture2e(*command(*arguments)).then { |text, status| [text, status.exitstatus] }

  def up?
    Net::HTTP.get_response("127.0.0.1", "/api/health", @port).code == "200"
  rescue SystemCallError, IOError, Timeout::Error
    false
  end

  def wait_until(seconds = 120)
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
    until (found = yield) || Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline
      Thread.pass
    end
    found
  end

  # Processes of this start, by what they were called with.
  def processes(pattern)
    Dir["/proc/[0-9]*/cmdline"].filter_map do |path|
      File.dirname(path)[/\d+/].to_i if File.binread(path).tr("\0", " ").match?(pattern)
    rescue SystemCallError
      nil
    end
  end

  def postgres = processes(/postgres -D #{@data}/)

  # The one that listens first, then those it started.
  def web
    masters = processes(/puma.*127\.0\.0\.1:#{@port}\b/)
    masters +
      processes(/puma: cluster worker/).select do |pid|
        masters.include?(File.read("/proc/#{pid}/stat").split(") ").last.split[1].to_i)
      end
  end

  def end_now(pid, signal)
    Process.kill(signal, pid)
    Process.wait(pid)
  rescue SystemCallError
    nil
  end

  it "says where it is, and serves with several processes that are not root and know no owner's password" do
    expect(File.read("#{@data}/out")).to include("http://127.0.0.1:#{@port}").and include("owner@merrow.example")
    expect(web.size).to eq(3)
    web.each do |pid|
      expect(File.stat("/proc/#{pid}").uid).to eq(Process.uid.zero? ? Etc.getpwnam("www-data").uid : Process.uid)
      expect(File.read("/proc/#{pid}/environ")).not_to include("//nimble:")
    end
  end

  it "refuses a second start in the same folder, with words, and the first goes on" do
    text, code = said("--port", free_port)
    expect([text, code]).to match(
      [include("already runs from this folder").and(include("http://127.0.0.1:#{@port}")), 1]
    )
    expect(up?).to be(true)
  end

  {
    "a word for a port" => [%w[--port seven], "is no port"],
    "a port out of range" => [%w[--port 70000], "is no port"],
    "a port that needs rights" => [%w[--port 80], "needs more rights"],
    "an option nobody knows" => [["--fast"], "does not know --fast"],
    "a stray word" => [["now"], "does not know"]
  }.each do |name, (arguments, words)|
    it "answers #{name} plainly" do
      text, code = said(*arguments)
      expect([text, code]).to match([include(words), 1])
      expect(text).not_to match(/\.rb:\d+/)
    end
  end

  it "says so when its folder cannot be used" do
    text, code =
      Open3
        .capture2e({ "NIMBLE_DATA" => "/proc/nowhere" }, "bundle", "exec", "ruby", SCRIPT)
        .then { |said, status| [said, status.exitstatus] }
    expect([text, code]).to match([include("cannot be written"), 1])
  end

  it "starts PostgreSQL again when it falls, and the web processes too" do
    before = postgres
    before.each { |pid| Process.kill("KILL", pid) }
    expect(wait_until { postgres.any? && (postgres & before).empty? && up? }).to be(true)
    master = web.first
    Process.kill("KILL", master)
    expect(wait_until { web.any? && !web.include?(master) && up? }).to be(true)
    expect(File.read("#{@data}/out")).to include("PostgreSQL ended by itself").and include(
            "The web server ended by itself"
          )
  end

  it "logs nothing a customer said" do
    Net::HTTP.get_response("127.0.0.1", "/api/quotes?search=Calloway", @port)
    logs =
      Dir["#{@data}/*.log", "#{@data}/postgres/*.log", "/var/lib/nimble-ledger-*/server.log"]
        .map { |path| File.binread(path) }
        .join
    expect(logs).to include("/api/health")
    expect(logs).not_to match(/Calloway|4-TRE-1M|ferry-at-seven/)
  end

  it "takes its children along, whatever ends it" do
    data, @data = @data, Dir.mktmpdir("nimble-start-")
    port, @port = @port, free_port
    File.chmod(0o755, @data)
    parent = run_in_background(@port)
    expect(wait_until { up? }).to be(true)
    expect([postgres.size, web.size]).to all(be_positive)
    end_now(parent, "KILL")
    expect(wait_until(60) { postgres.empty? && web.empty? }).to be(true)
  ensure
    FileUtils.rm_rf(@data)
    @data = data
    @port = port
  end
end
