# frozen_string_literal: true

require "net/http"
require_relative "test_server"

# A web process of its own, as bin/start makes them, to be killed and started again.
class WebProcess
  attr_reader :port, :pid

  # @param cluster [Cluster] prepared
  def initialize(cluster)
    @cluster = cluster
    @port = Cluster.free_port
    start
  end

  def start
    env = {
      "RACK_ENV" => "production",
      "WEB_PROCESSES" => "0",
      "WEB_DATABASE_URL" => @cluster.url("nimble_web"),
      "DOOR_DATABASE_URL" => @cluster.url("nimble_door")
    }
    @pid =
      Process.spawn(
        env,
        *Cluster.setpriv(nil, "KILL"),
        "bundle",
        "exec",
        "puma",
        "-C",
        "server/puma.rb",
        "-b",
        "tcp://127.0.0.1:#{@port}",
        "--quiet",
        "config.ru",
        chdir: NimbleServer::ROOT,
        in: File::NULL,
        out: File::NULL,
        err: File::NULL
      )
    self
  end

  def kill(signal = "KILL")
    Process.kill(signal, @pid)
    Process.wait(@pid)
  end

  def up?
    Net::HTTP.start("127.0.0.1", @port, open_timeout: 1, read_timeout: 5) do |http|
      http.get("/api/health").code == "200"
    end
  rescue SystemCallError, Timeout::Error, IOError
    false
  end

  # @return [WebProcess] once it answers
  def ready
    Patience.until { up? } or raise "the web process at #{@port} does not answer"

    self
  end

  # @return [Integer] kilobytes of memory it holds
  def memory = File.read("/proc/#{@pid}/status")[/VmRSS:\s+(\d+)/, 1].to_i
end

# Somebody at one of several web processes, over the network, with a cookie and a token.
class Visitor
  Answer = Struct.new(:status, :body)

  attr_reader :cookie

  # @param ports [Array<Integer>] tried in turn
  def initialize(ports)
    @ports = ports
    @turn = 0
    @cookie = nil
  end

  # A connection that broke with the database fails one request: insisted on.
  def sign_in(email)
    refresh
    insist("POST", "/api/account/login", { email: email, password: TestServer::PASSWORD })
    refresh
    self
  end

  # Somebody else at the same processes, signed in nowhere.
  def stranger = Visitor.new(@ports)

  def refresh = @token = insist("GET", "/api/session").body["csrf"]

  # @param body [Hash, String, nil]
  # @return [Answer, nil] nil when nobody answered
  def call(verb, path, body = nil, headers = {})
    text = body.is_a?(Hash) ? JSON.generate(body) : body
    request =
      Net::HTTPGenericRequest.new(
        verb,
        !text.nil?,
        true,
        path,
        { "Content-Type" => "application/json", "X-CSRF-Token" => @token.to_s, "Cookie" => @cookie.to_s }.merge(headers)
      )
    request.body = text if text
    keep(Net::HTTP.start("127.0.0.1", port, open_timeout: 2, read_timeout: 60) { |http| http.request(request) })
  rescue SystemCallError, Timeout::Error, IOError, JSON::ParserError
    nil
  end

  # Again and again, at one process after the other, until somebody answers with something other than "later".
  def insist(verb, path, body = nil, headers = {})
    loop do
      answer = call(verb, path, body, headers)
      return answer if answer && answer.status < 500 && answer.status != 429

      @turn += 1
      sleep Patience::PAUSE
    end
  end

  private

  def port = @ports[@turn % @ports.size]

  def keep(response)
    mine = response.get_fields("set-cookie").to_a.map { |one| one.split(";").first }
    @cookie = mine.find { |one| one.start_with?("nimble=") } || @cookie
    Answer.new(
      response.code.to_i,
      response["content-type"].to_s.include?("json") ? JSON.parse(response.body) : response.body
    )
  end
end
