# frozen_string_literal: true

require_relative "spec_helper"

# The ledger over HTTP: jobs posted once, the past brought along, promise against truth, who sees what.
RSpec.describe NimbleServer::Features::Ledger::Book do
  let(:owner) { Client.as("owner@merrow.example") }
  let(:stranger) { Client.as("owner@hollow.example") }
  let(:bay) { Client.as("bay@merrow.example") }
  let(:shop_id) { TestServer.db[:accounts].where(email: "owner@hollow.example").get(:shop_id) }

  def page(client) = client.call(:get, "/api/ledger").last

  # The page once what it learns is learned.
  def learned(client, id)
    page(client)
    NimbleServer::Features::Ledger::Learned.wait(id)
    page(client)
  end

  def history(jobs) = { format: "nimble-ledger.history", version: 1, jobs: jobs }
  # Jobs with names of their own, whichever spec brings them first.
  def simulated(count)
    mark = SecureRandom.hex(3)
    NimbleLedger::Ledger::Simulator.new(6).jobs(count).each { |job| job["id"] = "#{mark}-#{job["id"]}" }
  end

  it "tells the demo shop's story: one engine takes longer than promised, and promises do not hold" do
    told = learned(owner, TestServer.db[:accounts].where(email: "owner@merrow.example").get(:shop_id))
    expect(told["jobs"]).to be >= 312
    expect(told["learning"]).to be(false)
    worst = told["learned"]["engines"].max_by { |row| row["hours_lost"] }
    expect([worst["name"], worst["hours_lost_low"]]).to match(["JIV6", be_positive])
    p80 = told["learned"]["coverage"]["estimated"]["p80"]
    expect(p80["high"]).to be < 0.8
    expect(told["learned"]["coverage"]["corrected"]["p80"]["share"]).to be_within(0.06).of(0.8)
  end

  it "brings a past along once, and gives it back as it was" do
    jobs = simulated(40)
    expect(stranger.call(:post, "/api/ledger/import", history(jobs)).last).to eq({ "added" => 40, "known" => 0 })
    expect(stranger.call(:post, "/api/ledger/import", history(jobs)).last).to eq({ "added" => 0, "known" => 40 })
    given =
      JSON.parse(
        stranger.call(:get, "/api/ledger/export").last.then { |body| body.is_a?(String) ? body : JSON.generate(body) }
      )
    plain = JSON.parse(JSON.generate(jobs)).map { |job| job.except("id") }
    expect(given["jobs"].map { |job| job.except("id") }).to include(*plain)
    bad = jobs.first.merge("actual_minutes" => 0)
    expect(stranger.call(:post, "/api/ledger/import", history([bad])).first).to eq(400)
  end

  it "corrects by an entry against an entry, with its reason, and never twice the same" do
    stranger.call(:post, "/api/ledger/import", history(simulated(3)))
    entry = stranger.call(:get, "/api/ledger/jobs").last["jobs"].first
    path = "/api/ledger/entries/#{entry["id"]}/corrections"
    now = stranger.call(:post, path, { actual_minutes: 600, why: "the clock ran over lunch" }).last["jobs"]
    changed = now.find { |row| row["why"] == "the clock ran over lunch" }
    expect([changed["hours"], now.none? { |row| row["id"] == entry["id"] }]).to eq([10.0, true])
    expect(stranger.call(:post, path, { actual_minutes: 1, why: "again" }).first).to eq(409)
  end

  it "shows a technician the shop's figures and their own, not another's" do
    mine = bay.call(:get, "/api/session").last["account"]["name"]
    learned(owner, TestServer.db[:accounts].where(email: "owner@merrow.example").get(:shop_id))
    seen = page(bay)
    expect(seen["learned"]["technicians"].map { |row| row["name"] } - [mine]).to eq([])
    expect(seen["last"].map { |row| row["technician"] }.compact.uniq - [mine]).to eq([])
    other = page(owner)["learned"]["technicians"].map { |row| row["name"] }.find { |name| name != mine }
    expect(bay.call(:get, "/api/ledger/jobs?technician=#{Rack::Utils.escape(other)}").last["jobs"]).to eq([])
    expect(owner.call(:get, "/api/ledger/jobs?technician=#{Rack::Utils.escape(other)}").last["jobs"].size).to be > 20
  end

  # A job of this spec's own, done from its card to the end.
  def finished_job
    start = owner.start_quote("1-KEL-9M")
    id = start["quote"]["id"]
    owner.choose(start, [1])
    owner.save(id)
    given = { revision: 1, channel: "phone", recipient: "Ines" }
    offer = owner.call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first
    yes = { position: 0, answer: "yes", how: "phone", name: "Ines", limit_cents: offer["scopes"][0]["limit_cents"] }
    owner.call(:post, "/api/offers/#{offer["id"]}/answers", yes)
    done_by_hand(id)
    owner.call(:get, "/api/jobs").last["jobs"].find { |row| row["quote_id"] == id }
  end

  def done_by_hand(quote_id)
    account = TestServer.db[:accounts].where(email: "bay@merrow.example").first
    shop = NimbleServer::Shop.new(TestServer.db, account[:shop_id], actor: NimbleServer::Actor.account(account))
    job = shop[:jobs].where(quote_id: quote_id).first
    NimbleServer::DemoBay.new(shop, job, { "done" => 1, "bay" => "2", "arrival" => "cold" }).load
  end

  it "posts a job that is handed over, as it was estimated and as it went, once" do
    job = finished_job
    expect(owner.call(:post, "/api/jobs/#{job["id"]}/hand-over", {}).first).to eq(200)
    entry = TestServer.db[:ledger_entries].where(key: "job:#{job["id"]}").first[:entry].to_h
    card = owner.call(:get, "/api/jobs/#{job["id"]}").last
    expect(entry["actual_minutes"]).to be_within(1e-6).of(card["actuals"]["actual_minutes"])
    expect(entry.values_at("engine", "technician")).to eq(["QT14", "Col Haddick"])
    expect(entry["mean_minutes"]).to be_positive
    expect(entry["plugs"].map { |plug| plug["outcome"] }).to eq(["free"])
    expect(NimbleLedger::Ledger::History::SHAPE.faults(JSON.parse(JSON.generate(history([entry]))))).to eq([])
    expect(owner.call(:post, "/api/jobs/#{job["id"]}/hand-over", {}).first).to eq(409)
    expect(TestServer.db[:ledger_entries].where(Sequel.like(:key, "job:#{job["id"]}%")).count).to eq(1)
  end
end
