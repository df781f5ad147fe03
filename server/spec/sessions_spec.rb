# frozen_string_literal: true

require_relative "spec_helper"

# Sessions live on the server and end there; wrong tries shut out whoever makes them, and nobody else.
RSpec.describe NimbleServer::Features::Accounts::SignIn do
  let(:db) { TestServer.db }

  # An account of its own for a test.
  def account(name, **rest)
    like = db[:accounts].where(email: "second@merrow.example").first.except(:id)
    db[:accounts].insert(like.merge(email: "#{name}@merrow.example", **rest))
    "#{name}@merrow.example"
  end

  # The cookie of a session, copied into another browser.
  def copied(client)
    other = Client.new
    client
      .rack_mock_session
      .cookie_jar
      .instance_variable_get(:@cookies)
      .each { |cookie| other.rack_mock_session.cookie_jar << cookie }
    other.tap(&:refresh)
  end

  def inside?(client) = client.call(:get, "/api/quotes").first == 200

  it "a copied cookie is worth nothing after signing out" do
    client = Client.as("advisor@merrow.example")
    thief = copied(client)
    expect(inside?(thief)).to be(true)
    expect(client.call(:post, "/api/account/logout").first).to eq(200)
    expect([client, thief].map { |one| inside?(one) }).to eq([false, false])
  end

  it "signing out everywhere ends every session of the account" do
    mail = account("everywhere")
    clients = 3.times.map { Client.as(mail) }
    clients[0].call(:post, "/api/account/logout", { global_logout: true })
    expect(clients.map { |one| inside?(one) }).to all(be(false))
  end

  it "a change of password ends the other sessions, and the old one signs nobody in" do
    mail = account("changer")
    here, elsewhere = 2.times.map { Client.as(mail) }
    change = ->(fresh, old = TestServer::PASSWORD) do
      here.call(:post, "/api/account/change-password", { password: old, "new-password": fresh })
    end
    expect(change.call("a-new-one-of-mine", "wrong").then { |status, body| [status, body["error"]["code"]] }).to eq(
      [401, "password"]
    )
    expect(change.call("short").last["error"]["details"].first["path"]).to eq("/new-password")
    expect(change.call("a-new-one-of-mine").first).to eq(200)
    here.refresh
    expect([here, elsewhere].map { |one| inside?(one) }).to eq([true, false])
    expect(Client.new.sign_in(mail).first).to eq(401)
    expect(Client.new.sign_in(mail, "a-new-one-of-mine").first).to eq(200)
  end

  it "the demo's password is nobody's own" do
    client = Client.as(account("demo-fan"))
    change = ->(password, fresh) do
      client
        .call(:post, "/api/account/change-password", { password: password, "new-password": fresh })
        .tap { client.refresh }
    end
    expect(change.call(TestServer::PASSWORD, "something-of-mine").first).to eq(200)
    status, body = change.call("something-of-mine", TestServer::PASSWORD)
    expect([status, body["error"]["message"]]).to match([422, include("demo's password")])
  end

  it "a closed account is out at once, and answers like one that never was" do
    mail = account("leaver")
    client = Client.as(mail)
    db[:accounts].where(email: mail).update(status_id: 3)
    expect(inside?(client)).to be(false)
    expect(Client.new.sign_in(mail)).to eq(Client.new.sign_in("nobody-at-all@merrow.example"))
  end

  it "a session ends by age and by rest" do
    mail = account("old-hand")
    clients = 2.times.map { Client.as(mail) }
    id = db[:accounts].where(email: mail).get(:id)
    keys = db[:account_active_session_keys].where(account_id: id).order(:created_at).select_map(:session_id)
    db[:account_active_session_keys].where(session_id: keys[0]).update(last_use: Time.now - (4 * 86_400))
    db[:account_active_session_keys].where(session_id: keys[1]).update(created_at: Time.now - (15 * 86_400))
    expect(clients.map { |one| inside?(one) }).to eq([false, false])
  end

  it "unknown and known mail cost the same" do
    mail = account("timed")
    spent = ->(who) { 3.times.map { processor_seconds { Client.new.sign_in(who, "wrong") } }.min }
    known = spent.call(mail)
    expect(spent.call("stranger@merrow.example")).to be_between(known * 0.6, known * 1.6)
  end

  describe "wrong tries" do
    def from(address, mail, password = "wrong", **headers)
      client = Client.new
      client.refresh
      client.env("REMOTE_ADDR", address)
      client.call(
        :post,
        "/api/account/login",
        { email: mail, password: password },
        headers.transform_keys(&:to_s)
      ).first
    end

    it "shut out the address that makes them, whatever its headers say, and leave the owner of the account in" do
      mail = account("target")
      expect(from("198.51.100.7", mail, TestServer::PASSWORD)).to eq(200)
      tries = 12.times.map { |i| from("203.0.113.9", mail, "wrong", "X-Forwarded-For": "10.0.0.#{i}") }
      expect(tries.first(8)).to all(eq(401))
      expect(tries.drop(8)).to all(eq(429))
      expect(from("203.0.113.9", mail, TestServer::PASSWORD)).to eq(429)
      expect(from("198.51.100.7", mail, TestServer::PASSWORD)).to eq(200)
    end

    it "by anybody at the shop's own address lock nobody out who was signed in there before" do
      mail = account("counter-shared")
      known = Client.new
      known.env("REMOTE_ADDR", "198.51.100.9")
      expect(known.sign_in(mail).first).to eq(200)
      known.call(:post, "/api/account/logout")
      expect(10.times.map { from("198.51.100.9", mail) }).to all(eq(401))
      expect(from("198.51.100.9", mail, TestServer::PASSWORD)).to eq(200)
      70.times { from("198.51.100.9", mail) }
      expect(from("198.51.100.9", mail, TestServer::PASSWORD)).to eq(429)
      expect(known.sign_in(mail).first).to eq(200) # a browser that was signed in is counted by itself
      expect(9.times.map { known.sign_in(mail, "wrong").first }.last).to eq(429)
    end

    it "from many addresses shut out unknown ones for minutes, never the one its owner signs in from" do
      mail = account("famous")
      expect(from("198.51.100.8", mail, TestServer::PASSWORD)).to eq(200)
      tries =
        NimbleServer::Features::Accounts::SignInTries.new(
          NimbleServer::Database.connect(TestServer.cluster.url("nimble_door"), connections: 1)
        )
      45.times { |i| tries.failed("203.0.113.#{i}", mail) }
      expect(tries.wait("192.0.2.1", mail)).to eq(5)
      expect(from("192.0.2.1", mail, TestServer::PASSWORD)).to eq(429)
      expect(from("198.51.100.8", mail, TestServer::PASSWORD)).to eq(200)
      later = Struct.new(:now).new(Time.now + 301)
      expect(
        NimbleServer::Features::Accounts::SignInTries.new(TestServer.db, clock: later).wait("192.0.2.1", mail)
      ).to be_nil
    end

    it "are counted for all web processes together" do
      mail = account("counted-together")
      second = TestServer.build(TestServer.cluster)
      8.times { from("203.0.113.77", mail) }
      client = Client.new(second)
      client.env("REMOTE_ADDR", "203.0.113.77")
      expect(client.sign_in(mail).first).to eq(429)
    end
  end

  describe NimbleServer::Origin do
    def seen(headers, proxies: [], hosts: ["127.0.0.1"])
      found = nil
      app =
        described_class.new(
          ->(env) { [200, {}, [found = env.slice("REMOTE_ADDR", "rack.url_scheme", "HTTP_X_FORWARDED_FOR")]] },
          proxies: proxies,
          hosts: hosts
        )
      status, =
        app.call(
          { "REMOTE_ADDR" => "192.0.2.10", "HTTP_HOST" => "127.0.0.1:4080", "rack.url_scheme" => "http" }.merge(headers)
        )
      [status, found]
    end

    it "believes the socket, and headers only from configured proxies" do
      spoof = { "HTTP_X_FORWARDED_FOR" => "203.0.113.5, 198.51.100.4", "HTTP_X_FORWARDED_PROTO" => "https" }
      expect(seen(spoof).last).to eq("REMOTE_ADDR" => "192.0.2.10", "rack.url_scheme" => "http")
      expect(seen(spoof, proxies: ["192.0.2.0/24"]).last).to eq(
        "REMOTE_ADDR" => "198.51.100.4",
        "rack.url_scheme" => "https"
      )
      expect(seen(spoof, proxies: %w[192.0.2.10 198.51.100.0/24]).last).to include("REMOTE_ADDR" => "203.0.113.5")
      expect(seen({ "HTTP_X_FORWARDED_FOR" => "nonsense" }, proxies: ["192.0.2.10"]).last).to include(
        "REMOTE_ADDR" => "192.0.2.10"
      )
    end

    it "answers under configured names only" do
      expect(seen({ "HTTP_HOST" => "evil.example" }).first).to eq(421)
      expect(seen({ "HTTP_HOST" => "bay.local:4080" }, hosts: ["bay.local"]).first).to eq(200)
      expect(seen({ "HTTP_HOST" => nil }).first).to eq(421)
    end
  end

  it "marks the cookie for HTTPS whenever the request came by HTTPS, and takes the token from its header only" do
    app = TestServer.app
    plain, secure =
      %w[http https].map do |scheme|
        Rack::MockRequest.new(app).get(
          "#{scheme}://127.0.0.1/api/session",
          "REMOTE_ADDR" => "127.0.0.1",
          "HTTP_HOST" => "127.0.0.1"
        )
      end
    expect(plain["set-cookie"]).to match(/httponly/i).and(satisfy { |cookie| !cookie.match?(/secure/i) })
    expect(secure["set-cookie"]).to match(/;\s*secure/i)
    client = Client.as("advisor@merrow.example")
    token = client.instance_variable_get(:@token)
    client.header("X-CSRF-Token", nil)
    client.header("Content-Type", "application/x-www-form-urlencoded")
    client.post("/api/quotes?authenticity_token=#{Rack::Utils.escape(token)}", { authenticity_token: token })
    expect(client.last_response.status).to eq(403)
  end
end
