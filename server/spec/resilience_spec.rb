# frozen_string_literal: true

require_relative "spec_helper"

# The database goes away and comes back; nothing acknowledged is lost and nothing is half-saved.
RSpec.describe "when the database goes away" do
  before(:context) do
    @cluster = TestServer.demo_cluster(durable: true)
    @db = NimbleServer::Database.connect(@cluster.url)
  end

  # A process of its own for each: one that has lost its connections says so once to whoever comes next.
  before { @app = TestServer.build(@cluster) }

  after(:context) do
    @db.disconnect
    @cluster.stop
  end

  def client = Client.new(@app).tap { |c| c.sign_in("advisor@merrow.example") }

  it "answers plainly while it is away, comes back by itself, and keeps every acknowledged save" do
    desk = client
    saved = 4.times.map { |i| save(desk, [i + 1]) }
    @cluster.crash
    status, body = quietly { desk.call(:get, "/api/quotes") }
    expect(status).to be >= 500
    expect(body["error"]["message"]).to include("try again")
    customer = Client.new(@app)
    quietly { customer.get("/y/#{"a" * 43}") }
    expect([customer.last_response.status, customer.last_response.body]).to match(
      [503, a_string_including("Just a moment")]
    )
    @cluster.resume
    eventually { desk.call(:get, "/api/quotes").first == 200 }
    @db.disconnect
    totals = @db[:quote_revisions].select_hash(:quote_id, :total_cents)
    saved.each { |id, cents| expect(totals[id]).to eq(cents) }
    half =
      @db[:quote_revisions].left_join(:quote_scopes, revision_id: :id, shop_id: :shop_id).where(
        Sequel[:quote_scopes][:id] => nil
      )
    expect(half.count).to eq(0)
  end

  # As many connections as a busy process has.
  def several_connections(pool)
    all_in = Queue.new
    let_go = Queue.new
    crew = Array.new(4) { Thread.new { pool.synchronize { (all_in << true) && let_go.pop } } }
    4.times { all_in.pop }
    4.times { let_go << true }
    crew.each(&:join)
  end

  it "says so once for each pool of connections when it is back, however many there were" do
    desk = client
    pools = Sequel::DATABASES.last(2)
    pools.each { |pool| several_connections(pool) }
    @cluster.crash
    @cluster.resume
    answers = quietly { Array.new(10) { desk.call(:get, "/api/quotes").first } }
    expect(answers - [200, 503]).to eq([])
    expect(answers.count(503)).to be <= pools.size
    expect(answers.last).to eq(200)
  end

  it "starts a process while it is away, which answers plainly, and serves once it is back" do
    @cluster.crash
    app = quietly { TestServer.build(@cluster) }
    late = Client.new(app)
    status, body = quietly { late.call(:get, "/api/health") }
    expect([status, body["error"]["code"]]).to eq([503, "database_away"])
    @cluster.resume
    eventually { quietly { late.call(:get, "/api/health") }.first == 200 }
    expect(late.call(:get, "/api/health").first).to eq(200)
  end

  def save(desk, cylinders)
    page = desk.start_quote
    status, saved = desk.save(page["quote"]["id"], desk.choose(page, cylinders).last)
    expect(status).to eq(201)
    [page["quote"]["id"], saved["revision"]["total_cents"]]
  end

  def quietly
    before = $stderr
    $stderr = StringIO.new
    yield
  ensure
    $stderr = before
  end

  def eventually(&)
    quietly { Patience.until(60, &) }
  end
end
