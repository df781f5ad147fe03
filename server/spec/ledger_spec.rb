# frozen_string_literal: true

require_relative "spec_helper"

# The ledger over HTTP: jobs posted once, the past brought along, promise against truth, who sees what.
RSpec.describe NimbleServer::Features::Ledger::Posting do
  let(:owner) { Client.as("owner@merrow.example") }
  let(:stranger) { Client.as("owner@hollow.example") }
  let(:bay) { Client.as("bay@merrow.example") }
  let(:shop_id) { TestServer.db[:accounts].where(email: "owner@hollow.example").get(:shop_id) }

  def page(client) = client.call(:get, "/api/ledger").last

  # The page once what it learns is learned.
  def learned(client, id)
    TestServer.learn(id)
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
    expect(told["learning"]).to be_nil
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

  it "takes a past from a table: first what its rows would do, then once; rows that cannot be taken say why" do
    mark = SecureRandom.hex(3)
    text = <<~CSV
      id;finished;engine;technician;quoted_hours;actual_minutes;trouble_minutes
      #{mark}-1;2025-03-04;SK18;Ebba Quillon;1,5;95;0
      #{mark}-2;2025-03-05T15:00:00Z;SK18;Ebba Quillon;2;130;30
      #{mark}-3;2025-03-06;SK18;;2;130;30
      #{mark}-4;some day;SK18;Ebba Quillon;2;130;30
    CSV
    report = stranger.call(:post, "/api/ledger/past/report", { text: text }).last
    expect(report.slice("added", "known", "rejected")).to eq("added" => 2, "known" => 0, "rejected" => 2)
    expect(report["rows"].map { |row| row["line"] }).to eq([4, 5])
    expect(report["rows"].map { |row| row["reason"] }).to match([/technician/, /finished/])
    expect(stranger.call(:post, "/api/ledger/past", { text: text }).first).to eq(201)
    again = stranger.call(:post, "/api/ledger/past", { text: text }).last
    expect(again.slice("added", "known")).to eq("added" => 0, "known" => 2)
    entry = TestServer.db[:ledger_entries].where(key: "import:#{mark}-1").get(:entry).to_h
    expect(entry["finished"]).to eq("2025-03-04T12:00:00Z").or match(/\A2025-03-04T1\d:00:00Z\z/)
    believed = NimbleLedger::Time::LognormalTotal.new(entry["mean_minutes"], entry["sd_minutes"]**2)
    expect(believed.quantile(0.65) / 60).to be_within(1e-9).of(1.5)
    expect(stranger.call(:get, "/api/ledger/table").last).to include("SK18,Ebba Quillon", "finished,engine")
  end

  it "takes a past once that two bring along at the same moment" do
    jobs = simulated(30)
    clients = Array.new(2) { Client.as("owner@hollow.example") }
    call = ->(client) { Thread.new { client.call(:post, "/api/ledger/import", history(jobs)).first } }
    expect(clients.map(&call).map(&:value)).to eq([201, 201])
    keys = jobs.map { |job| "import:#{job["id"]}" }
    expect(TestServer.db[:ledger_entries].where(key: keys).count).to eq(30)
  end

  it "takes its own export back, row by row, and refuses what is neither table nor history" do
    stranger.call(:post, "/api/ledger/import", history(simulated(5)))
    export = stranger.call(:get, "/api/ledger/export").last
    report = stranger.call(:post, "/api/ledger/past/report", { text: JSON.generate(export) }).last
    expect(report.slice("added", "known", "rejected")).to eq(
      "added" => 0,
      "known" => export["jobs"].size,
      "rejected" => 0
    )
    table = stranger.call(:get, "/api/ledger/table").last
    taken = stranger.call(:post, "/api/ledger/past", { text: table }).last
    expect(taken.slice("added", "known")).to eq("added" => 0, "known" => export["jobs"].size)
    expect(stranger.call(:get, "/api/ledger/export").last["jobs"].size).to eq(export["jobs"].size)
    wrong = export.merge("jobs" => [export["jobs"].first.merge("actual_minutes" => -1)])
    rows = stranger.call(:post, "/api/ledger/past/report", { text: JSON.generate(wrong) }).last["rows"]
    expect(rows).to match([{ "line" => 1, "reason" => /actual_minutes/ }])
    ["{ nothing", "what;is;this\n1;2;3"].each do |text|
      status, answer = stranger.call(:post, "/api/ledger/past/report", { text: text })
      expect([status, answer["error"]["message"]]).to match([400, be_a(String)])
    end
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
    other = page(owner)["learned"]["technicians"].max_by { |row| row["name"] == mine ? 0 : row["jobs"] }["name"]
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
    row = TestServer.db[:ledger_entries].where(key: "job:#{job["id"]}").first
    expect(row[:billed_cents]).to eq(card["standing"]["money"]["so_far_cents"])
    expect(row[:parts].map { |part| part["quantity"] }).to all(be_positive)
    told = owner.call(:get, "/api/ledger/jobs?engine=QT14").last["jobs"].first
    expect(told["billed_cents"]).to eq(row[:billed_cents])
    expect(entry["plugs"].map { |plug| plug["outcome"] }).to eq(["free"])
    expect(NimbleLedger::Ledger::History::SHAPE.faults(JSON.parse(JSON.generate(history([entry]))))).to eq([])
    expect(owner.call(:post, "/api/jobs/#{job["id"]}/hand-over", {}).first).to eq(409)
    expect(TestServer.db[:ledger_entries].where(Sequel.like(:key, "job:#{job["id"]}%")).count).to eq(1)
  end

  it "posts once when two hand it over at the same moment: one is told that it was handed over" do
    job = finished_job
    vehicle = TestServer.db[:quotes].where(id: job["quote_id"]).get(:vehicle_id)
    fitted = TestServer.db[:fittings].where(vehicle_id: vehicle)
    before = fitted.count
    clients = Array.new(2) { Client.as("owner@merrow.example") }
    path = "/api/jobs/#{job["id"]}/hand-over"
    statuses = clients.map { |client| Thread.new { client.call(:post, path, {}).first } }.map(&:value)
    expect(statuses).to contain_exactly(200, 409)
    expect(TestServer.db[:ledger_entries].where(Sequel.like(:key, "job:#{job["id"]}%")).count).to eq(1)
    expect(fitted.count - before).to eq(2)
  end

  it "does not believe a clock that jumped: a job was not finished before it was opened, nor in years to come" do
    row = TestServer.db[:jobs].where(id: finished_job["id"]).first
    shop = NimbleServer::Shop.new(TestServer.db, row[:shop_id])
    card = NimbleServer::Features::Jobs::Cards.new(shop).of(row)
    fold = NimbleServer::Features::Jobs::Marks.new(shop).fold(row)
    finished = NimbleServer::Features::Jobs::FinishedJob.of(shop, card, fold)
    state = fold.state
    at = ->(time) do
      Time.iso8601(
        NimbleServer::Features::Ledger::Entry.new(
          shop,
          finished.dup.tap { |job| job.state = state.merge("finished_at" => time) }
        ).to_h[
          "finished"
        ]
      )
    end
    expect(at.call("2099-01-01T00:00:00Z")).to be_within(60).of(Time.now)
    expect(at.call("1999-01-01T00:00:00Z")).to be_within(1).of(row[:created_at])
    expect(at.call(state["finished_at"])).to be_within(1).of(Time.iso8601(state["finished_at"])).or be_within(60).of(
           Time.now
         )
  end
end
