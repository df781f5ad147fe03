# frozen_string_literal: true

require "net/http"
require "tmpdir"
require_relative "../../../bin/support/cluster"
require_relative "patience"

# What bin/start runs once everything is installed, in a folder of its own: the whole program as its users start it.
class Started
  SCRIPT = File.expand_path("../../../bin/support/start.rb", __dir__)

  attr_reader :data, :port, :pid

  # @param options [Array<String>] as for bin/start
  # @param data [String, nil] a folder another start left; nil: a new one
  def initialize(*options, data: nil)
    @data = data || Dir.mktmpdir("nimble-start-")
    File.chmod(0o755, @data)
    @port = Cluster.free_port
    @pid = Process.spawn(*command("--port", @port, *options), out: "#{@data}/out", err: %i[child out], pgroup: true)
    wait_until { up? } or raise "bin/start did not come up: #{output}"
  end

  # @param script [String] what runs in its folder
  def command(*arguments, script: SCRIPT) =
    [
      { "NIMBLE_DATA" => @data, "WEB_PROCESSES" => "2", "RACK_ENV" => nil, "RECORD_KEYS" => nil, "LINK_SECRET" => nil },
      "bundle",
      "exec",
      "ruby",
      script,
      *arguments.map(&:to_s)
    ]

  def output = File.read("#{@data}/out")
  def address = "http://127.0.0.1:#{@port}"

  def up?
    Net::HTTP.get_response("127.0.0.1", "/api/health", @port).code == "200"
  rescue SystemCallError, IOError, Timeout::Error
    false
  end

  def wait_until(...) = Patience.until(...)

  # Ends it and takes its folder away.
  def close
    stop("TERM")
    FileUtils.rm_rf(@data)
  end

  # @raise [RuntimeError] where it does not end, with what still runs
  def stop(signal)
    Process.kill(signal, @pid)
    return if wait_until { Process.wait(@pid, Process::WNOHANG) }

    left = `ps -o pid,ppid,etimes,stat,wchan:24,args -e`.lines.grep(/#{@pid}|#{@data}/).join
    Process.kill("KILL", @pid)
    raise "bin/start did not end. It said:\n#{output}\nWhat still runs:\n#{left}"
  rescue Errno::ESRCH, Errno::ECHILD
    nil
  end
end
