# frozen_string_literal: true

require_relative "cluster"
require_relative "heads_keeper"
require_relative "supervisor"
require_relative "../../server/lib/nimble_server"
require "optparse"

# What bin/start does once everything is installed: PostgreSQL, the web processes, the post, the learner and the
# scan tool as children, watched and started again when they end by themselves, ended with this process.
class Start
  ROOT = NimbleServer::ROOT
  DATA = ENV.fetch("NIMBLE_DATA", "#{ROOT}/data")
  WEB_USER = "www-data"
  USAGE = "Usage: bin/start [--port PORT] [--host ADDRESS] [--empty]"

  # Only the web process is given room beforehand and compiles (bin/support/setup.sh, fast_ruby): the others need
  # little.
  SMALL =
    ENV
      .keys
      .grep(/\ARUBY_GC_/)
      .to_h { |name| [name, nil] }
      .merge("RUBYOPT" => ENV["RUBYOPT"].to_s.split.grep_v(/\A--yjit/).join(" "))
      .freeze

  # Something the person at the keyboard can mend.
  class Refused < StandardError
  end

  def initialize(arguments)
    @port = port(ENV.fetch("PORT", "4080"))
    OptionParser
      .new do |options|
        options.banner = USAGE
        options.on("--empty", "without the demo shops: the first page opens a shop of your own") { @empty = true }
        options.on("--host ADDRESS", "an address of this machine, for tablets and customers in its network") do |text|
          @host = host(text)
        end
        options.on("--port PORT", "where the pages are served, 1024 to 65535 (4080)") { |text| @port = port(text) }
      end
      .parse!(arguments)
    return unless arguments.any?
    raise Refused, "bin/start does not know #{arguments.first.inspect}. #{USAGE}"
  end

  def run
    lock
    refuse_busy_port
    puts "Starting PostgreSQL"
    @cluster = Cluster.new("#{DATA}/postgres").start
    prepare
    serve
  rescue NimbleServer::AppliedMigrations::Edited => e
    raise Refused, e.message
  ensure
    @keeper&.stop
    @cluster&.stop
  end

  private

  def port(text)
    number = Integer(text.to_s, 10, exception: false)
    unless number&.between?(1, 65_535)
      raise Refused, "#{text} is no port. Choose a whole number from 1024 to 65535: bin/start --port 4080"
    end
    raise Refused, "Port #{number} needs more rights. Choose a port above 1023: bin/start --port 4080" if number < 1024

    number
  end

  # One bin/start at a time in one folder: a second one would take the first one's database away.
  def lock
    FileUtils.mkdir_p(DATA)
    @lock = File.open("#{DATA}/start.lock", File::RDWR | File::CREAT | File::NOFOLLOW, 0o600)
    unless @lock.flock(File::LOCK_EX | File::LOCK_NB)
      raise Refused,
            "Nimble Ledger already runs from this folder (#{File.read(@lock.path).strip}). Use that, or stop it first."
    end

    @lock.truncate(0)
    @lock.write("process #{Process.pid}, http://127.0.0.1:#{@port}")
    @lock.flush
  rescue SystemCallError => e
    raise Refused,
          "The folder #{DATA} cannot be written (#{e.message.split(" @ ").first}). It holds the database and the " \
            "logs: make it writable, then start again."
  end

  # An address this machine has: customers' links carry it, and pages are served there beside the loopback.
  def host(text)
    TCPServer.new(text, 0).close
    text
  rescue SystemCallError, SocketError
    mine = Socket.ip_address_list.reject { |one| one.ipv4_loopback? || one.ipv6? }.map(&:ip_address)
    has = mine.empty? ? "It has none but the loopback." : "It has #{mine.join(", ")}."
    raise Refused, "This machine has no address #{text}. #{has} bin/start --host ADDRESS"
  end

  def refuse_busy_port
    hosts.each { |host| TCPServer.new(host, @port).close }
  rescue Errno::EADDRINUSE
    raise Refused, "Port #{@port} is busy: something else is using it. Choose another: bin/start --port #{@port + 1}"
  end

  def prepare
    ENV["SESSION_SECRET"] ||= secret("session_secret") { SecureRandom.hex(64) }
    ENV[NimbleServer::Features::Record::Keys::VARIABLE] ||= secret("record_keys") { "1 #{SecureRandom.hex(32)}" }
    ENV[NimbleServer::CustomerToken::VARIABLE] ||= secret("link_secret") { SecureRandom.hex(64) }
    ENV[NimbleServer::Features::Jobs::Scan::VARIABLE] ||= free_port.to_s
    let_outside_in
    db = NimbleServer::Database.connect(@cluster.url)
    puts "Bringing the database up to date"
    NimbleServer::Database.migrate(db)
    NimbleServer::Database.let_in(db, @cluster.passwords)
    load_demo(db) unless @empty
    look_at_records(db)
    greet(db)
    db.disconnect
  end

  # The names this server answers to, and the one customers' links carry.
  def let_outside_in
    ENV["PUBLIC_URL"] ||= "http://#{hosts.last}:#{@port}"
    ENV["ALLOWED_HOSTS"] = [ENV.fetch("ALLOWED_HOSTS", nil), @host].compact.join(",") if @host
  end

  # What survives a restart: made once and kept beside the data, outside the database.
  def secret(name)
    path = "#{DATA}/#{name}"
    unless File.exist?(path)
      File.open(path, File::WRONLY | File::CREAT | File::EXCL | File::NOFOLLOW, 0o600) { |file| file.write(yield) }
    end
    File.read(path).strip
  end

  # Once, into an empty database: a shop of somebody's own is never joined by the demo's.
  def load_demo(db)
    return if NimbleServer::Demo.loaded?(db)

    puts "Loading the demo shops"
    NimbleServer::Demo.new(db).load
  end

  # Whoever reaches this machine can sign in to the demo.
  def warn_of_demo
    puts "",
         "The demo's passwords are printed for everybody: whoever reaches #{@host} can sign in. Use --empty for a shop."
  end

  def greet(db)
    warn_of_demo if @host && NimbleServer::Demo.loaded?(db)
    puts "", *hosts.map { |host| "Nimble Ledger is at http://#{host}:#{@port}" }, ""
    if db[:shops].empty?
      puts "There is no shop yet: its first page opens one."
    elsif db[:shops].where(demo: true).any?
      puts "Demo sign-ins (all people, plates and parts are made up):", sign_ins
    end
    puts "--empty changed nothing: #{DATA} holds a shop already." if @empty && db[:shops].any?
    puts "", "Ctrl-C stops everything."
  end

  def sign_ins
    NimbleServer::Demo
      .new(nil)
      .sign_ins
      .map { |shop, email, role, password| "  #{email.ljust(24)} #{password.ljust(18)} #{role}, #{shop}" }
  end

  # What is older than the record is listed in it, signed; and a record that was cut or put back is named.
  def look_at_records(db)
    NimbleServer::Features::Record::Baseline.new(db).take(heads.to_h)
    heads
      .note(db)
      .each do |id|
        name = db[:shops].where(id: id).get(:name) || "shop #{id}"
        puts "", "The record of #{name} does not go on from where it stood: bin/verify says where.", ""
      end
  end

  def heads = @heads ||= NimbleServer::Features::Record::ChainHeads.new("#{DATA}/record_heads")

  def serve
    @listeners = hosts.to_h { |host| ["tcp://#{host}:#{@port}", TCPServer.new(host, @port)] }
    @supervisor = Supervisor.new { |line| puts line }
    %w[INT TERM HUP].each { |signal| trap(signal) { @supervisor.stop } }
    @keeper = HeadsKeeper.new(@cluster.url, heads) { |line| puts line }.start
    keep_children
    @supervisor.run
  end

  # PostgreSQL, on which all stand; the web processes, each of which can answer alone; and what runs beside them.
  def keep_children
    soon = { longest: Supervisor::SHORT }
    @supervisor.keep("PostgreSQL", essential: true, pid: @cluster.pid, **soon) { @cluster.resume }
    Integer(ENV.fetch("WEB_PROCESSES", "2")).times { |i| @supervisor.keep("Web server #{i + 1}", **soon) { web } }
    BESIDE.each { |name, start| @supervisor.keep(name) { send(start) } }
  end

  # What runs beside the web processes, by what it is called. Whatever happens to it, the shop goes on.
  BESIDE = {
    "The post" => :post,
    "The learner" => :learner,
    "The scan tool" => :scan_tool,
    "What takes long" => :long_requests,
    "What prints" => :papers
  }.freeze

  def web
    child(
      {
        "WEB_DATABASE_URL" => @cluster.url("nimble_web"),
        "DOOR_DATABASE_URL" => @cluster.url("nimble_door"),
        "LONG_REQUESTS" => "beside",
        "MALLOC_ARENA_MAX" => "2", # many threads, each with bodies of its own, else keep memory they no longer use
        "MALLOC_MMAP_THRESHOLD_" => "131072", # bytes; what is larger goes back to the system when it is freed
        **@listeners.each_with_index.to_h { |(at, one), i| ["PUMA_INHERIT_#{i}", "#{one.fileno}:#{at}"] }
      },
      ["puma", "-C", "server/puma.rb", *@listeners.keys.flat_map { |at| ["-b", at] }, "--quiet", "config.ru"],
      **@listeners.values.to_h { |one| [one.fileno, one.fileno] }
    )
  end

  # All web processes listen at the same sockets, which are opened here: none of them is needed for another.
  def hosts = ["127.0.0.1", @host].compact.uniq

  # Learns from finished jobs; it needs no session.
  def learner
    child(
      { "WEB_DATABASE_URL" => @cluster.url("nimble_web"), "SESSION_SECRET" => nil, "RECORD_KEYS" => nil, **SMALL },
      %w[ruby server/learner.rb]
    )
  end

  # Works off what would hold the web processes up.
  def long_requests(queue = "long")
    child(
      { "WEB_DATABASE_URL" => @cluster.url("nimble_web"), "DOOR_DATABASE_URL" => @cluster.url("nimble_door"), **SMALL },
      ["ruby", "server/long_requests.rb", queue]
    )
  end

  def papers = long_requests("papers")

  # In place of the tool that reads fault codes; it needs nothing of ours.
  def scan_tool =
    child(
      { "SESSION_SECRET" => nil, "RECORD_KEYS" => nil, "LINK_SECRET" => nil, **SMALL },
      %w[ruby server/scan_tool.rb]
    )

  # @return [Integer] a port nobody listens at
  def free_port
    server = TCPServer.new("127.0.0.1", 0)
    server.addr[1]
  ensure
    server&.close
  end

  # Carries messages; it needs no session, and sees nothing but them.
  def post
    child(
      { "POST_DATABASE_URL" => @cluster.url("nimble_post"), "SESSION_SECRET" => nil, "RECORD_KEYS" => nil, **SMALL },
      %w[ruby server/post.rb]
    )
  end

  # @param files [Hash] open files it is handed
  # @return [Integer] process id
  def child(env, command, files = {})
    Process.spawn(
      { "RACK_ENV" => "production", "HOME" => "/nonexistent", "XDG_CACHE_HOME" => nil }.merge(env),
      *as_nobody,
      "bundle",
      "exec",
      *command,
      chdir: ROOT,
      in: File::NULL,
      out: log,
      err: log,
      pgroup: true,
      **files
    )
  end

  # As root, the web process runs as a user that owns nothing; where that user cannot read this folder it is allowed to
  # read, and nothing more.
  def as_nobody
    return Cluster.setpriv(nil, "TERM") unless Process.uid.zero?

    plain = [
      "setpriv",
      "--pdeathsig",
      "TERM",
      "--reuid",
      WEB_USER,
      "--regid",
      WEB_USER,
      "--clear-groups",
      "--no-new-privs"
    ]
    readable =
      system(
        *plain,
        "--bounding-set=-all",
        "--inh-caps=-all",
        "test",
        "-r",
        "#{ROOT}/config.ru",
        out: File::NULL,
        err: File::NULL
      )
    return *plain, "--bounding-set=-all", "--inh-caps=-all", "--" if readable

    [
      *plain,
      "--bounding-set=-all,+dac_read_search",
      "--inh-caps=-all,+dac_read_search",
      "--ambient-caps=+dac_read_search",
      "--"
    ]
  end

  def log =
    @log ||=
      File
        .open("#{DATA}/web.log", File::WRONLY | File::CREAT | File::APPEND | File::NOFOLLOW, 0o600)
        .tap { |file| file.sync = true }
end

$stdout.sync = true
begin
  Start.new(ARGV).run
rescue Start::Refused, Cluster::Failed, OptionParser::ParseError => e
  abort "\n#{e.message.sub(/\Ainvalid option: (.*)\z/, "bin/start does not know \\1. #{Start::USAGE}")}"
end
