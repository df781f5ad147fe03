# frozen_string_literal: true

require_relative "spec_helper"
require_relative "support/web_process"

# What happens in one web process is told to whoever looks through another, at once, and after the database was away.
RSpec.describe NimbleServer::LiveUpdates do
  before(:context) do
    @cluster = TestServer.demo_cluster
    @db = NimbleServer::Database.connect(@cluster.url)
    @web = Array.new(2) { WebProcess.new(@cluster) }.each(&:ready)
    @writer = Visitor.new([@web[0].port]).sign_in("advisor@merrow.example")
    @reader = Visitor.new([@web[1].port]).sign_in("second@merrow.example")
  end

  after(:context) do
    @web.each(&:kill)
    @db.disconnect
    @cluster.stop
  end

  # An open stream at the second process.
  # @return [TCPSocket]
  def stream(cookie)
    socket = TCPSocket.new("127.0.0.1", @web[1].port)
    socket.write("GET /api/events HTTP/1.1\r\nHost: 127.0.0.1:#{@web[1].port}\r\nCookie: #{cookie}\r\n\r\n")
    socket
  end

  # Whether these words come within so many seconds.
  def hears?(socket, words, seconds: 20)
    heard = +""
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
    until heard.include?(words)
      left = deadline - Process.clock_gettime(Process::CLOCK_MONOTONIC)
      return false unless left.positive? && socket.wait_readable(left)

      heard << socket.read_nonblock(4_096, exception: false).to_s
    end
    true
  end

  def save
    car = @writer.insist("GET", "/api/vehicles?search=TRE").body["vehicles"].first["id"]
    page = @writer.insist("POST", "/api/quotes", { vehicle_id: car }).body
    id = page["quote"]["id"]
    content = page["draft"]["content"]
    scope = content["scopes"].first.merge("cylinders" => [5])
    priced =
      @writer.insist("PUT", "/api/quotes/#{id}/draft", { version: 1, content: content.merge("scopes" => [scope]) }).body
    body = { version: priced["draft"]["version"], priced_with: priced["priced_with"] }
    @writer.insist("POST", "/api/quotes/#{id}/revisions", body)
  end

  it "tells the other process's readers of the shop, and goes on after the database was away" do
    socket = stream(@reader.cookie)
    expect(hears?(socket, "retry:")).to be(true)
    save
    expect(hears?(socket, "event: changed\ndata: quotes")).to be(true)
    @cluster.crash
    @cluster.resume
    @web.each(&:ready)
    # whoever may have missed something is told to look
    expect(hears?(socket, "event: changed", seconds: 40)).to be(true)
    save
    expect(hears?(socket, "event: changed")).to be(true)
  ensure
    socket&.close
  end

  it "tells another shop nothing" do
    stranger = Visitor.new([@web[1].port]).sign_in("owner@hollow.example")
    socket = stream(stranger.cookie)
    expect(hears?(socket, "retry:")).to be(true)
    save
    expect(hears?(socket, "event: changed", seconds: 3)).to be(false)
  ensure
    socket&.close
  end

  it "holds none of the server's threads: more streams than threads, and pages are still served" do
    sockets = Array.new(20) { |i| stream(i.even? ? @reader.cookie : @writer.cookie) }
    expect(sockets.last(4)).to all(satisfy { |socket| hears?(socket, "retry:") })
    expect(@reader.insist("GET", "/api/counter").status).to eq(200)
  ensure
    sockets&.each(&:close)
  end
end
