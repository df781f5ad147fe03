# frozen_string_literal: true

require_relative "spec_helper"

# The bill of a job: agreed beside billed, issued once with the next number, never above the yeses, put right by a
# credit note; what is paid is noted once.
RSpec.describe NimbleServer::Features::Bills do
  before(:context) do
    @cluster = TestServer.demo_cluster
    @db = NimbleServer::Database.connect(@cluster.url)
    @app = TestServer.build(@cluster)
    @advisor = Client.new(@app).tap { |client| client.sign_in("advisor@merrow.example") }
    @owner = Client.new(@app).tap { |client| client.sign_in("owner@merrow.example") }
    @serial = 0
  end

  after(:context) do
    @db.disconnect
    @cluster.stop
  end

  def call(verb, path, body = nil) = @advisor.call(verb, path, body)

  # A job somebody said yes to.
  def agreed(cylinders, works: %w[plug], plate: "4-TRE-1M", soak: "none")
    page = @advisor.start_quote(plate)
    id = page["quote"]["id"]
    content = page["draft"]["content"]
    scope = content["scopes"].first.merge("cylinders" => cylinders, "works" => works, "soak" => soak)
    given = { version: page["draft"]["version"], content: content.merge("scopes" => [scope]) }
    @advisor.save(id, call(:put, "/api/quotes/#{id}/draft", given).last)
    offer = { revision: 1, channel: "phone", recipient: "Ines Calloway" }
    sent = call(:post, "/api/quotes/#{id}/offers", offer).last["offers"].first
    limit = sent["scopes"].first["limit_cents"]
    said = { position: 0, answer: "yes", how: "phone", name: "Ines Calloway", limit_cents: limit }
    call(:post, "/api/offers/#{sent["id"]}/answers", said).last["job"]
  end

  def mark(kind, **values)
    @serial += 1
    at = Time.now.utc - 7200 + @serial
    { "id" => "m#{@serial}", "at" => at.iso8601(3), "kind" => kind }.merge(values.transform_keys(&:to_s))
  end

  # Works a card to its end; plugs named break, targets named are left.
  def worked(job, broken: [], left: [])
    card = call(:get, "/api/jobs/#{job["id"]}").last
    marks = [mark("start")]
    card["sheet"]["pieces"].each { |piece| marks.concat(piece_marks(piece, broken, left)) }
    body = call(:post, "/api/jobs/#{job["id"]}/marks", { device: "tablet", marks: marks + [mark("finished")] }).last
    expect(body["refused"]).to eq([])
    expect(body["state"]["finished_at"]).not_to be_nil
  end

  def piece_marks(piece, broken, left)
    if left.any? { |id| piece["id"].include?(":#{id}:") }
      return [mark("left", piece: piece["id"], why: "customer's wish")]
    end

    ticks = (piece["ticks"] || []).map { |tick| mark("tick", piece: piece["id"], item: tick["item"]) }
    acts =
      (piece["acts"] || []).flat_map do |act|
        (piece["plugs"] || []).filter_map do |plug|
          case act["act"]
          when "out"
            mark("out", plug: plug["target"], outcome: broken.include?(plug["target"]) ? "broken" : "free")
          when "in"
            mark("in", plug: plug["target"], how: "torque", piece: piece["id"])
          end
        end
      end
    [*ticks, *acts, mark("check", piece: piece["id"])]
  end

  def bill(job) = call(:get, "/api/jobs/#{job["id"]}/bill").last

  def issue(job, **given)
    total = bill(job).dig("draft", "answer", "total_cents")
    call(:post, "/api/jobs/#{job["id"]}/bill", { payer: "Ines Calloway", total_cents: total, **given })
  end

  def pay(job, cents, key: SecureRandom.uuid, on: Time.now.utc.to_date.iso8601, means: "card") =
    call(:post, "/api/jobs/#{job["id"]}/payments", { on: on, means: means, cents: cents, key: key })

  it "is what was agreed where everything was done and nothing happened" do
    job = agreed([1, 2, 3, 4, 5, 6])
    expect(bill(job)["draft"]).to be_nil
    worked(job)
    draft = bill(job)["draft"]
    expect(draft["answer"]).to include("total_cents" => job["agreed_cents"], "limit_cents" => job["limit_cents"])
    expect(draft["rows"].map { |row| [row["cents"] - row["agreed_cents"], row["why"]] }.uniq).to eq([[0, []]])
  end

  it "is what was agreed where a plug was under our warranty then" do
    first = agreed([2], plate: "2-SUN-3H")
    worked(first)
    call(:post, "/api/jobs/#{first["id"]}/hand-over", {})
    again = agreed([1, 2], plate: "2-SUN-3H")
    worked(again)
    draft = bill(again)["draft"]
    expect(draft["facts"]["owed"]).to eq(["Plug 2"])
    expect(draft["answer"]["total_cents"]).to eq(again["agreed_cents"])
    expect(draft["rows"].map { |row| [row["cents"] - row["agreed_cents"], row["why"]] }.uniq).to eq([[0, []]])
  end

  it "bills a broken plug up to the limit and says which line it made larger" do
    job = agreed([5])
    worked(job, broken: ["plug-5"])
    draft = bill(job)["draft"]
    expect(draft["facts"]["broken"]).to eq(["Plug 5"])
    expect(draft["answer"]["total_cents"]).to be_between(job["agreed_cents"], job["limit_cents"])
    expect(draft["rows"].find { |row| row["kind"] == "labor" }["why"]).to include("happened")
  end

  it "takes off what was not done" do
    job = agreed([1, 2])
    worked(job, left: ["plug-2"])
    draft = bill(job)["draft"]
    expect(draft["facts"]["not_done"]).to eq(["Plug 2"])
    expect(draft["answer"]["total_cents"]).to be < job["agreed_cents"]
  end

  it "is issued once, with numbers without a gap, at the total that was shown" do
    first, second = [agreed([1]), agreed([2])].each { |job| worked(job) }
    wrong = call(:post, "/api/jobs/#{first["id"]}/bill", { payer: "Ines", total_cents: 1 })
    expect([wrong.first, wrong.last["error"]["code"]]).to eq([409, "total_moved"])
    one = issue(first).last["bills"].last
    two = issue(second, days: 14).last
    expect(two["bills"].last["number"]).to eq(one["number"] + 1)
    expect(Date.iso8601(two["due_on"]) - Date.iso8601(two["bills"].last["issued_on"])).to eq(14)
    expect(two["draft"]).to be_nil
    again = { payer: "Ines", total_cents: second["agreed_cents"] }
    expect(call(:post, "/api/jobs/#{second["id"]}/bill", again).first).to eq(409)
    expect(@db[:bills].where(id: one["id"]).get(:total_cents)).to eq(first["agreed_cents"])
    expect { @db[:bills].where(id: one["id"]).update(total_cents: 1) }.to raise_error(Sequel::DatabaseError)
  end

  it "keeps one number for each of many that are issued at once" do
    jobs = [agreed([3]), agreed([4]), agreed([6])].each { |job| worked(job) }
    clients = jobs.map { Client.new(@app).tap { |client| client.sign_in("advisor@merrow.example") } }
    threads =
      jobs
        .zip(clients)
        .map do |job, client|
          Thread.new do
            2.times do
              client.call(:post, "/api/jobs/#{job["id"]}/bill", { payer: "x", total_cents: job["agreed_cents"] })
            end
          end
        end
    threads.each(&:join)
    numbers = @db[:bills].order(:number).select_map(:number)
    expect(numbers).to eq((numbers.first..numbers.last).to_a)
    expect(@db[:bills].where(job_id: jobs.map { |job| job["id"] }).count).to eq(3)
  end

  it "notes a deposit, a part payment and one sent twice; what is over is to give back" do
    job = agreed([5])
    pay(job, 10_000, means: "bank")
    worked(job)
    page = issue(job).last
    expect(page["owed_cents"]).to eq(job["agreed_cents"] - 10_000)
    2.times { pay(job, 5_000, key: "the same") }
    expect(bill(job)["paid_cents"]).to eq(15_000)
    pay(job, job["agreed_cents"])
    expect(bill(job)["owed_cents"]).to eq(-15_000)
    expect(pay(job, 0).last["error"]["details"].first["path"]).to eq("/cents")
    expect(pay(job, 100, on: "2026-02-31").first).to eq(422)
    expect(pay(job, 100, on: "2199-01-01").first).to eq(422)
  end

  it "is put right by a credit note of its own lines, and what was paid stands for the next" do
    job = agreed([5])
    worked(job)
    page = issue(job).last
    pay(job, 5_000)
    id = page["bills"].last["id"]
    status, credited = call(:post, "/api/bills/#{id}/credit", { reason: "wrong payer" })
    expect(status).to eq(201)
    note = credited["bills"].last
    expect(note).to include(
      "kind" => "credit-note",
      "credits" => page["bills"].last["number"],
      "reason" => "wrong payer"
    )
    expect(note["total_cents"]).to eq(-job["agreed_cents"])
    expect(note["lines"].sum { |line| line["cents"] }).to eq(-page["bills"].last["lines"].sum { |line| line["cents"] })
    expect([credited["owed_cents"], credited["draft"].nil?]).to eq([-5_000, false])
    expect(call(:post, "/api/bills/#{id}/credit", { reason: "again" }).first).to eq(409)
    again = issue(job).last
    expect(again["owed_cents"]).to eq(job["agreed_cents"] - 5_000)
  end

  it "prints itself, and the journal balances and says what is open" do
    job = agreed([5])
    worked(job)
    id = issue(job).last["bills"].last["id"]
    @advisor.get("/api/bills/#{id}/bill.pdf")
    expect(@advisor.last_response.body).to start_with("%PDF")
    shop = NimbleServer::Shop.new(@db, @db[:shops].where(slug: "merrow-quay").get(:id))
    books = NimbleServer::Features::Bills::Books.new(shop)
    expect(books.journals.flat_map(&:entries).sum(&:cents)).to eq(0)
    expect(books.open_cents.uniq.size).to eq(1)
    @owner.get("/api/bills/journal")
    expect(@owner.last_response.body).to start_with("day,what,account,debit,credit")
  end

  it "stands on the Counter until it is issued, and again once its day has passed unpaid" do
    job = agreed([5], plate: "8-LIB-8M")
    worked(job)
    call(:post, "/api/jobs/#{job["id"]}/hand-over", {})
    counter = -> { call(:get, "/api/counter").last }
    expect(counter.call["unbilled"].map { |row| row["job_id"] }).to include(job["id"])
    issue(job)
    expect(counter.call["unbilled"].map { |row| row["job_id"] }).not_to include(job["id"])
    expect(counter.call["overdue"]).to eq([])
    shop =
      NimbleServer::Shop.new(
        @db,
        @db[:shops].where(slug: "merrow-quay").get(:id),
        clock: Later.new(Time.now + (3 * 86_400))
      )
    overdue = NimbleServer::Features::Counter::ToBill.new(shop).to_h["overdue"]
    expect(overdue.find { |row| row["job_id"] == job["id"] }).to include("owed_cents" => job["agreed_cents"])
  end

  it "leaves a record that verifies" do
    expect(
      NimbleServer::Features::Record::Verification
        .new(@db, NimbleServer::Features::Record::Keys.current)
        .run
        .map(&:fault)
    ).to all(be_nil)
  end

  # A clock that stands.
  Later = Struct.new(:now)
end
