# frozen_string_literal: true

require_relative "spec_helper"

# Lessons: what was learned is offered with its evidence, taken with one press, taken back with one, or taken by itself;
# quotes keep both figures, and saved ones what they were made with.
RSpec.describe NimbleServer::Features::Ledger::Lessons do
  let(:owner) { Client.as("owner@merrow.example") }
  let(:shop_id) { TestServer.db[:accounts].where(email: "owner@merrow.example").get(:shop_id) }

  before { TestServer.learn(shop_id) }

  after do
    act(act: "by-hand")
    while (force = page["in_force"])
      act(act: "back", lesson: force["id"])
    end
  end

  def page(client = owner) = client.call(:get, "/api/ledger").last
  def act(client: owner, **given) = client.call(:post, "/api/ledger/lessons", given)
  def take = act(act: "take", state: page["lesson"]["state"])

  # A page of a quote on the engine that takes longer than its profile says.
  def quoted(id = nil)
    return owner.call(:get, "/api/quotes/#{id}").last if id

    start = owner.start_quote("4-TRE-1M")
    owner.choose(start, [5])
    quoted(start["quote"]["id"])
  end

  def learned(shown) = shown["sheet"]["learned"]

  it "waits with its evidence: how far engines are off, and what it would have done to the last months" do
    lesson = page["lesson"]
    expect(lesson.values_at("taken", "jobs")).to eq([false, page["jobs"]])
    row = lesson["rows"].find { |one| one["engine"] == "JIV6" }
    expect([row["over_low"], row["jobs"]]).to all(be_positive)
    lately = lesson["lately"]
    expect(lately["would_off_hours"]).to be < lately["off_hours"]
    expect(lately["would_held"]["share"]).to be > lately["held"]["share"]
    expect(page["in_force"]).to be_nil
  end

  it "corrects what is quoted once it is taken, both figures beside each other, and leaves saved revisions alone" do
    plain = quoted
    expect(learned(plain)).to be_nil
    id = plain["quote"]["id"]
    owner.save(id, plain)
    before = owner.call(:get, "/api/quotes/#{id}/revisions/1").last
    expect(take.last["lesson"]["taken"]).to be(true)
    found = quoted(id)
    hours = found["sheet"]["estimate"]["hours"]
    expect(learned(found)).to include("hours" => hours["quoted"], "jobs" => be_positive)
    expect(learned(found)["estimated_hours"]).to eq(plain["sheet"]["estimate"]["hours"]["quoted"])
    expect(hours["mean_minutes"]).to be > plain["sheet"]["estimate"]["hours"]["mean_minutes"]
    expect(owner.call(:get, "/api/quotes/#{id}/revisions/1").last).to eq(before)
  end

  it "stands in what is saved while it is in force, so that it recomputes to the cent ever after" do
    id = quoted["quote"]["id"]
    take
    shown = quoted(id)
    expect(owner.save(id, shown).first).to eq(201)
    frozen =
      TestServer.db[:quote_scopes].where(quoted_tenths: (learned(shown)["hours"] * 10).round).order(:created_at).last
    expect(frozen[:request]["learned"]["hours"]["jobs"]).to eq(learned(shown)["jobs"])
    act(act: "back", lesson: page["in_force"]["id"])
    again = NimbleLedger::Estimate::Request.build(JSON.parse(JSON.generate(frozen[:request]))).job
    expect(again.price.total_cents).to eq(frozen[:total_cents])
    expect(again.quoted_tenths).to eq(frozen[:quoted_tenths])
    revision = owner.call(:get, "/api/quotes/#{id}/revisions/1").last
    expect(JSON.generate(revision)).to include("\"estimated_hours\":#{learned(shown)["estimated_hours"]}")
  end

  it "is said on the engine's page, whose hours are the profile's" do
    engine = -> { owner.call(:get, "/api/engines/JIV6").last }
    plain = engine.call
    expect(plain["learned"]).to be_nil
    take
    expect(engine.call["learned"]).to include("jobs" => be_positive, "over_low" => be_positive)
    expect(engine.call["page"]).to eq(plain["page"])
  end

  it "is taken back with one press: quotes are as before; another one's press on the same finds it gone" do
    plain = quoted
    force = take.last["in_force"]
    expect([force["by"], force["jobs"]]).to eq([owner.call(:get, "/api/session").last["account"]["name"], page["jobs"]])
    back = { act: "back", lesson: force["id"] }
    expect(act(**back).last["in_force"]).to be_nil
    expect(quoted(plain["quote"]["id"])["sheet"]["estimate"]).to eq(plain["sheet"]["estimate"])
    expect(act(**back).first).to eq(409)
  end

  it "goes back to the lesson before it, and refuses one that is in force or that moved on" do
    first = take.last["in_force"]["id"]
    expect(take.first).to eq(409)
    owner.call(:post, "/api/ledger/import", one_more)
    expect(page["lesson"]["taken"]).to be(true)
    seen = page["lesson"]["state"]
    TestServer.learn(shop_id)
    expect(page["lesson"]["taken"]).to be(false)
    expect(act(act: "take", state: seen).first).to eq(409)
    second = take.last["in_force"]["id"]
    expect(second).not_to eq(first)
    expect(act(act: "back", lesson: second).last["in_force"]["id"]).to eq(first)
  end

  it "is taken by itself where the shop wishes that, from what is there on and whenever more is learned" do
    expect(act(act: "automatic").last).to include("automatic" => true, "in_force" => be_a(Hash))
    first = page["in_force"]["id"]
    owner.call(:post, "/api/ledger/import", one_more)
    TestServer.learn(shop_id)
    expect(page["in_force"]).to include("by" => nil)
    expect(page["in_force"]["id"]).not_to eq(first)
    expect(act(act: "by-hand").last["automatic"]).to be(false)
  end

  it "is the owner's to take, and is not applied to an engine that is only sketched" do
    expect(act(client: Client.as("advisor@merrow.example"), act: "automatic").first).to eq(403)
    take
    shop = NimbleServer::Shop.new(TestServer.db, shop_id)
    sketch = { "provisional?" => true, "code" => "JIV6" }
    expect(described_class.new(shop).for(instance_double(NimbleLedger::Profile::Engine, **sketch))).to be_nil
    seen =
      described_class.new(shop).for(
        instance_double(NimbleLedger::Profile::Engine, "provisional?" => false, "code" => "NEVER1")
      )
    expect(seen["hours"]["jobs"]).to eq(0)
  end

  it "is worked off in the background, by a process of its own, within a minute" do
    owner.call(:post, "/api/ledger/import", one_more)
    expect(page["learning"]).to be_between(0, 1)
    url = TestServer.cluster.url("nimble_web")
    pid = Process.spawn({ "WEB_DATABASE_URL" => url }, "ruby", "#{NimbleServer::ROOT}/server/learner.rb")
    Patience.until(180) { page["learning"].nil? }
    expect(page.values_at("learning", "jobs")).to eq([nil, page["lesson"]["jobs"]])
  ensure
    Process.kill("KILL", pid)
    Process.wait(pid)
  end

  describe "what is to be learned" do
    let(:shop) { NimbleServer::Shop.new(TestServer.db, shop_id) }
    let(:learned) { NimbleServer::Features::Ledger::Learned }

    def waiting = TestServer.db[:que_jobs].where(finished_at: nil).count

    it "is asked for once for each state of the ledger, however often it is looked at" do
      owner.call(:post, "/api/ledger/import", one_more)
      before = waiting
      3.times { page }
      expect(waiting).to eq(before)
      owner.call(:post, "/api/ledger/import", one_more)
      expect(waiting).to eq(before + 1)
    end

    it "is nothing new where nothing moved: learning again keeps what is there" do
      state = learned.new(shop).state
      at = TestServer.db[:ledger_learned].where(shop_id: shop_id).get(:learned_at)
      TestServer.learn(shop_id)
      expect(learned.new(shop).state).to eq(state)
      expect(TestServer.db[:ledger_learned].where(shop_id: shop_id).get(:learned_at)).to eq(at)
      expect(learned.new(shop).progress).to be_nil
    end

    it "fails loudly where it cannot be worked out, so that the job is tried again, and the last stays" do
      owner.call(:post, "/api/ledger/import", one_more)
      stub_const("#{learned}::COMMAND", File.join(NimbleServer::ROOT, "bin/no-such-command"))
      last = learned.new(shop).last
      expect { learned.new(shop).learn }.to raise_error(learned::NotLearned)
      expect(learned.new(shop).last).to eq(last)
      expect(learned.new(shop).progress).to be_between(0, 1)
    end

    it "moves with the house's figures: another quantile is another calibration" do
      other = Client.as("owner@hollow.example")
      id = TestServer.db[:accounts].where(email: "owner@hollow.example").get(:shop_id)
      now = -> { learned.new(NimbleServer::Shop.new(TestServer.db, id)).now }
      set = ->(**given) do
        base = other.call(:get, "/api/house").last["revision"]
        other.call(:put, "/api/house/settings", given.merge(revision: base)).first
      end
      before = now.call
      expect(set.call(settings: { quantile: 0.7 })).to eq(200)
      expect(now.call).not_to eq(before)
      set.call(settings: {}, shipped: ["quantile"])
    end
  end

  describe "cars that came back" do
    let(:shop) { NimbleServer::Shop.new(TestServer.db, shop_id) }
    let(:comebacks) { NimbleServer::Features::Ledger::Comebacks.new(shop) }

    # A card as it is frozen, with work the shop owed.
    def card(job_id, revision, owed)
      request = {
        "engine" => {
          "code" => "CAMEBACK",
          "targets" => [
            { "id" => "coil-5", "work" => "coil" },
            { "id" => "coil-3", "work" => "coil" },
            { "id" => "plug-5", "work" => "plug" }
          ]
        },
        "warranty" => owed
      }
      shop.insert(
        :job_cards,
        job_id: job_id,
        revision: revision,
        agreed: SecureRandom.uuid,
        request: Sequel.pg_jsonb(request),
        sheet: Sequel.pg_jsonb({})
      )
    end

    it "are counted by the newest card of each job, once for each kind of work" do
      jobs = shop[:jobs].select_map(:id).first(2)
      counts = -> do
        comebacks.rows.select { |row| row["engine"] == "CAMEBACK" }.to_h { |row| row.values_at("work", "count") }
      end
      TestServer
        .db
        .transaction(rollback: :always) do
          card(jobs.first, 901, %w[coil-5 coil-3])
          expect(counts.call).to eq("coil" => 1)
          card(jobs.last, 901, %w[coil-5 plug-5])
          expect(counts.call).to eq("coil" => 2, "plug" => 1)
          card(jobs.first, 902, [])
          expect(counts.call).to eq("coil" => 1, "plug" => 1)
        end
    end
  end

  def one_more
    job = NimbleLedger::Ledger::Simulator.new(rand(1_000_000)).jobs(1).first
    { format: "nimble-ledger.history", version: 1, jobs: [job.merge("id" => SecureRandom.uuid)] }
  end
end
