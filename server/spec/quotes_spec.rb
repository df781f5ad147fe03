# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe NimbleServer::Features::Quotes::Desk do
  let(:advisor) { Client.as("advisor@merrow.example") }
  let(:second) { Client.as("second@merrow.example") }
  let(:db) { TestServer.db }

  def save(client, page, version, headers = {}) = client.save(page["quote"]["id"], nil, headers, version: version)

  it "goes from a vehicle to a saved price, and finds it again" do
    page = advisor.start_quote
    status, priced = advisor.choose(page, [5])
    expect(status).to eq(200)
    total = priced["sheet"]["estimate"]["price"]["total_cents"]
    status, saved = save(advisor, page, priced["draft"]["version"])
    expect([status, saved["revision"]["total_cents"]]).to eq([201, total])
    %W[calloway 4tre1m 5550141 #{page["quote"]["number"]}].each do |text|
      text = "555 0141" if text == "5550141"
      numbers =
        advisor.call(:get, "/api/quotes?search=#{Rack::Utils.escape(text)}").last["quotes"].map { |q| q["number"] }
      expect(numbers).to include(page["quote"]["number"])
    end
    expect(advisor.call(:get, "/api/quotes?search=nosuchthing").last["quotes"]).to be_empty
  end

  it "freezes request, answer and lines: they recompute to the same cents, whatever changes later" do
    page = advisor.start_quote
    version = advisor.choose(page, [1, 3, 5]).last["draft"]["version"]
    save(advisor, page, version)
    before = frozen(page)
    with_another_rate do
      live = advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}").last["sheet"]["estimate"]["price"]["total_cents"]
      expect(live).not_to eq(before["scopes"].first["total_cents"])
      expect(frozen(page)).to eq(before)
      scope = before["scopes"].first
      again = NimbleLedger::Estimate::Answer.new(NimbleLedger::Estimate::Request.build(scope["request"])).to_h
      expect(JSON.parse(JSON.generate(again))).to eq(scope["answer"])
      expect(stored_cents(page).sum).to eq(again["price"]["total_cents"])
    end
  end

  def frozen(page) = advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}/revisions/1").last

  def stored_cents(page)
    db[:quote_lines]
      .join(:quote_scopes, shop_id: :shop_id, id: :scope_id)
      .join(:quote_revisions, shop_id: :shop_id, id: :revision_id)
      .where(quote_id: page["quote"]["id"])
      .select_map(Sequel[:quote_lines][:cents])
  end

  # The shop's rate changed for as long as the block runs.
  def with_another_rate
    owner = Client.as("owner@merrow.example")
    keep =
      lambda do |cents|
        house = owner.call(:get, "/api/house").last
        expect(
          owner.call(
            :put,
            "/api/house/settings",
            { settings: { rate_cents: cents }, revision: house["revision"] }
          ).first
        ).to eq(200)
        house["settings"].find { |row| row["name"] == "rate_cents" }["value"]
      end
    rate = keep.call(19_900)
    yield
  ensure
    keep.call(rate)
  end

  it "stores what was shown, and saves nothing whose frozen request would come to something else" do
    page = advisor.start_quote
    version = advisor.choose(page, [1]).last["draft"]["version"]
    allow(NimbleLedger::Estimate::Request).to receive(:build).and_wrap_original do |build, hash, **rest|
      build.call(hash.merge("soak" => "short"), **rest)
    end
    status, refused = save(advisor, page, version)
    expect([status, refused["error"]["code"]]).to eq([500, "not_repeatable"])
    expect(refused["error"]["message"]).to include("plan", "not saved")
    RSpec::Mocks.space.proxy_for(NimbleLedger::Estimate::Request).reset
    status, saved = save(advisor, page, version)
    expect([status, saved["revision"]["revision"]]).to eq([201, 1])
  end

  it "refuses any change to what was shown" do
    page = advisor.start_quote
    save(advisor, page, advisor.choose(page, [2]).last["draft"]["version"])
    {
      quote_revisions: {
        total_cents: 1
      },
      quote_scopes: {
        total_cents: 1
      },
      quote_lines: {
        cents: 1
      }
    }.each do |table, change|
      expect { db[table].update(change) }.to raise_error(Sequel::DatabaseError, /append-only/)
      expect { db[table].delete }.to raise_error(Sequel::DatabaseError, /append-only/)
    end
  end

  it "tells the second of two windows, shows both versions, and keeps the chosen one" do
    page = advisor.start_quote
    advisor.choose(page, [1], version: 1)
    status, clash = advisor.choose(page, [5], version: 1)
    expect([status, clash["error"]["code"]]).to eq([409, "draft_conflict"])
    expect([clash["yours"], clash["theirs"]].map { |c| c["scopes"][0]["cylinders"] }).to eq([[5], [1]])
    status, kept = advisor.choose(page, [5], version: clash["theirs_version"])
    expect([status, kept["draft"]["content"]["scopes"][0]["cylinders"]]).to eq([200, [5]])
  end

  it "tells the second of two advisors who saves, and lets them save on top" do
    page = advisor.start_quote
    advisor.choose(page, [1])
    other = second.call(:get, "/api/quotes/#{page["quote"]["id"]}").last
    second.choose(other, [3])
    expect(save(advisor, page, 2).first).to eq(201)
    status, clash = save(second, page, 2)
    expect([status, clash["error"]["code"], clash["theirs_by"]]).to eq([409, "revision_conflict", "Jory Pellam"])
    expect(second.choose(other, [3], version: 2, base_revision: clash["theirs_revision"]).first).to eq(200)
    status, saved = save(second, page, 3)
    expect([status, saved["revision"]["revision"]]).to eq([201, 2])
  end

  it "carries out a retried write once" do
    page = advisor.start_quote
    version = advisor.choose(page, [4]).last["draft"]["version"]
    answers = 3.times.map { save(advisor, page, version, "Idempotency-Key" => "save-#{page["quote"]["id"]}") }
    expect(answers.map(&:first)).to eq([201, 201, 201])
    expect(answers.uniq.size).to eq(1)
    expect(db[:quote_revisions].where(quote_id: page["quote"]["id"]).count).to eq(1)
  end

  it "saves nothing of an empty quote, and nothing of a bad one" do
    page = advisor.start_quote
    expect(advisor.choose(page, []).first).to eq(200)
    status, body = save(advisor, page, 2)
    expect([status, body["error"]["code"]]).to eq([422, "nothing_to_save"])
    status, body = advisor.choose(page, [99], version: 2)
    expect([status, body["error"]["details"].first["path"]]).to eq([400, "/content/scopes/0/cylinders/0"])
    expect(advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}").last["draft"]["version"]).to eq(2)
  end

  it "numbers quotes per shop without gaps or repeats, under many at once" do
    shop = db[:shops].where(slug: "hollow-lane").first
    actor = NimbleServer::Actor.account(db[:accounts].where(shop_id: shop[:id]).first)
    vehicle = db[:vehicles].where(shop_id: shop[:id]).get(:id)
    threads =
      4.times.map do
        Thread.new do
          5.times.map { described_class.new(NimbleServer::Shop.new(db, shop[:id], actor: actor)).start(vehicle) }
        end
      end
    ids = threads.flat_map(&:value)
    numbers = db[:quotes].where(id: ids).select_order_map(:number)
    expect(numbers).to eq((numbers.first..(numbers.first + 19)).to_a)
  end

  it "says what it assumed about an unknown past" do
    page = advisor.start_quote("1-COD-2H")
    expect(page["resolved"]["assumed"]).to match_array(%w[plugs_changed_km plugs_changed_years compound_used])
    expect(page["resolved"]["history"]).to include(
      "plugs_changed_km" => 0,
      "plugs_changed_years" => Time.now.year - 2009
    )
    expect(page["resolved"]["condition"]).to include("corrosion" => "heavy", "brittle" => true)
  end

  it "prints a saved revision with the same figures" do
    page = advisor.start_quote
    save(advisor, page, advisor.choose(page, [5]).last["draft"]["version"])
    status, pdf = advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}/print.pdf")
    expect([status, pdf[0, 5]]).to eq([200, "%PDF-"])
    text = PDF::Inspector::Text.analyze(pdf).strings.join(" ")
    cents = advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}/revisions/1").last["scopes"].first["total_cents"]
    expect(text).to include(format("$%.2f", cents / 100.0)).and include("4-TRE-1M").and include("Number 5 sits")
    expect(text).not_to match(/Engine cold before|Battery negative off/) # for the bay: the card says it
  end

  describe "what is pinned and chosen" do
    def stored(page, scope, **rest)
      content = page["draft"]["content"].merge("scopes" => [{ "cylinders" => [5], "works" => ["plug"] }.merge(scope)])
      advisor.call(:put, "/api/quotes/#{page["quote"]["id"]}/draft", { version: 1, content: content }.merge(rest))
    end

    {
      "a pin on a target the engine lacks" => [
        { "pins" => { "ways" => { "ghost" => "from-above" } } },
        "/pins/ways/ghost"
      ],
      "a way the target lacks" => [{ "pins" => { "ways" => { "plug-5" => "by-magic" } } }, "/pins/ways/plug-5"],
      "a choice nobody holds" => [{ "pins" => { "choices" => { "cover" => "x" } } }, "/pins/choices/cover"],
      "an extra nobody offers" => [{ "extras" => ["wash"] }, "/content/scopes/0/extras/0"],
      "a cylinder the engine lacks" => [{ "cylinders" => [12] }, "/content/scopes/0/cylinders/0"]
    }.each do |name, (scope, path)|
      it "refuses #{name} with its path, and keeps the working copy as it was" do
        page = advisor.start_quote("8-BUS-3M")
        status, body = stored(page, scope)
        expect([status, body["error"]["details"].map { |detail| detail["path"] }]).to eq([400, [path]])
        expect(advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}").last["draft"]).to include(
          "version" => 1,
          "content" => page["draft"]["content"]
        )
      end
    end

    it "keeps a pin with its scope, priced by it, and freezes it with the revision" do
      page = advisor.start_quote("8-BUS-3M")
      free = stored(page, {}).last["sheet"]["estimate"]["price"]["total_cents"]
      content =
        page["draft"]["content"].merge(
          "scopes" => [
            { "cylinders" => [5], "works" => ["plug"], "pins" => { "ways" => { "plug-5" => "engine-tilted" } } }
          ]
        )
      pinned = advisor.call(:put, "/api/quotes/#{page["quote"]["id"]}/draft", { version: 2, content: content }).last
      expect(pinned["sheet"]["estimate"]["price"]["total_cents"]).to be > free
      save(advisor, page, 3)
      frozen = advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}/revisions/1").last["scopes"][0]
      expect([frozen["request"]["pins"], frozen["answer"]["plan"]["ways"]]).to eq(
        [{ "ways" => { "plug-5" => "engine-tilted" } }, { "plug-5" => "engine-tilted" }]
      )
    end

    it "does not save a scope that cannot be planned, and says which equipment would open it" do
      owner = Client.as("owner@hollow.example")
      page = owner.start_quote("2-RYE-0H")
      _status, priced = owner.choose(page, [5])
      expect(priced["sheet"]["problem"]["code"]).to eq("impossible_plan")
      status, body = owner.save(page["quote"]["id"])
      expect([status, body["error"]["code"], body["error"]["details"].flat_map { |detail| detail["equipment"] }]).to eq(
        [422, "impossible_plan", %w[strap-and-block two-post-lift]]
      )
    end
  end

  describe "hours and a discount set by hand" do
    let(:page) { advisor.start_quote }

    def adjusted(**rest)
      version = page["draft"]["version"]
      content = page["draft"]["content"]
      scope = content["scopes"].first.merge("cylinders" => [5], "works" => ["coil"]).merge(rest.transform_keys(&:to_s))
      advisor.call(
        :put,
        "/api/quotes/#{page["quote"]["id"]}/draft",
        { version: version, content: content.merge("scopes" => [scope]) }
      )
    end

    it "are priced, frozen with their reasons, and recompute to the same cents" do
      _status, priced =
        adjusted(
          hours: {
            by_hours: -0.5,
            reason: "known car",
            targets: ["coil-5"]
          },
          discount: {
            cents: 1_500,
            label: "Goodwill"
          }
        )
      hours = priced["sheet"]["estimate"]["hours"]
      expect(hours["computed"] - hours["quoted"]).to be_within(1e-9).of(0.5)
      save(advisor, page, priced["draft"]["version"])
      scope = advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}/revisions/1").last["scopes"].first
      expect(scope["request"]).to include(
        "override" => {
          "by_hours" => -0.5,
          "reason" => "known car"
        },
        "discount" => {
          "cents" => 1_500,
          "label" => "Goodwill"
        }
      )
      again = NimbleLedger::Estimate::Answer.new(NimbleLedger::Estimate::Request.build(scope["request"]))
      expect([again.price.total_cents, again.quoted_tenths / 10.0]).to eq([scope["total_cents"], hours["quoted"]])
      expect(scope["answer"]["price"]["lines"]).to include(
        a_hash_including("kind" => "discount", "label" => "Goodwill", "cents" => -1_500)
      )
    end

    it "are refused with the place that is wrong, and nothing is stored" do
      {
        { hours: { by_hours: -0.5, reason: "", targets: ["coil-5"] } } => "hours/reason",
        { hours: { by_hours: -0.25, reason: "x", targets: ["coil-5"] } } => "by_hours",
        { discount: { cents: -5, label: "Surcharge" } } => "discount/cents",
        { discount: { cents: 500 } } => "/discount/label"
      }.each do |rest, place|
        status, body = adjusted(**rest)
        expect(status).to eq(400)
        expect(body["error"]["details"].first["path"]).to end_with(place)
      end
      expect(advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}").last["draft"]["version"]).to eq(
        page["draft"]["version"]
      )
    end
  end

  it "puts scopes beside each other when asked, each with what it leaves for another day" do
    page = advisor.start_quote
    content = page["draft"]["content"]
    one = content["scopes"].first.merge("cylinders" => [5], "works" => ["coil"])
    body = {
      version: 1,
      content: content.merge("scopes" => [one, one.merge("cylinders" => [1, 3, 5], "name" => "Rear bank")])
    }
    status, priced = advisor.call(:put, "/api/quotes/#{page["quote"]["id"]}/draft", body)
    expect(status).to eq(200)
    panel = advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}/panels/beside").last
    expect(panel["version"]).to eq(priced["draft"]["version"])
    beside = panel["beside"]
    expect(beside.map { |row| [row["title"], row["name"]] }).to eq([["Coil 5", ""], ["Coils 1, 3 and 5", "Rear bank"]])
    expect(beside[0]["total_cents"]).to eq(priced["sheet"]["estimate"]["price"]["total_cents"])
    expect(beside[1]["total_cents"]).to eq(priced["others"].first["total_cents"])
    expect(beside[0]["both_cents"]).to be > beside[1]["total_cents"]
    expect(priced.keys).not_to include("beside")
    expect(advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}/panels/layers").first).to eq(404)
  end

  describe "true saves" do
    let(:page) { advisor.start_quote }
    let(:id) { page["quote"]["id"] }
    let(:owner) { Client.as("owner@merrow.example") }

    def owner_keeps(body)
      owner.call(:put, "/api/house/settings", body.merge(revision: owner.call(:get, "/api/house").last["revision"]))
    end

    it "freezes no price nobody saw: the house changed between showing and saving" do
      shown = advisor.choose(page, [5]).last
      owner_keeps({ settings: { rate_cents: 90_000 } })
      status, body = advisor.save(id, shown)
      now = advisor.call(:get, "/api/quotes/#{id}").last["sheet"]["estimate"]["price"]["total_cents"]
      expect([status, body["error"]["code"], body["changed"]]).to eq([409, "price_change", ["house"]])
      expect(body.values_at("shown_cents", "now_cents")).to eq(
        [shown["sheet"]["estimate"]["price"]["total_cents"], now]
      )
      expect(db[:quote_revisions].where(quote_id: id).count).to eq(0)
      status, saved = advisor.save(id)
      expect([status, saved["revision"]["total_cents"]]).to eq([201, now])
    ensure
      owner_keeps({ shipped: ["rate_cents"] })
    end

    it "nor when the price list changed, nor when the car is another one than thought" do
      shown = advisor.choose(page, [5]).last
      prices = owner.call(:get, "/api/prices").last["revision"]
      owner.call(
        :post,
        "/api/prices",
        { rows: [{ part: "ZZ-SAVE-#{prices}", supplier: "Wharf", cost: "3.00" }], revision: prices }
      )
      expect(advisor.save(id, shown).last["changed"]).to eq(["prices"])
      shown = advisor.call(:get, "/api/quotes/#{id}").last
      advisor.call(:put, "/api/vehicles/#{page["vehicle"]["id"]}/history", { corrosion: "heavy" })
      expect(advisor.save(id, shown).last["changed"]).to eq(["car"])
    ensure
      advisor.call(:put, "/api/vehicles/#{page["vehicle"]["id"]}/history", { corrosion: "light" })
    end

    it "saves again what comes to something else by now, changed or not, and says so before" do
      shown = advisor.choose(page, [2]).last
      expect(advisor.save(id, shown).last["revision"]["revision"]).to eq(1)
      open = -> { advisor.call(:get, "/api/quotes/#{id}").last }
      expect(open.call["moved_since"]).to be_nil
      expect(advisor.save(id, open.call).last["revision"]["revision"]).to eq(1) # nothing moved: the same
      with_another_rate do
        now = open.call
        expect(now["moved_since"]).to eq(1)
        status, saved = advisor.save(id, now)
        expect([status, saved["revision"]["revision"]]).to eq([201, 2])
        expect(saved["revision"]["total_cents"]).to be > open.call["revisions"].first["total_cents"]
        expect(open.call.values_at("moved_since")).to eq([nil])
        other = second.call(:get, "/api/quotes/#{id}").last # somebody who has changed nothing
        expect(second.save(id, other).last["revision"]["revision"]).to eq(2)
      end
      other = second.call(:get, "/api/quotes/#{id}").last
      expect(second.save(id, other).last["revision"]["revision"]).to eq(3)
    end

    it "makes one revision of one version, however many saves of it come at once" do
      shown = advisor.choose(page, [2]).last
      clients = 10.times.map { Client.as("advisor@merrow.example") }
      answers =
        clients
          .map do |client|
            Thread.new do
              loop do
                answer = client.save(id, shown, { "Idempotency-Key" => SecureRandom.uuid })
                break answer unless answer.first == 429
              end
            end
          end
          .map(&:value)
      expect(answers.map(&:first)).to all(eq(201))
      expect(answers.map { |_status, body| body["revision"]["revision"] }.uniq).to eq([1])
      expect(db[:quote_revisions].where(quote_id: id).count).to eq(1)
    end

    it "refuses another body under the same key, and drops nothing silently" do
      shown = advisor.choose(page, [2]).last
      key = { "Idempotency-Key" => SecureRandom.uuid }
      expect(advisor.save(id, shown, key).first).to eq(201)
      other = advisor.choose(page, [3], version: shown["draft"]["version"]).last
      status, body = advisor.save(id, other, key)
      expect([status, body["error"]["code"]]).to eq([409, "idempotency_key"])
      expect(advisor.save(id, other, { "Idempotency-Key" => SecureRandom.uuid }).last["revision"]["revision"]).to eq(2)
    end

    it "knows only revisions that are there to stand on" do
      status, body = advisor.choose(page, [1], base_revision: 7)
      expect([status, body["error"]["code"], body["error"]["details"].first["path"]]).to eq(
        [422, "unknown_revision", "/base_revision"]
      )
      expect(advisor.save(id, advisor.choose(page, [1], base_revision: 0).last).first).to eq(201)
    end

    it "saves after a move to a newer engine revision what the page shows, without what it says was dropped" do
      code = "MOVE-#{SecureRandom.hex(3)}"
      profile = owner.call(:get, "/api/engines/SK18").last["profile"].merge("code" => code)
      owner.call(:post, "/api/engines", profile)
      car = advisor.call(:post, "/api/vehicles", { plate: code, description: "Pellwick Breve", engine_code: code }).last
      quote = advisor.call(:post, "/api/quotes", { vehicle_id: car["id"] }).last
      content =
        quote["draft"]["content"].merge(
          "scopes" => [{ "cylinders" => [1], "works" => ["plug"], "extras" => ["throttle-clean"] }]
        )
      advisor.call(:put, "/api/quotes/#{quote["quote"]["id"]}/draft", { version: 1, content: content })
      owner.call(
        :post,
        "/api/engines",
        profile.merge("targets" => profile["targets"].reject { |t| t["id"] == "throttle-clean" })
      )
      moved = advisor.call(:post, "/api/quotes/#{quote["quote"]["id"]}/engine").last
      expect(moved["dropped"]).to eq(["throttle-clean"])
      status, saved = advisor.save(quote["quote"]["id"])
      expect([status, saved["revision"]["total_cents"]]).to eq(
        [201, moved["sheet"]["estimate"]["price"]["total_cents"]]
      )
    end
  end

  it "changes how a customer is called, finds quotes by the new name, and prints 113 letters" do
    page = advisor.start_quote("3-BEE-4M")
    advisor.save(page["quote"]["id"], advisor.choose(page, [1]).last)
    name =
      "Wensleydale Marchbanks-Featherstonehaugh of the Upper Orchard Lane Bee Keepers and Cider Makers Union, " \
        "Merrow Isles"
    expect(name.length).to be >= 113
    status, stored =
      advisor.call(
        :put,
        "/api/customers/#{page["vehicle"]["customer_id"]}",
        { name: " #{name} ", phone: "", email: "bees@merrow.example" }
      )
    expect([status, stored]).to eq(
      [
        200,
        {
          "id" => page["vehicle"]["customer_id"],
          "name" => name,
          "phone" => nil,
          "email" => "bees@merrow.example",
          "wishes" => nil
        }
      ]
    )
    expect(
      advisor.call(:get, "/api/quotes?search=featherstonehaugh").last["quotes"].map { |q| q["number"] }
    ).to include(page["quote"]["number"])
    text =
      PDF::Inspector::Text
        .analyze(advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}/print.pdf").last)
        .strings
        .join(" ")
    expect(text).to include("Wensleydale").and include("Merrow Isles")
  end
end
