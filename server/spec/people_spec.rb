# frozen_string_literal: true

require_relative "spec_helper"

# A shop that is not the demo: its first page, the people who join it, the engines it copies.
RSpec.describe "a shop of one's own" do
  before(:context) do
    @cluster = Cluster.throw_away
    @db = NimbleServer::Database.connect(@cluster.url)
    NimbleServer::Database.migrate(@db)
    NimbleServer::Database.let_in(@db, @cluster.passwords)
    @app = TestServer.build(@cluster)
  end

  after(:context) do
    @db.disconnect
    @cluster.stop
  end

  before do
    tables = @db.tables - %i[schema_info schema_migrations]
    @db.run(
      "SET session_replication_role = replica; TRUNCATE #{tables.join(", ")}; SET session_replication_role = DEFAULT"
    )
  end

  NEW_SHOP = {
    owner: {
      name: "Aldith Vane",
      email: "aldith@vane.example",
      password: "eleven-herons"
    },
    shop: {
      name: "Vane and Daughter",
      locale: "de-DE",
      currency: "EUR",
      distance_unit: "km",
      time_zone: "Europe/Berlin",
      paper: "a4"
    },
    rate_cents: 11_900,
    tax: {
      label: "Umsatzsteuer",
      percent: 19,
      on: %w[labor parts fees]
    }
  }.freeze

  def stranger = Client.new(@app).tap(&:refresh)

  def open_shop(given = NEW_SHOP) = stranger.call(:post, "/api/setup", given)

  def owner
    open_shop
    Client.new(@app).tap { |client| client.sign_in("aldith@vane.example", "eleven-herons") }
  end

  def invite(client, email, role) = client.call(:post, "/api/people/invitations", { email: email, role: role })

  def joined(client, email, role, name: "Peder Lund", password: "nine-lapwings")
    link = invite(client, email, role).last["link"]
    stranger.call(:post, "/api/join", { token: link.split("#").last, name: name, password: password })
    Client.new(@app).tap { |one| one.sign_in(email, password) }
  end

  it "is due while there is no shop, opens one with its own figures, and is due no more" do
    expect(stranger.call(:get, "/api/session").last["first_run"]).to be(true)
    expect(open_shop).to eq([201, { "email" => "aldith@vane.example" }])
    session =
      Client.new(@app).tap { |one| one.sign_in("aldith@vane.example", "eleven-herons") }.call(:get, "/api/session")
    expect(session.last["shop"]).to include("name" => "Vane and Daughter", "currency" => "EUR", "paper" => "a4")
    expect(session.last["account"]).to include("role" => "owner", "name" => "Aldith Vane")
    house = owner.call(:get, "/api/house").last["settings"].to_h { |row| [row["name"], row["value"]] }
    expect(house).to include("rate_cents" => 11_900, "currency" => "EUR", "currency_exponent" => 2)
    expect(house["taxes"]).to eq([{ "label" => "Umsatzsteuer", "percent" => 19, "on" => %w[labor parts fees] }])
    expect(stranger.call(:get, "/api/session").last["first_run"]).to be(false)
    status, body = open_shop
    expect([status, body["error"]["code"]]).to eq([409, "shop_there"])
    expect(@db[:shops].count).to eq(1)
  end

  it "opens one shop when two come at once" do
    answers = Array.new(4) { Thread.new { open_shop } }.map { |thread| thread.value.first }
    expect(answers.tally).to eq(201 => 1, 409 => 3)
    expect([@db[:shops].count, @db[:accounts].count, @db[:house_settings].count]).to eq([1, 1, 1])
  end

  [
    ["/owner/password", { owner: NEW_SHOP[:owner].merge(password: "short") }],
    ["/owner/password", { owner: NEW_SHOP[:owner].merge(password: "ferry-at-seven") }],
    ["/owner/email", { owner: NEW_SHOP[:owner].merge(email: "aldith") }],
    ["/shop/time_zone", { shop: NEW_SHOP[:shop].merge(time_zone: "Europe/Nowhere") }],
    ["/shop/currency", { shop: NEW_SHOP[:shop].merge(currency: "XQZ") }],
    ["/rate_cents", { rate_cents: 0 }]
  ].each do |path, change|
    it "says where #{path} does not fit, and opens nothing (#{change.values.first.inspect[0, 30]})" do
      status, body = open_shop(NEW_SHOP.merge(change))
      expect([400, 422]).to include(status)
      expect(body["error"]["details"].map { |row| row["path"] }).to include(path)
      expect(@db[:shops].count).to eq(0)
    end
  end

  it "is described anew by its owner, in the session and on what is written from then on" do
    client = owner
    given = NEW_SHOP[:shop].except(:currency).merge(name: " Vane & Daughter ", locale: "en-GB", distance_unit: "mi")
    kept = client.call(:put, "/api/shop", given.merge(time_zone: "Europe/London", paper: "letter"))
    expected = {
      "name" => "Vane & Daughter",
      "locale" => "en-GB",
      "distance_unit" => "mi",
      "time_zone" => "Europe/London",
      "paper" => "letter"
    }
    expect(kept).to eq([200, expected])
    expect(client.call(:get, "/api/session").last["shop"]).to include(expected)
    status, body = client.call(:put, "/api/shop", given.merge(time_zone: "Europe/Nowhere"))
    expect([status, body["error"]["details"].first["path"]]).to eq([422, "/time_zone"])
    expect(client.call(:get, "/api/session").last["shop"]).to include(expected)
  end

  it "keeps as many decimals as the currency has" do
    open_shop(NEW_SHOP.merge(shop: NEW_SHOP[:shop].merge(currency: "JPY", locale: "ja-JP")))
    shop = Client.new(@app).tap { |one| one.sign_in("aldith@vane.example", "eleven-herons") }.call(:get, "/api/session")
    expect(shop.last["shop"]).to include("currency" => "JPY", "currency_exponent" => 0)
  end

  it "lets people in by a link, once, in the role it is for" do
    client = owner
    _status, made = invite(client, "peder@vane.example", "technician")
    secret = made["link"].delete_prefix("/join#")
    expect(@db[:invitations].get(:digest)).not_to include(secret)
    expect(stranger.call(:post, "/api/join/look", { token: secret }).last).to eq(
      "shop" => "Vane and Daughter",
      "email" => "peder@vane.example",
      "role" => "technician"
    )
    given = { token: secret, name: "Peder Lund", password: "nine-lapwings" }
    expect(stranger.call(:post, "/api/join", given.merge(password: "short")).first).to eq(422)
    expect(stranger.call(:post, "/api/join", given)).to eq([201, { "email" => "peder@vane.example" }])
    peder = Client.new(@app).tap { |one| one.sign_in("peder@vane.example", "nine-lapwings") }
    expect(peder.call(:get, "/api/session").last["account"]).to include("role" => "technician", "name" => "Peder Lund")
    expect(peder.call(:get, "/api/people").first).to eq(403)
    status, body = stranger.call(:post, "/api/join", given)
    expect([status, body["error"]["code"]]).to eq([404, "useless_link"])
    expect(client.call(:get, "/api/people").last["invitations"]).to eq([])
  end

  it "has one answer for links that are withdrawn, too old, or never were" do
    client = owner
    withdrawn = invite(client, "a@vane.example", "advisor").last
    client.call(:delete, "/api/people/invitations/#{withdrawn["id"]}")
    old = invite(client, "b@vane.example", "advisor").last
    @db[:invitations].where(id: old["id"]).update(expires_at: Time.now - 1)
    tokens = [withdrawn, old].map { |row| row["link"].split("#").last } + ["never-made"]
    answers = tokens.map { |token| stranger.call(:post, "/api/join/look", { token: token }) }
    expect(answers.uniq.size).to eq(1)
    expect(answers.first.first).to eq(404)
    joins =
      tokens.map { |token| stranger.call(:post, "/api/join", { token: token, name: "A", password: "nine-lapwings" }) }
    expect(joins.map(&:first)).to all(eq(404))
    expect(@db[:accounts].count).to eq(1)
  end

  it "makes one account of a link, however many use it at once" do
    token = invite(owner, "peder@vane.example", "advisor").last["link"].split("#").last
    body = { token: token, name: "Peder", password: "nine-lapwings" }
    answers = Array.new(4) { Thread.new { stranger.call(:post, "/api/join", body).first } }.map(&:value)
    expect(answers.tally).to eq(201 => 1, 404 => 3)
    expect(@db[:accounts].count).to eq(2)
  end

  it "changes roles at once, and ends access at once, sessions included" do
    client = owner
    peder = joined(client, "peder@vane.example", "technician")
    id = client.call(:get, "/api/people").last["people"].find { |row| row["name"] == "Peder Lund" }["id"]
    expect(peder.call(:post, "/api/quotes", { vehicle_id: SecureRandom.uuid }).first).to eq(403)
    client.call(:put, "/api/people/#{id}", { role: "advisor" })
    expect(peder.call(:post, "/api/quotes", { vehicle_id: SecureRandom.uuid }).first).to eq(404)
    client.call(:put, "/api/people/#{id}", { access: false })
    expect(peder.call(:get, "/api/quotes").first).to eq(401)
    expect(peder.sign_in("peder@vane.example", "nine-lapwings")).not_to be_nil
    expect(peder.call(:get, "/api/session").last["account"]).to be_nil
    client.call(:put, "/api/people/#{id}", { access: true })
    peder.sign_in("peder@vane.example", "nine-lapwings")
    expect(peder.call(:get, "/api/quotes").first).to eq(200)
  end

  it "never leaves a shop without an owner who can sign in" do
    client = owner
    id = client.call(:get, "/api/people").last["people"].first["id"]
    [{ role: "advisor" }, { access: false }].each do |change|
      status, body = client.call(:put, "/api/people/#{id}", change)
      expect([status, body["error"]["code"]]).to eq([409, "last_owner"])
    end
    joined(client, "second@vane.example", "owner")
    expect(client.call(:put, "/api/people/#{id}", { role: "advisor" }).first).to eq(200)
    expect(client.call(:get, "/api/people").first).to eq(403)
  end

  it "copies a pattern under a code of its own, which says that its figures are examples" do
    client = owner
    patterns = client.call(:get, "/api/patterns").last["patterns"]
    expect(patterns.map { |row| row["code"] }).to include("JIV6", "OZB4")
    expect(client.call(:get, "/api/engines").last["engines"]).to eq([])
    body = { pattern: "JIV6", code: "V6-OWN", name: "Our V6" }
    expect(client.call(:post, "/api/workshop", body).first).to eq(201)
    expect(client.call(:post, "/api/workshop/V6-OWN/revisions", { version: 1, why: "" }).first).to eq(201)
    page = client.call(:get, "/api/engines/V6-OWN").last
    expect(page["profile"]).to include("code" => "V6-OWN", "name" => "Our V6")
    expect(page["profile"]["notes"]).to include("examples until somebody has timed them")
    expect(page["profile"]["plug"]["part"]).to eq("part: plug")
    status, error = client.call(:post, "/api/workshop", body)
    expect([status, error["error"]["code"], error["error"]["details"][0]["path"]]).to eq([409, "code_taken", "/code"])
    expect(client.call(:post, "/api/workshop", body.merge(pattern: "NONE", code: "X")).first).to eq(404)
  end
end
