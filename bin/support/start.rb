# frozen_string_literal: true

require_relative "cluster"
require_relative "../../server/lib/nimble_server"
require "optparse"

# What bin/start does once everything is installed.
class Start
  ROOT = NimbleServer::ROOT

  def initialize(arguments)
    @port = Integer(ENV.fetch("PORT", "4080"))
    OptionParser.new { |options| options.on("--port PORT", Integer) { |port| @port = port } }.parse!(arguments)
  end

  def run
    refuse_busy_port
    FileUtils.mkdir_p("#{ROOT}/data")
    puts "Starting PostgreSQL"
    @cluster = Cluster.new("#{ROOT}/data/postgres").start
    prepare
    serve
  rescue Cluster::Failed => e
    abort "\n#{e.message}"
  ensure
    @cluster&.stop
  end

  private

  def refuse_busy_port
    TCPServer.new("127.0.0.1", @port).close
  rescue Errno::EADDRINUSE
    abort "Port #{@port} is busy: something else is using it, perhaps another bin/start. Stop that, or choose: bin/start --port #{@port + 1}"
  rescue Errno::EACCES
    abort "Port #{@port} needs more rights. Choose a port above 1024: bin/start --port 4080"
  end

  def prepare
    ENV["SESSION_SECRET"] ||= secret
    ENV["RACK_ENV"] ||= "production"
    ENV["DATABASE_URL"] = @cluster.url
    db = NimbleServer::Database.connect
    puts "Bringing the database up to date"
    NimbleServer::Database.migrate(db)
    demo = NimbleServer::Demo.new(db)
    unless NimbleServer::Demo.loaded?(db)
      puts "Loading the demo shops"
      demo.load
    end
    greet(demo)
    db.disconnect
  end

  # Sessions survive a restart: the secret is made once and kept beside the data.
  def secret
    path = "#{ROOT}/data/session_secret"
    File.write(path, SecureRandom.hex(64), perm: 0o600) unless File.exist?(path)
    File.read(path).strip
  end

  def greet(demo)
    puts "", "Nimble Ledger is at http://127.0.0.1:#{@port}", "", "Demo sign-ins (all people, plates and parts are made up):"
    demo.sign_ins.each { |shop, email, role, password| puts format("  %-24<email>s %-18<password>s %<role>s, %<shop>s", email: email, password: password, role: role, shop: shop) }
    puts "", "Ctrl-C stops everything."
  end

  def serve
    puma = Process.spawn("bundle", "exec", "puma", "-b", "tcp://127.0.0.1:#{@port}", "-t", "3:6", "--quiet", "config.ru", chdir: ROOT, out: log, err: log)
    %w[INT TERM].each { |signal| trap(signal) { stop(puma) } }
    Process.wait(puma)
    abort "The web server stopped by itself. Its log is data/web.log." unless @stopping
  end

  def log = @log ||= File.open("#{ROOT}/data/web.log", "a").tap { |file| file.sync = true }

  def stop(puma)
    @stopping = true
    Process.kill("TERM", puma)
  rescue Errno::ESRCH
    nil
  end
end

$stdout.sync = true
Start.new(ARGV).run
