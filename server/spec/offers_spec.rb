# frozen_string_literal: true

require_relative "spec_helper"

# A quote that is sent, read out, agreed to, declined, left to lapse: each act in one well-defined state, in the record.
RSpec.describe NimbleServer::Features::Offers do
  before(:context) do
    @cluster = TestServer.demo_cluster
    @db = NimbleServer::Database.connect(@cluster.url)
    @app = TestServer.build(@cluster)
    @advisor = Client.new(@app).tap { |client| client.sign_in("advisor@merrow.example") }
    @customer = Client.new(@app)
  end

  after(:context) do
    @db.disconnect
    @cluster.stop
  end

  let(:shop_id) { @db[:shops].where(slug: "merrow-quay").get(:id) }

  def saved(scopes = [[5]], plate: "4-TRE-1M")
    page = @advisor.start_quote(plate)
    add(page["quote"]["id"], scopes)
  end

  # Saves these cylinders as scopes on top of what is there.
  def add(id, scopes)
    page = @advisor.call(:get, "/api/quotes/#{id}").last
    content = page["draft"]["content"]
    made = scopes.map { |numbers| content["scopes"].first.merge("cylinders" => numbers, "works" => %w[plug coil]) }
    stored =
      @advisor.call(
        :put,
        "/api/quotes/#{id}/draft",
        { version: page["draft"]["version"], content: content.merge("scopes" => made) }
      ).last
    expect(@advisor.save(id, stored).first).to eq(201)
    id
  end

  def offer(id, channel: "text", revision: 1, **rest)
    given = { revision: revision, channel: channel, recipient: "Ines Calloway", address: "555 0101" }.merge(rest)
    @advisor.call(:post, "/api/quotes/#{id}/offers", given)
  end

  def answer(offer, **given)
    body = { position: 0, answer: "yes", how: "phone", name: "Ines Calloway" }.merge(given)
    body[:limit_cents] ||= offer["scopes"][body[:position]]["limit_cents"] if body[:answer] == "yes"
    @advisor.call(:post, "/api/offers/#{offer["id"]}/answers", body)
  end

  def acts = @db[:record_entries].where(shop_id: shop_id).order(:seq).map { |row| JSON.parse(row[:bytes]) }
  def path(offer) = URI(offer["link"]).path

  # A press on the customer's page.
  def press(offer, **fields)
    @customer.header "Content-Type", "application/x-www-form-urlencoded"
    @customer.post(path(offer), URI.encode_www_form(fields))
    [@customer.last_response.status, @customer.last_response.body]
  end

  def read(offer)
    @customer.get(path(offer))
    @customer.last_response.body
  end

  def yes(offer, position = 0, name: "Ines Calloway") =
    press(offer, act: "yes-#{position}-#{offer["scopes"][position]["limit_cents"]}", name: name)

  it "keeps a yes by phone with who, how, what, limit, when and by whom, and opens the job" do
    id = saved
    page = offer(id, channel: "phone").last
    sent = page["offers"].first
    expect([sent["state"], sent["scopes"].map { |scope| scope["state"] }]).to eq(["sent", ["sent"]])
    expect(sent["scopes"].first["spoken"].join(" ")).to include("We will not go above")
    status, body = answer(sent)
    expect(status).to eq(201)
    expect(body["offers"].first["scopes"].first["answer"]).to include(
      "answer" => "yes",
      "how" => "phone",
      "name" => "Ines Calloway",
      "limit_cents" => sent["scopes"].first["limit_cents"],
      "taken_by" => "Jory Pellam"
    )
    expect(body["job"]).to include("agreed_cents" => sent["scopes"].first["total_cents"])
    expect(body["quote"]["status"]).to eq("authorized")
    kinds = acts.last(3).map { |act| act["kind"] }
    expect(kinds).to eq(%w[offer-read-out yes job-opened])
    seal = @db[:quote_seals].order(:created_at).last[:sha256]
    expect(acts[-2]["body"]).to include("sealed" => seal, "how" => "phone", "name" => "Ines Calloway")
  end

  it "hands a message with the link's place to the outbox once, and keeps only the link's digest" do
    id = saved
    sent = offer(id).last["offers"].first
    row = @db[:messages].where(offer_id: sent["id"]).first
    expect(row[:body]).to include("{link}").and include("Ines Calloway")
    secret = path(sent).delete_prefix("/y/")
    everything = @db.tables.flat_map { |table| @db[table].all }.map(&:to_s).join
    expect(everything).not_to include(secret)
    letters = NimbleServer::Features::Outbox::Letters.new(NimbleServer::Shop.new(@db, shop_id))
    found = NimbleServer::Features::Offers::Reading.new(NimbleServer::Shop.new(@db, shop_id)).find(sent["id"])
    expect(letters.put(found, kind: "offer", subject: "again", body: "again")).to be(false)
    expect(@db[:messages].where(offer_id: sent["id"]).count).to eq(1)
  end

  it "says that nothing is sent where no carrier is connected: the link is made, and nothing waits to be carried" do
    @db[:shops].where(id: shop_id).update(demo: false)
    sent = offer(saved).last["offers"].first
    expect([sent["message"], sent["channel"], sent["link"]]).to match([nil, "text", a_string_including("/y/")])
    expect(@db[:messages].where(offer_id: sent["id"]).count).to eq(0)
    expect(@advisor.call(:get, "/api/session").last["shop"]["stand_ins"]).to be(false)
    quote = @db[:offers].where(id: sent["id"]).get(:quote_id)
    status, refused = @advisor.call(:post, "/api/quotes/#{quote}/trace/codes")
    expect([status, refused["error"]["code"]]).to eq([503, "no_scan_tool"])
  ensure
    @db[:shops].where(id: shop_id).update(demo: true)
  end

  it "keeps what was chosen on the customer's page when a name was forgotten" do
    sent = offer(saved([[5], [1, 3, 5]])).last["offers"].first
    limit = sent["scopes"][1]["limit_cents"]
    status, html = press(sent, act: "yes-1-#{limit}", choice: "1", name: "")
    expect(status).to eq(422)
    expect(html[/<input type="radio"[^>]*value="1"[^>]*>/]).to include("checked")
    expect(html[/<input type="radio"[^>]*value="0"[^>]*>/]).not_to include("checked")
    expect(html[/<input name="name"[^>]*>/]).to include("autofocus", 'aria-invalid="true"')
    expect(press(sent, act: "yes-1-#{limit}", choice: "77", name: "")[1][/<input type="radio"[^>]*value="0"[^>]*>/]).to(
      include("checked")
    )
  end

  it "shows the customer what, why, what could happen and up to what, and takes a yes with a name" do
    sent = offer(saved([[5], [1, 3, 5]])).last["offers"].first
    body = read(sent)
    expect(body).to include("Merrow Quay Garage, for Ines Calloway", "What could happen", "<svg")
    expect(body.scan('name="act" class="yes').size).to eq(2)
    # each choice has odds of its own: three plugs break more often than one
    odds = body.scan(/A plug breaks, in ([\d.]+) of 100/).flatten.map(&:to_f)
    expect([odds.size, odds]).to eq([2, odds.sort.uniq])
    # cylinder 5 lies under the upper intake manifold on this engine, and the page says so
    expect(body).to match(/number 5|cylinder 5/i).and(match(/under the [^.]*manifold/))
    expect(press(sent, act: "yes-0-#{sent["scopes"][0]["limit_cents"]}", name: "")).to match(
      [422, a_string_including("Please type your name")]
    )
    expect(yes(sent).first).to eq(303)
    expect(read(sent)).to include("Ines Calloway said yes to").and(satisfy { |html| !html.include?('name="act"') })
    last = acts.reverse.find { |act| act["kind"] == "yes" }
    expect(last["actor"]).to include("kind" => "customer-link", "id" => sent["id"])
    states = @advisor.call(:get, "/api/quotes/#{@db[:offers].where(id: sent["id"]).get(:quote_id)}/yes").last
    expect(states["offers"].first["scopes"].map { |scope| scope["state"] }).to eq(%w[authorized superseded])
  end

  it "says on page and paper who it is from and which taxes the total holds" do
    sent = offer(saved([[5]])).last["offers"].first
    expect(read(sent)).to include("1 Merrow Quay, Merrow Island", "Open Monday to Friday").and(
      include("Tax is in the total here: Sales tax on parts, 7.5 %.")
    )
    number = @db[:offers].where(id: sent["id"]).get(:quote_id)
    pdf = @advisor.call(:get, "/api/quotes/#{number}/print.pdf?revision=1").last
    printed = PDF::Inspector::Text.analyze(pdf).strings.join(" ")
    expect(printed).to include("desk@merrow.example", "Island tax no. 118-204", "Sales tax on parts, 7.5 %")
    expect(paper(sent).strings.join(" ")).to include("1 Merrow Quay")
  end

  it "decides nothing by GET, and notes that somebody looked only when the page says so" do
    sent = offer(saved).last["offers"].first
    before = acts.size
    @customer.get("#{path(sent)}?act=yes-0-1&name=Ines")
    @customer.head(path(sent))
    expect(acts.size).to eq(before)
    expect(@db[:offers].where(id: sent["id"]).get(:seen_at)).to be_nil
    @customer.post("#{path(sent)}/seen", "")
    expect(@db[:offers].where(id: sent["id"]).get(:seen_at)).not_to be_nil
  end

  it "takes a no with a reason, and thanks; a question lands on the Counter until somebody settled it" do
    sent = offer(saved).last["offers"].first
    expect(press(sent, act: "question", question: "Does that include <b>boots</b>?").first).to eq(303)
    asked = @advisor.call(:get, "/api/counter").last["questions"].find { |row| row["words"].include?("boots") }
    expect(read(sent)).to include("Your question has reached us")
    expect(@advisor.call(:post, "/api/questions/#{asked["id"]}/settled").first).to eq(200)
    expect(@advisor.call(:get, "/api/counter").last["questions"].map { |row| row["id"] }).not_to include(asked["id"])
    expect(press(sent, act: "no", reason: "Selling the car").first).to eq(303)
    expect(read(sent)).to include("You said no to")
    expect(acts.last).to include("kind" => "no")
    expect(acts.last["body"]["reason"]).to eq("Selling the car")
  end

  # Under which headings of the Counter a quote stands.
  def standing(id)
    counter = @advisor.call(:get, "/api/counter").last
    %w[questions undelivered waiting lapsed].select { |part| counter[part].any? { |row| row["quote_id"] == id } }
  end

  it "stands on the Counter once: as not arrived until somebody says it, or it lapses" do
    spoken, lapsing = Array.new(2) { saved }
    sent = [spoken, lapsing].map { |id| offer(id).last["offers"].first }
    expect([spoken, lapsing].map { |id| standing(id) }).to all(eq(%w[waiting]))
    @db[:messages].where(offer_id: sent.map { |one| one["id"] }).update(state: "failed")
    expect([spoken, lapsing].map { |id| standing(id) }).to all(eq(%w[undelivered]))
    expect(answer(sent.first).first).to eq(201)
    expect(standing(spoken)).to eq([])
    row = @db[:offers].where(id: sent.last["id"])
    until_then = row.get(:expires_at)
    row.update(expires_at: Time.now - 60)
    expect(standing(lapsing)).to eq(%w[lapsed])
  ensure
    row&.update(expires_at: until_then)
  end

  it "supersedes only when told, and what was sent then says so and takes nothing" do
    id = saved
    first = offer(id).last["offers"].first
    add(id, [[1, 3, 5]])
    status, body = offer(id, revision: 2)
    expect([status, body["error"]["code"]]).to eq([409, "offer_waits"])
    second = offer(id, revision: 2, supersede: true).last["offers"].first
    expect(read(first)).to include("A newer quote has taken this one")
    expect(yes(first)).to match([409, a_string_including("decided meanwhile")])
    expect(answer(first).last["error"]["code"]).to eq("superseded")
    expect(yes(second).first).to eq(303)
    expect(offer(id, revision: 1).last["error"]["code"]).to eq("old_revision")
  end

  it "lapses kindly after the house's days, and can be sent again" do
    id = saved
    sent = offer(id).last["offers"].first
    expect(@db[:offers].where(id: sent["id"]).get(:expires_at)).to be_within(60).of(Time.now + (30 * 86_400))
    row = @db[:offers].where(id: sent["id"])
    until_then = row.get(:expires_at)
    row.update(expires_at: Time.now - 60)
    expect(read(sent)).to include("has lapsed. Call us")
    expect(yes(sent).first).to eq(409)
    expect(answer(sent).last["error"]["code"]).to eq("expired")
    expect(@advisor.call(:get, "/api/counter").last["lapsed"].map { |row| row["number"] }).to include(
      @db[:quotes].where(id: id).get(:number)
    )
    given = { revision: 1, channel: "text", recipient: "Ines Calloway", address: "555 0101" }
    expect(@advisor.call(:post, "/api/quotes/#{id}/offers", given).first).to eq(201)
  ensure
    row.update(expires_at: until_then)
  end

  it "refuses a yes to another limit than was offered, and a limit below the total" do
    sent = offer(saved).last["offers"].first
    limit = sent["scopes"].first["limit_cents"]
    expect(press(sent, act: "yes-0-#{limit + 1}", name: "Ines Calloway")).to match(
      [409, a_string_including("amount has changed")]
    )
    expect(
      answer(sent, limit_cents: sent["scopes"].first["total_cents"] - 1).last["error"]["details"].first["path"]
    ).to eq("/limit_cents")
    low = offer(saved, limits: [{ position: 0, limit_cents: 1 }])
    expect([low.first, low.last["error"]["details"].first["path"]]).to eq([422, "/limits/0/limit_cents"])
  end

  it "closes a link in an open tab, while a yes by phone still counts" do
    sent = offer(saved).last["offers"].first
    expect(@advisor.call(:post, "/api/offers/#{sent["id"]}/revocation").first).to eq(200)
    expect(yes(sent).first).to eq(409)
    closed = read(sent)
    expect(closed).to include("This link was closed by the shop")
    expect(closed).not_to match(/Ines|4-TRE-1M|\$\d/)
    expect(answer(sent).first).to eq(201)
    expect(acts.map { |act| act["kind"] }.last(3)).to eq(%w[link-revoked yes job-opened])
  end

  it "keeps one of two yeses that come at once" do
    sent = offer(saved([[5], [1, 3, 5]])).last["offers"].first
    answers =
      [0, 1].map do |position|
          Thread.new do
            client = Client.new(@app)
            client.header "Content-Type", "application/x-www-form-urlencoded"
            limit = sent["scopes"][position]["limit_cents"]
            client.post(path(sent), URI.encode_www_form(act: "yes-#{position}-#{limit}", name: "Ines Calloway"))
            client.last_response.status
          end
        end
        .map(&:value)
    expect(answers.sort).to eq([303, 409])
    expect(@db[:offer_answers].where(offer_id: sent["id"]).count).to eq(1)
  end

  it "makes found work a supplement: what was agreed, what is new, a yes of its own" do
    id = saved
    first = offer(id, channel: "phone").last["offers"].first
    answer(first)
    agreed = first["scopes"].first["total_cents"]
    add(id, [[3, 5]])
    sent = offer(id, revision: 2).last["offers"].first
    expect(sent["supplement"]).to be(true)
    expect(sent["scopes"].first["before_cents"]).to eq(agreed)
    expect(read(sent)).to include("What is new", "more than the")
    expect(yes(sent).first).to eq(303)
    page = @advisor.call(:get, "/api/quotes/#{id}/yes").last
    expect(page["job"]["agreed_cents"]).to eq(sent["scopes"].first["total_cents"])
    expect(page["offers"].map { |one| one["state"] }).to eq(%w[authorized authorized])
  end

  it "sells finding out: on the quote's lines, on the phone and on the customer's page" do
    page = @advisor.start_quote
    id = page["quote"]["id"]
    content = page["draft"]["content"].merge("diagnosis" => { "hours" => 0.8, "buys" => "swap the coil, read again" })
    content["scopes"][0]["cylinders"] = [5]
    stored = @advisor.call(:put, "/api/quotes/#{id}/draft", { version: 1, content: content }).last
    expect(stored["sheet"]["diagnosis"]).to include("hours" => 0.8, "cents" => 11_600, "credited" => true)
    expect(@advisor.save(id, stored).first).to eq(201)
    sent = offer(id).last["offers"].first
    expect(sent["scopes"].first["spoken"].join(" ")).to include("Finding the fault costs nothing beside the repair")
    expect(read(sent)).to include("It buys: swap the coil, read again.")
    lines = @db[:quote_lines].where(kind: "diagnosis").select_order_map(:cents)
    expect(lines).to eq([-11_600, 11_600])
  end

  it "is never less than it says: a total without the price of a part is not offered" do
    engine = @db[:engine_profiles].where(shop_id: shop_id, code: "JIV6").get(:profile).to_h
    coil = engine["coils"].find { |one| one["cylinders"] == [5] }["part"]
    list = @db[:price_lists].where(shop_id: shop_id).order(Sequel.desc(:revision)).first
    catalog = list[:catalog].to_h
    gone = catalog.merge("offers" => catalog["offers"].reject { |row| row["part"] == coil })
    gone["items"] = catalog["items"].map { |row| row["part"] == coil ? row.except("list_cents") : row }
    gone["shelf"] = (catalog["shelf"] || []).reject { |row| row["part"] == coil }
    keep_prices(list, 1, gone)
    id = saved
    status, body = offer(id)
    expect([status, body["error"]["code"]]).to eq([422, "incomplete_total"])
  ensure
    keep_prices(list, 2, catalog)
  end

  it "says less where a supplement comes to less" do
    id = saved([[1, 3, 5]])
    answer(offer(id, channel: "phone").last["offers"].first)
    add(id, [[5]])
    sent = offer(id, revision: 2).last["offers"].first
    expect(sent["scopes"].first["spoken"].join(" ")).to match(/This comes to \$[\d.,]+ less/)
    expect(read(sent)).to match(/\$[\d.,]+ less than the/)
  end

  it "speaks German where the shop does" do
    @db[:shops].where(id: shop_id).update(locale: "de-DE")
    sent = offer(saved).last["offers"].first
    body = read(sent)
    expect(body).to include('lang="de"', "Was geschehen kann", "Ja zu Zündkerzen und Zündspulen, Zylinder 5")
    expect(body).to match(/\d,\d\d.\$/)
    expect(body).to match(/Darüber liegt: .*und \d weitere Lagen/)
  ensure
    @db[:shops].where(id: shop_id).update(locale: "en-US")
  end

  it "writes markup as text, and answers a link that is none with words only" do
    sent = offer(saved, recipient: "<img src=x onerror=alert(1)>").last["offers"].first
    expect(read(sent)).to include("&lt;img src=x").and(satisfy { |html| !html.include?("<img") })
    @customer.get("/y/#{"a" * 43}")
    expect([@customer.last_response.status, @customer.last_response.body]).to match(
      [404, a_string_including("There is no quote here")]
    )
  end

  it "lets one address try a link so often a minute, and says so kindly" do
    sent = offer(saved).last["offers"].first
    was = ENV.fetch("LINK_VISITS_PER_MINUTE")
    @db[:counters].delete
    ENV["LINK_VISITS_PER_MINUTE"] = "5"
    5.times { read(sent) }
    expect(@customer.last_response.status).to eq(200)
    expect([read(sent), @customer.last_response.status]).to match([a_string_including("Too many tries from here"), 429])
    expect(yes(sent).first).to eq(429)
    expect(@db[:offer_answers].where(offer_id: sent["id"]).count).to eq(0)
  ensure
    ENV["LINK_VISITS_PER_MINUTE"] = was
    @db[:counters].delete
  end

  it "goes out whole as JSON: revisions with what recomputes them, offers, answers, seals" do
    id = saved
    answer(offer(id, channel: "phone").last["offers"].first)
    status, out = @advisor.call(:get, "/api/quotes/#{id}/export")
    expect([status, out["format"], out["version"]]).to eq([200, "nimble-ledger.quote", 1])
    revision = out["revisions"].first
    again = NimbleLedger::Estimate::Request.build(revision["scopes"].first["request"]).answer
    expect(again["price"]["total_cents"]).to eq(revision["scopes"].first["answer"]["price"]["total_cents"])
    row = @db[:quote_seals].where(sha256: revision["sha256"]).first
    expect(Digest::SHA256.hexdigest(row[:bytes])).to eq(revision["sha256"])
    expect(out["offers"].first["scopes"].first["answer"]).to include("answer" => "yes", "how" => "phone")
  end

  it "records what was set by hand: a discount and hours with the revision, a limit with the offer" do
    id = saved
    before = acts.size
    offer(id, limits: [{ position: 0, limit_cents: 1_000_000 }])
    expect(acts.drop(before).map { |act| act["kind"] }).to eq(%w[offer-sent limit-changed])
    expect(acts.last["body"]).to include("limit_cents" => 1_000_000)
  end

  it "prints the page to sign with both scopes side by side and a code to scan, and what was agreed after" do
    sent = offer(saved([[5], [1, 3, 5]]), channel: "paper").last["offers"].first
    sign = paper(sent)
    expect(sign.strings.join(" ")).to include("Authorization, quote", "not above, without a call", "Signature")
    expect(sign.pages.size).to eq(1)
    expect(answer(sent, how: "paper", position: 1).first).to eq(201)
    agreed = paper(sent).strings.join(" ")
    expect(agreed).to include("Ines Calloway said yes to").and include("Kept in the shop's record")
    head = agreed[/record (\d+ \h{12})/, 1] || agreed[/is now (\d+ \h{12})/, 1]
    expect(head).to eq(NimbleServer::Features::Record::ActLog.new(NimbleServer::Shop.new(@db, shop_id)).head)
  end

  # Text and pages of the page to sign.
  def paper(sent)
    pdf = @advisor.call(:get, "/api/offers/#{sent["id"]}/authorization.pdf").last
    text = PDF::Inspector::Text.analyze(pdf)
    Struct.new(:strings, :pages).new(text.strings, PDF::Inspector::Page.analyze(pdf).pages)
  end

  # A price list so many revisions after another one, as the program keeps it.
  def keep_prices(list, later, catalog)
    row = list.merge(id: SecureRandom.uuid, revision: list[:revision] + later, catalog: Sequel.pg_jsonb(catalog))
    NimbleServer::Shop.new(@db, shop_id).transaction { @db[:price_lists].insert(row) }
  end

  def verified = NimbleServer::Features::Record::Verification.new(@db, NimbleServer::Features::Record::Keys.current).run

  it "hands the secret link to nobody who may not send, and takes no answer from a browser of the shop" do
    sent = offer(saved, channel: "text").last["offers"].first
    technician = Client.new(@app).tap { |client| client.sign_in("bay@merrow.example") }
    quote = @db[:offers].where(id: sent["id"]).get(:quote_id)
    seen = technician.call(:get, "/api/quotes/#{quote}/yes").last["offers"].first
    expect([sent["link"], seen["link"]]).to match([%r{/y/}, nil])
    path = URI(sent["link"]).path
    limit = sent["scopes"].first["limit_cents"]
    technician.post(path, URI.encode_www_form(act: "yes-0-#{limit}", name: "Somebody"))
    expect([technician.last_response.status, technician.last_response.body]).to match([403, include("signed in")])
    technician.post("#{path}/seen", "")
    row = @db[:offers].where(id: sent["id"])
    expect([row.get(:seen_at), @db[:offer_answers].where(offer_id: sent["id"]).count]).to eq([nil, 0])
    customer = Client.new(@app)
    customer.post(path, URI.encode_www_form(act: "yes-0-#{limit}", name: "Ines Calloway"))
    expect([customer.last_response.status, @db[:offer_answers].where(offer_id: sent["id"]).count]).to eq([303, 1])
  end

  {
    "mail" => ["javascript:alert(1)", "a@b.example,c@d.example", "a@b", "a b@c.example", "<a@b.example>", ""],
    "text" => ["call me", "javascript:alert(1)", "12", "555 0101, 555 0102", ""]
  }.each do |channel, addresses|
    it "sends by #{channel} to one address that is one" do
      id = saved
      given = ->(address) { { revision: 1, channel: channel, recipient: "Ines", address: address, supersede: true } }
      addresses.each do |address|
        status, body = @advisor.call(:post, "/api/quotes/#{id}/offers", given.call(address))
        expect([address, status, body["error"]["details"].first["path"]]).to eq([address, 422, "/address"])
      end
      good = channel == "mail" ? "ines.calloway+boat@harbor.example" : "+1 (555) 0101"
      expect(@advisor.call(:post, "/api/quotes/#{id}/offers", given.call(good)).first).to eq(201)
    end
  end

  it "leaves a record that verifies" do
    expect(verified.map(&:fault)).to all(be_nil)
  end

  describe "whoever changes what was said, as the owner of the database" do
    # What is found while triggers are off; put back afterwards.
    def tampered
      found = nil
      @db.transaction(rollback: :always) do
        @db.run("SET LOCAL session_replication_role = replica")
        yield
        found = verified.find { |row| row.shop == "Merrow Quay Garage" }.fault
      end
      found
    end

    before { answer(offer(saved, channel: "phone").last["offers"].first) }

    it "is named, with the first entry that does not hold" do
      yes = @db[:offer_answers].where(shop_id: shop_id, answer: "yes").order(:created_at).last
      row = @db[:offer_answers].where(id: yes[:id])
      expect(tampered { row.update(limit_cents: 1) }).to match(/\Aentry \d+: the answer was changed/)
      expect(tampered { row.update(name: "Somebody Else") }).to match(/the answer was changed/)
      expect(tampered { row.delete }).to match(/the answer it tells of is missing/)
      expect(tampered { @db[:offers].where(id: yes[:offer_id]).update(recipient: "Nobody") }).to match(
        /the offer was changed/
      )
      expect(tampered { @db[:offer_scopes].where(offer_id: yes[:offer_id]).update(total_cents: 5) }).to match(
        /the offer was changed/
      )
      copied = yes.merge(id: SecureRandom.uuid, position: 7)
      expect(tampered { @db[:offer_answers].insert(copied) }).to match(/is not in the record/)
      expect(tampered { @db[:jobs].where(shop_id: shop_id).update(limit_cents: 9) }).to match(/the job was changed/)
      expect(tampered { @db[:offer_questions].where(shop_id: shop_id).delete }).to match(
        /the question it tells of is missing/
      )
    end
  end

  it "tells the customer what the months after bring only where the advisor says so" do
    pages =
      [true, false].map do |shown|
        start = @advisor.start_quote
        id = start["quote"]["id"]
        content = start["draft"]["content"]
        scope = content["scopes"].first.merge("cylinders" => [5], "works" => %w[coil])
        asked = content.merge("scopes" => [scope], "ahead" => { "shown" => shown, "months" => 36 })
        stored =
          @advisor.call(:put, "/api/quotes/#{id}/draft", { version: start["draft"]["version"], content: asked }).last
        @advisor.save(id, stored)
        given = { revision: 1, channel: "text", recipient: "Ines Calloway", address: "555 0101" }
        link = @advisor.call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first["link"]
        @advisor.get(URI(link).path)
        @advisor.last_response.body
      end
    expect(pages.first).to match(/Over the next 36 months \d+ of 100 such cars do not come back/)
    expect(pages.last).not_to include("such cars do not come back")
  end
end
