# frozen_string_literal: true

require_relative "spec_helper"

# Nothing is a dead end: a yes kept by mistake, a job the customer calls off, a quote nobody wants in sight. What was
# said stays in the record; nothing follows from it any more.
RSpec.describe "What is taken back" do
  before(:context) do
    @cluster = TestServer.demo_cluster
    @db = NimbleServer::Database.connect(@cluster.url)
    @app = TestServer.build(@cluster)
    @advisor = Client.new(@app).tap { |client| client.sign_in("advisor@merrow.example") }
    @technician = Client.new(@app).tap { |client| client.sign_in("bay@merrow.example") }
    @customer = Client.new(@app)
  end

  after(:context) do
    @db.disconnect
    @cluster.stop
  end

  def post(path, body = {}) = @advisor.call(:post, path, body)
  def counter = @advisor.call(:get, "/api/counter").last
  def acts = @db[:record_entries].order(:seq).map { |row| JSON.parse(row[:bytes]) }
  def stage(id) = @advisor.call(:get, "/api/quotes").last["quotes"].find { |row| row["id"] == id }

  # Cylinders as scopes of a new quote, saved and sent.
  # @return [Array] id of the quote, the offer
  def offered(*scopes, channel: "text", plate: "4-TRE-1M")
    page = @advisor.start_quote(plate)
    id = page["quote"]["id"]
    add(id, scopes)
    [id, offer(id, channel: channel)]
  end

  def add(id, scopes)
    page = @advisor.call(:get, "/api/quotes/#{id}").last
    content = page["draft"]["content"]
    made = scopes.map { |numbers| content["scopes"].first.merge("cylinders" => numbers, "works" => %w[plug coil]) }
    given = { version: page["draft"]["version"], content: content.merge("scopes" => made) }
    expect(@advisor.save(id, @advisor.call(:put, "/api/quotes/#{id}/draft", given).last).first).to eq(201)
  end

  def offer(id, channel: "text", revision: 1)
    given = { revision: revision, channel: channel, recipient: "Ines Calloway", address: "555 0101", supersede: true }
    post("/api/quotes/#{id}/offers", given).last["offers"].first
  end

  def answer(offer, said = "yes", position: 0, **rest)
    body = { position: position, answer: said, how: "phone", name: "Ines Calloway", **rest }
    body[:limit_cents] = offer["scopes"][position]["limit_cents"] if said == "yes"
    post("/api/offers/#{offer["id"]}/answers", body).last
  end

  def strike(offer, reason: "wrong row", position: 0) =
    post("/api/offers/#{offer["id"]}/strike", { position: position, reason: reason })

  def begin_work(job)
    mark = { id: SecureRandom.hex(4), at: Time.now.utc.iso8601(3), kind: "start" }
    _, body = @technician.call(:post, "/api/jobs/#{job}/marks", { device: "tablet-1", marks: [mark] })
    expect(body["refused"]).to eq([])
  end

  def page_of(offer)
    @customer.get(URI(offer["link"]).path)
    @customer.last_response.body
  end

  describe "a yes that was given by mistake" do
    it "is struck with both names and the reason, told to the customer, and the quote can be offered again" do
      id, sent = offered([5])
      job = answer(sent)["job"]
      status, page = strike(sent)
      expect(status).to eq(200)
      scope = page["offers"].first["scopes"].first
      expect(scope["answer"]).to include("name" => "Ines Calloway", "answer" => "yes")
      expect(scope["struck"]).to include("reason" => "wrong row", "by" => "Jory Pellam")
      expect([scope["state"], page["quote"]["status"]]).to eq(%w[superseded open])
      expect(page["job"]["called_off"]).to include("reason" => "wrong row")
      struck = acts.reverse.find { |act| act["kind"] == "yes-struck" }
      expect(struck["body"]).to include("name" => "Ines Calloway", "taken_by" => "Jory Pellam", "reason" => "wrong row")
      expect(struck["actor"]["name"]).to eq("Jory Pellam")
      letter = @db[:messages].where(offer_id: sent["id"], kind: "struck").first
      expect(letter[:body]).to include("wrong row", "{link}")
      expect(page_of(sent)).to include("was taken back by us: wrong row")
      expect(@technician.call(:get, "/api/jobs").last["jobs"].map { |row| row["id"] }).not_to include(job["id"])

      expect(@technician.call(:get, "/api/jobs/#{job["id"]}").last["error"]["code"]).to eq("nothing_agreed")
      expect(stage(id)["stage"]).to eq("saved")
      expect(counter["unsent"].map { |row| row["id"] }).to include(id)

      again = offer(id)
      expect(again).to include("supplement" => false)
      taken = answer(again)["job"]
      expect(taken).to include("id" => job["id"], "called_off" => nil)
      expect(taken["agreed_cents"]).to eq(again["scopes"].first["total_cents"])
      expect(@technician.call(:get, "/api/jobs/#{job["id"]}").first).to eq(200)
    end

    it "leaves the other one it stood beside: amount, limit and card are that one's alone" do
      id, sent = offered([5], [1])
      first = answer(sent)["job"]
      answer(sent, position: 1)
      before = @advisor.call(:get, "/api/jobs/#{first["id"]}").last["sheet"]["plugs"].size
      page = strike(sent, position: 1).last
      expect(page["job"].slice("agreed_cents", "limit_cents", "title")).to eq(
        first.slice("agreed_cents", "limit_cents", "title")
      )
      expect(page["job"]["called_off"]).to be_nil
      expect(@advisor.call(:get, "/api/jobs/#{first["id"]}").last["sheet"]["plugs"].size).to be < before
      expect(stage(id)["stage"]).to eq("agreed")
    end

    it "is not struck from under work that has begun on it, nor twice, nor where there is none" do
      _, sent = offered([5])
      expect(strike(sent).first).to eq(409)
      job = answer(sent)["job"]
      begin_work(job["id"])
      expect(strike(sent).last["error"]["code"]).to eq("begun")
      _, other = offered([1])
      answer(other)
      expect([strike(other).first, strike(other).first]).to eq([200, 409])
    end
  end

  describe "a job that is called off" do
    it "leaves the bay, says why on the quote and to the customer, and is taken up again as it was" do
      id, sent = offered([5])
      job = answer(sent)["job"]
      status, page = post("/api/jobs/#{job["id"]}/call-off", { reason: "the car was sold" })
      expect([status, page["job"]["called_off"]["reason"]]).to eq([200, "the car was sold"])
      expect(stage(id)).to include("stage" => "called-off", "reason" => "the car was sold")
      expect(page_of(sent)).to include("called off since").and(include("Nothing of it is agreed any more"))
      expect(page_of(sent)).not_to include("taken back by us")
      money = { on: "2026-01-05", means: "cash", cents: 5_000, key: "deposit" }
      expect(post("/api/jobs/#{job["id"]}/payments", money).last).to include("draft" => nil, "paid_cents" => 5_000)
      expect(post("/api/jobs/#{job["id"]}/payments", money.merge(cents: -5_000, key: "back")).last["paid_cents"]).to eq(
        0
      )
      expect(counter["agreed"].map { |row| row["job"] }).not_to include(job["number"])
      expect(@db[:messages].where(offer_id: sent["id"], kind: "called-off").get(:body)).to include("the car was sold")
      expect(post("/api/jobs/#{job["id"]}/call-off", { reason: "again" }).first).to eq(409)

      page = post("/api/jobs/#{job["id"]}/take-up").last
      expect(page["job"]).to eq(job)
      expect(page["quote"]["status"]).to eq("authorized")
      expect(counter["agreed"].map { |row| row["job"] }).to include(job["number"])
      expect(post("/api/jobs/#{job["id"]}/take-up").first).to eq(409)
    end

    it "stays in sight where work has begun, with its yes for what was done" do
      id, sent = offered([5])
      job = answer(sent)["job"]
      begin_work(job["id"])
      page = post("/api/jobs/#{job["id"]}/call-off", { reason: "too long" }).last
      expect(page["offers"].first["scopes"].first.slice("state", "struck")).to eq(
        { "state" => "authorized", "struck" => nil }
      )
      row = counter["agreed"].find { |one| one["job"] == job["number"] }
      expect(row).to include("called_off" => true)
      expect(page_of(sent)).to include("What was done by then stays agreed")
      expect(stage(id)["stage"]).to eq("called-off")
    end

    it "is not taken up where its yes was a mistake" do
      _, sent = offered([5])
      job = answer(sent)["job"]
      strike(sent)
      expect(post("/api/jobs/#{job["id"]}/take-up").last["error"]["code"]).to eq("no_yes")
    end
  end

  it "keeps a no on the Counter, with its reason, until somebody has read it" do
    id, sent = offered([5])
    answer(sent, "no", reason: "we sell the car")
    row = counter["declined"].find { |one| one["offer_id"] == sent["id"] }
    expect(row).to include("reason" => "we sell the car", "plate" => "4-TRE-1M")
    expect(stage(id)).to include("stage" => "declined", "reason" => "we sell the car")
    read = post("/api/offers/#{sent["id"]}/no-read").last
    expect(read["declined"].map { |one| one["offer_id"] }).not_to include(sent["id"])
  end

  it "puts a quote away that nobody waits for, finds it still, and brings it back" do
    page = @advisor.start_quote("4-TRE-1M")
    id = page["quote"]["id"]
    expect(stage(id)["stage"]).to eq("draft")
    expect(post("/api/quotes/#{id}/put-away").last).to include("put_away" => true)
    expect(stage(id)).to be_nil
    found = @advisor.call(:get, "/api/find?search=#{page["quote"]["number"]}").last["quotes"]
    expect(found.find { |row| row["id"] == id }).to include("put_away" => true)
    post("/api/quotes/#{id}/bring-back")
    expect(stage(id)["stage"]).to eq("draft")
    sent_id, = offered([5])
    expect(post("/api/quotes/#{sent_id}/put-away").last["error"]["code"]).to eq("bound")
  end

  it "shows a car with all of its quotes, letters and findings, and starts nothing" do
    id, sent = offered([5])
    answer(sent)
    car = stage(id)["vehicle_id"]
    before = @db[:quotes].count
    file = @advisor.call(:get, "/api/vehicles/#{car}/file").last
    expect(file["quotes"].map { |row| row["stage"] }).to include("agreed")
    expect(file["letters"].first).to include("quote_id" => id, "kind" => "offer", "address" => "555 0101")
    expect(file["car"]["vehicle"]["plate"]).to eq("4-TRE-1M")
    expect(@db[:quotes].count).to eq(before)
  end

  it "leaves a record that verifies" do
    expect(
      NimbleServer::Features::Record::Verification
        .new(@db, NimbleServer::Features::Record::Keys.current)
        .run
        .map(&:fault)
    ).to all(be_nil)
  end
end
