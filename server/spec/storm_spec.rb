# frozen_string_literal: true

require_relative "spec_helper"
require_relative "support/web_process"

# Two web processes and the database behind them are killed, again and again, in the middle of saves, sends and answers.
# Every acknowledged one is there exactly once, whole and sealed; saves recompute, and the record holds. Bounded here;
# STORM_KILLS=500 makes a longer one by hand.
RSpec.describe "a storm of saves, sends and yeses under kills" do
  KILLS = Integer(ENV.fetch("STORM_KILLS", "12"))

  before(:context) do
    @cluster = TestServer.demo_cluster(durable: true)
    @db = NimbleServer::Database.connect(@cluster.url)
    @web = 2.times.map { WebProcess.new(@cluster) }.each(&:ready)
  end

  after(:context) do
    @web.each(&:kill)
    @db.disconnect
    @cluster.stop
  end

  # One logical save after another, each insisted on until it is acknowledged: [quote, revision, cents] as told.
  def advisor(email, told, seed)
    visitor = Visitor.new(@web.map(&:port).rotate(seed)).sign_in(email)
    car = visitor.insist("GET", "/api/vehicles?search=TRE").body["vehicles"].first["id"]
    rng = Random.new(seed)
    until @over
      page = visitor.insist("POST", "/api/quotes", { vehicle_id: car }, "Idempotency-Key" => SecureRandom.uuid).body
      2.times { |turn| save_once(visitor, page["quote"]["id"], page["draft"]["content"], turn, rng, told) }
    end
  end

  def save_once(visitor, id, content, turn, rng, told)
    scope =
      content["scopes"].first.merge(
        "cylinders" => [rng.rand(1..6)],
        "works" => %w[plug coil].sample(rng.rand(1..2), random: rng)
      )
    version = visitor.insist("GET", "/api/quotes/#{id}").body["draft"]["version"]
    priced = store(visitor, id, version, content.merge("scopes" => [scope], "note" => "turn #{turn}"))
    body = { version: priced["draft"]["version"], priced_with: priced["priced_with"] }
    saved = visitor.insist("POST", "/api/quotes/#{id}/revisions", body, "Idempotency-Key" => SecureRandom.uuid)
    raise "not saved: #{saved.status} #{saved.body}" unless saved.status == 201

    told << [id, saved.body["revision"]["revision"], saved.body["revision"]["total_cents"]]
    offer(visitor, id, saved.body["revision"]["revision"], rng)
  end

  # Sends what was saved, and has it answered: on the phone, or by the customer's own link. A press of theirs whose
  # answer was lost is told "decided" the next time.
  def offer(visitor, id, revision, rng)
    given = { revision: revision, channel: "text", recipient: "Storm", address: "555 0101", supersede: true }
    sent = visitor.insist("POST", "/api/quotes/#{id}/offers", given, "Idempotency-Key" => SecureRandom.uuid)
    raise "not sent: #{sent.status} #{sent.body}" unless sent.status == 201

    made = sent.body["offers"].first
    @offers << made["id"]
    said = rng.rand < 0.3 ? "no" : "yes"
    limit = made["scopes"].first["limit_cents"]
    rng.rand < 0.5 ? by_phone(visitor, made, said, limit) : by_link(visitor, made, said, limit)
    @answers << [made["id"], 0, said]
  end

  def by_phone(visitor, made, said, limit)
    body = { position: 0, answer: said, how: "phone", name: "Storm", limit_cents: said == "yes" ? limit : nil }
    answer = visitor.insist("POST", "/api/offers/#{made["id"]}/answers", body, "Idempotency-Key" => SecureRandom.uuid)
    raise "not kept: #{answer.status} #{answer.body}" unless answer.status == 201
  end

  def by_link(visitor, made, said, limit)
    form = URI.encode_www_form(act: said == "yes" ? "yes-0-#{limit}" : "no", name: "Storm")
    type = { "Content-Type" => "application/x-www-form-urlencoded" }
    answer = visitor.stranger.insist("POST", URI(made["link"]).path, form, type)
    raise "not kept: #{answer.status}" unless [303, 409].include?(answer.status)
  end

  # Every acknowledged send and answer is there once, the message too, and the record holds.
  def sends_and_answers
    sent = @offers.size.times.map { @offers.pop }
    said = @answers.size.times.map { @answers.pop }
    expect(sent.size).to be >= KILLS
    expect(said.map(&:last).uniq).to match_array(%w[yes no])
    expect(@db[:messages].where(offer_id: sent).select_map(:offer_id)).to match_array(sent)
    kept = @db[:offer_answers].where(offer_id: sent).select_map(%i[offer_id position answer])
    expect(kept).to match_array(said)
  end

  def verified
    found = NimbleServer::Features::Record::Verification.new(@db, NimbleServer::Features::Record::Keys.current).run
    expect(found.map(&:fault)).to all(be_nil)
  end

  # A store whose answer was lost has reached the server: its version is the next one.
  def store(visitor, id, version, content)
    answer = visitor.insist("PUT", "/api/quotes/#{id}/draft", { version: version, content: content })
    return answer.body if answer.status == 200

    visitor.insist(
      "PUT",
      "/api/quotes/#{id}/draft",
      { version: answer.body.fetch("theirs_version"), content: content }
    ).body
  end

  it "keeps every acknowledged save exactly once, and all of them recompute" do
    told = Thread::Queue.new
    @offers = Thread::Queue.new
    @answers = Thread::Queue.new
    writers =
      [%w[advisor@merrow.example 1], %w[second@merrow.example 2], %w[owner@merrow.example 3]].map do |email, seed|
        Thread.new { advisor(email, told, seed.to_i) }
      end
    writers.each { |thread| thread.report_on_exception = true }
    KILLS.times do |turn|
      before = told.size
      Patience.until(60) { told.size > before || writers.none?(&:alive?) }
      fallen = @web[turn % 2]
      fallen.kill
      @cluster.crash
      @cluster.resume
      fallen.start
    end
    @web.each(&:ready)
    @over = true
    writers.each(&:join)
    list = told.size.times.map { told.pop }
    @db.disconnect
    kept = @db[:quote_revisions].where(quote_id: list.map(&:first)).select_map(%i[quote_id revision total_cents])
    expect(list.size).to be >= KILLS
    expect(kept).to match_array(list)
    @db[:quote_revisions].each do |row|
      expect(NimbleServer::Seal.new(@db, row).bytes).to eq(@db[:quote_seals].where(revision_id: row[:id]).get(:bytes))
    end
    @db[:quote_scopes].each do |scope|
      again = NimbleLedger::Estimate::Answer.new(NimbleLedger::Estimate::Request.build(scope[:request].to_h))
      expect([again.price.total_cents, @db[:quote_lines].where(scope_id: scope[:id]).sum(:cents)]).to eq(
        [scope[:total_cents]] * 2
      )
    end
    half =
      @db[:quotes]
        .exclude(latest_revision: 0)
        .select_map(%i[id latest_revision])
        .reject { |id, latest| @db[:quote_revisions].where(quote_id: id).count == latest }
    expect(half).to be_empty
    sends_and_answers
    verified
  end
end
