# frozen_string_literal: true

require_relative "spec_helper"
require_relative "support/pictures"

# A job in the bay, from the yes to the hand-over: the card is frozen, marks are kept once whatever a device does, what
# is found becomes work in the quote, and the car remembers.
RSpec.describe NimbleServer::Features::Jobs do
  before(:context) do
    @cluster = TestServer.demo_cluster
    @db = NimbleServer::Database.connect(@cluster.url)
    @app = TestServer.build(@cluster)
    @advisor = Client.new(@app).tap { |client| client.sign_in("advisor@merrow.example") }
    @bay = Client.new(@app).tap { |client| client.sign_in("bay@merrow.example") }
    @stranger = Client.new(@app).tap { |client| client.sign_in("owner@hollow.example") }
    @clock = Time.utc(2026, 11, 26, 9)
    @serial = 0
  end

  after(:context) do
    @db.disconnect
    @cluster.stop
  end

  # A job that was agreed to on the phone.
  def job(cylinders: [5], works: %w[plug coil], plate: "4-TRE-1M")
    page = @advisor.start_quote(plate)
    id = page["quote"]["id"]
    offer_and_agree(id, page["draft"], [{ "cylinders" => cylinders, "works" => works }])
    @advisor.call(:get, "/api/jobs").last["jobs"].find { |row| row["quote_id"] == id }
  end

  def offer_and_agree(id, draft, scopes)
    made = scopes.map { |scope| draft["content"]["scopes"].first.merge(scope) }
    content = draft["content"].merge("scopes" => made)
    stored = @advisor.call(:put, "/api/quotes/#{id}/draft", { version: draft["version"], content: content }).last
    revision = @advisor.save(id, stored).last["revision"]["revision"]
    given = { revision: revision, channel: "phone", recipient: "Ines Calloway" }
    offer = @advisor.call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first
    scopes.each_index do |i|
      yes = { position: i, answer: "yes", how: "phone", name: "Ines", limit_cents: offer["scopes"][i]["limit_cents"] }
      @advisor.call(:post, "/api/offers/#{offer["id"]}/answers", yes)
    end
  end

  def mark(kind, **values)
    @serial += 1
    at = @clock + (@serial * 60)
    { "id" => "m#{@serial}", "at" => at.iso8601(3), "kind" => kind }.merge(values.transform_keys(&:to_s))
  end

  def hand_in(job, *marks, as: @bay, device: "tablet") =
    as.call(:post, "/api/jobs/#{job["id"]}/marks", { device: device, marks: marks })

  def card(job) = @bay.call(:get, "/api/jobs/#{job["id"]}").last

  # Marks that do everything there is to do.
  def everything(job)
    card(job)["sheet"]["pieces"].flat_map do |piece|
      ticks = (piece["ticks"] || []).map { |tick| mark("tick", piece: piece["id"], item: tick["item"]) }
      plug = piece["plug"] ? [mark("out", plug: piece["ref"], outcome: "free")] : []
      done =
        (
          if piece["plug"]
            mark("in", plug: piece["ref"], how: "torque", piece: piece["id"])
          else
            mark("check", piece: piece["id"])
          end
        )
      [*plug, *ticks, done]
    end
  end

  it "opens by a yes with its pieces frozen, whatever the house or the quote become" do
    made = job
    before = card(made)
    expect(before["sheet"]["pieces"].map { |row| row["id"] }).to include("step:manifold:remove", "target:plug-5:work")
    owner = Client.new(@app).tap { |client| client.sign_in("owner@merrow.example") }
    house = owner.call(:get, "/api/house").last
    owner.call(:put, "/api/house/settings", { settings: { compound: "film" }, revision: house["revision"] })
    expect(card(made)["sheet"]).to eq(before["sheet"])
    expect(before["standing"]["money"]).to include("so_far_cents" => made["agreed_cents"], "over" => false)
  end

  # @return [Array(Integer, Array<String>)] how often the card's work was built, and what was asked of its marks
  def spent
    log = StringIO.new
    logger = Logger.new(log)
    builds = 0
    allow(NimbleLedger::Estimate::Request).to receive(:build).and_wrap_original do |build, *given, **rest|
      builds += 1
      build.call(*given, **rest)
    end
    Sequel::DATABASES.each { |db| db.loggers << logger }
    yield
    [builds, log.string.lines.grep(/"job_marks"/)]
  ensure
    Sequel::DATABASES.each { |db| db.loggers.delete(logger) }
  end

  it "builds the card once for a request, reads its marks once and writes them in one statement" do
    made = job
    card(made) # is frozen when it is first looked at
    builds, asked = spent { hand_in(made, mark("start"), mark("off", piece: "step:cover:remove")) }
    expect([builds, asked.grep(/SELECT/).size, asked.grep(/INSERT/).size]).to eq([1, 1, 1])
    finish = [*everything(made), mark("finished")]
    builds, asked = spent { expect(hand_in(made, *finish).last["refused"]).to eq([]) }
    expect([builds, asked.grep(/SELECT/).size, asked.grep(/INSERT/).size]).to eq([1, 1, 1])
    builds, = spent { expect(@advisor.call(:post, "/api/jobs/#{made["id"]}/hand-over", {}).first).to eq(200) }
    expect(builds).to eq(1)
  end

  it "takes marks late, twice and from two devices, and says the same to both" do
    made = job
    first = [mark("start"), mark("off", piece: "step:cover:remove"), mark("off", piece: "step:intake-pipe:remove")]
    second = [mark("note", words: "clip already missing"), mark("undo", of: first[1]["id"])]
    hand_in(made, *second, device: "phone")
    hand_in(made, *first)
    status, again = hand_in(made, *(first + second).shuffle(random: Random.new(3)))
    expect([status, again["taken"].size, again["refused"]]).to eq([200, 5, []])
    expect(again["state"]["done"].keys).to eq(["step:intake-pipe:remove"])
    expect(again["marks"].size).to eq(5)
    expect(@db[:job_marks].where(job_id: made["id"]).select_map(:device).tally).to eq({ "phone" => 2, "tablet" => 3 })
  end

  it "refuses one mark and keeps the others: no kind, another with its id" do
    made = job
    start = mark("start")
    bad = mark("shrug")
    other = start.merge("kind" => "note", "words" => "the same id")
    _status, handed = hand_in(made, start, bad, other)
    expect(handed["taken"]).to eq([start["id"]])
    expect(handed["refused"].map { |row| row.values_at("id", "code") }).to eq(
      [[bad["id"], "invalid_mark"], [start["id"], "mark_differs"]]
    )
    expect(handed["refused"].first["message"]).to include("/kind")
    expect(hand_in(made, start, as: @stranger).first).to eq(404)
  end

  it "moves odds and money with what comes out, and stops at the limit" do
    made = job
    _status, calm = hand_in(made, mark("start"))
    _status, broke = hand_in(made, mark("out", plug: "plug-5", outcome: "broken"))
    expect(broke["standing"]["odds"]).to eq([])
    expected = calm["standing"]["money"]["next"].find { |row| row["what"] == "broken" }
    expect(broke["standing"]["money"]["so_far_cents"]).to eq(expected["total_cents"])
    expect(broke["standing"]["money"]["over"]).to eq(expected["total_cents"] > made["limit_cents"])
  end

  it "is finished when every piece is done and ticked, or it is said why not; then handed over once" do
    made = job
    all = everything(made)
    _status, handed = hand_in(made, mark("start"), *all.drop(1), mark("finished"))
    expect(handed["refused"].first).to include("code" => "card_open")
    found = mark("found", finding: "ash-on-plug", cylinder: 5, words: "light crust")
    missing = mark("found", finding: "bolt-missing", cylinder: 1, words: "coil bolt")
    finish = mark("finished")
    _status, done = hand_in(made, all.first, found, missing, finish)
    expect([done["refused"], done["job"]["finished_at"].nil?]).to eq([[], false])
    expect(done["actuals"]["pieces"].sum { |row| row["actual"].to_f }).to be > 0

    expect(@bay.call(:post, "/api/jobs/#{made["id"]}/hand-over", {}).first).to eq(403)
    km = @advisor.vehicle("4-TRE-1M")["odometer_km"] + 12
    status, over = @advisor.call(:post, "/api/jobs/#{made["id"]}/hand-over", { odometer_km: km })
    expect([status, over["job"]["handed_over_at"].nil?]).to eq([200, false])
    again = @advisor.call(:post, "/api/jobs/#{made["id"]}/hand-over", {})
    expect([again.first, again.last["error"]["code"]]).to eq([409, "handed_over"])
    expect(hand_in(made, mark("note", words: "late"))[1]["refused"].first["code"]).to eq("handed_over")

    car = @advisor.call(:get, "/api/vehicles/#{@advisor.vehicle("4-TRE-1M")["id"]}").last
    expect(
      car["fittings"].select { |row| row["km"] == km }.map { |row| row.values_at("work", "cylinder", "ours") }
    ).to match_array([["plug", 5, true], ["coil", 5, true]])
    expect(car["vehicle"]["cylinders"]["5"]).to include("plugs_changed_km" => km)
    follow = @db[:follow_ups].where(job_id: made["id"]).all
    expect(follow.map { |row| row[:on] }).to eq([Date.today + 42])
    findings =
      @db[:findings].where(vehicle_id: car["vehicle"]["id"], kind: %w[bolt-missing ash-on-plug]).select_map(:kind)
    expect(findings).to include("bolt-missing")
    expect(findings).not_to include("ash-on-plug") # the plug it was on is new
    paper = @advisor.get("/api/jobs/#{made["id"]}/hand-over.pdf")
    words = PDF::Inspector::Text.analyze(paper.body).strings.join(" ")
    expect(words).to include("Done", "plugs, cylinder 5", "ash on the plug", "a bolt is missing")
    expect(words).to include("We look again", "at the plug of cylinder 5, by")
    expect(@db[:record_entries].where(kind: "job-handed-over", subject: "job #{made["number"]}").count).to eq(1)
  end

  it "puts what was found into the quote, and a yes to it grows the card with what was done still done" do
    made = job
    hand_in(made, mark("start"), mark("off", piece: "step:cover:remove"))
    found = mark("found", finding: "oil-in-well", cylinder: 5)
    _status, handed = hand_in(made, found)
    proposal = handed["proposals"].first
    expect(proposal["targets"].map { |row| row["id"] }).to eq(["seals-rear"])
    expect(proposal["added_cents"]).to be_positive

    expect(@bay.call(:post, "/api/jobs/#{made["id"]}/proposals", { mark: found["id"] }).first).to eq(403)
    id = @advisor.call(:post, "/api/jobs/#{made["id"]}/proposals", { mark: found["id"] }).last["quote_id"]
    page = @advisor.call(:get, "/api/quotes/#{id}").last
    expect(page["sheet"]["estimate"]["price"]["total_cents"]).to eq(proposal["total_cents"])
    offer_and_agree(id, page["draft"], [{}])
    grown = card(made)
    expect([grown["revision"], grown["state"]["done"].keys]).to eq([2, ["step:cover:remove"]])
    expect(grown["sheet"]["targets"]).to include("seals-rear", "plug-5", "coil-5")
    expect(grown["job"]["agreed_cents"]).to eq(proposal["total_cents"])
  end

  it "goes by the gap and the torque note of the car, on card and paper, as they were when it was agreed" do
    car = @advisor.vehicle("4-TRE-1M")["id"]
    note = ->(given) { @advisor.call(:put, "/api/vehicles/#{car}", { plug_notes: given }) }
    status, refused = note.call({ gap_mm: { low: 0.9, high: 0.8 } })
    expect([status, refused["error"]["details"].first["path"]]).to eq([400, "/plug_notes/gap_mm"])
    given = { "gap_mm" => { "low" => 0.71, "high" => 0.76 }, "torque_note" => "insert in 5: by hand first" }
    expect(note.call(given).last["plug_notes"]).to eq(given)
    made = job
    plug = card(made)["sheet"]["pieces"].find { |piece| piece["plug"] }["plug"]
    expect(plug.slice("gap_mm", "torque_note", "own_gap")).to eq(given.merge("own_gap" => true))
    paper = PDF::Inspector::Text.analyze(@bay.get("/api/jobs/#{made["id"]}/card.pdf").body).strings.join(" ")
    expect(paper).to include("gap 0.71 to 0.76 mm, this car's own", "insert in 5: by hand first")
    expect(note.call(nil).last["plug_notes"]).to be_nil
    expect(card(made)["sheet"]["pieces"].find { |piece| piece["plug"] }["plug"]).to include("own_gap" => true)
  end

  describe "above the limit" do
    # Everything above the plugs is off, one plug is new, the next one broke.
    def broken_job
      made = job(plate: "5-TOW-4I", cylinders: (1..8).to_a, works: %w[plug])
      off =
        card(made)["sheet"]["pieces"]
          .select { |row| row["kind"] == "remove" }
          .map { |row| mark("off", piece: row["id"]) }
      broke = [
        mark("out", plug: "plug-1", outcome: "free"),
        mark("in", plug: "plug-1", how: "torque", piece: "target:plug-1:work"),
        mark("fight", what: "broken", plug: "plug-3"),
        mark("out", plug: "plug-3", outcome: "broken"),
        mark("out", plug: "plug-5", outcome: "broken")
      ]
      answer = hand_in(made, mark("start"), *off, *broke).last
      [made, answer]
    end

    def stopped(made) = @advisor.call(:get, "/api/counter").last["stopped"].find { |row| row["job_id"] == made["id"] }

    it "has one road: the card stops, the Counter asks with one press, a yes goes on and counts nothing twice" do
      made, answer = broken_job
      money = answer["standing"]["money"]
      expect(money["over"]).to be(true)
      row = stopped(made)
      expect(row.values_at("so_far_cents", "limit_cents", "asked")).to eq(
        [money["so_far_cents"], made["limit_cents"], false]
      )
      expect(row["happened"].map { |one| one.values_at("kind", "cylinders") }).to eq([["broken", [3]], ["broken", [5]]])

      expect(@bay.call(:post, "/api/jobs/#{made["id"]}/ways-on").first).to eq(403)
      id = @advisor.call(:post, "/api/jobs/#{made["id"]}/ways-on").last["quote_id"]
      yes = @advisor.call(:get, "/api/quotes/#{id}/yes").last
      scopes = yes["proposal"]["scopes"]
      expect(scopes.map { |scope| scope["title"] }).to eq(
        ["Take it out and finish", "Take it out, leave the rest", "Stop and close it up"]
      )
      expect(scopes.first["total_cents"]).to eq(money["so_far_cents"])
      expect(scopes.map { |scope| scope["total_cents"] }).to eq(
        scopes.map { |scope| scope["total_cents"] }.sort.reverse
      )

      given = { revision: yes["proposal"]["revision"], channel: "phone", recipient: "Ines Calloway", supersede: true }
      offer = @advisor.call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first
      expect([stopped(made)["asked"], offer["supplement"]]).to eq([true, true])
      page = @advisor.call(:get, "/api/quotes/#{id}/preview").last.to_s
      expect(page).to include(
        "Something gave way",
        "Their shells are still in the head",
        "What now?",
        "cannot be driven"
      )

      finish = offer["scopes"].first
      @advisor.call(
        :post,
        "/api/offers/#{offer["id"]}/answers",
        { position: 0, answer: "yes", how: "phone", name: "Ines", limit_cents: finish["limit_cents"] }
      )
      after = card(made)
      expect(after["job"]["agreed_cents"]).to eq(money["so_far_cents"])
      expect(after["standing"]["money"].values_at("so_far_cents", "over")).to eq([money["so_far_cents"], false])
      expect([stopped(made), after["state"]["plugs"]["plug-1"]["in"].nil?]).to eq([nil, false])
      again = @advisor.call(:post, "/api/jobs/#{made["id"]}/ways-on")
      expect([again.first, again.last["error"]["code"]]).to eq([409, "nothing_happened"])
    end

    it "takes nothing out where only a thread came along, and says so" do
      made = job(plate: "5-TOW-4I", cylinders: (1..8).to_a, works: %w[plug])
      threads = (1..8).map { |n| mark("out", plug: "plug-#{n}", outcome: "thread") }
      hand_in(made, mark("start"), *threads)
      id = @advisor.call(:post, "/api/jobs/#{made["id"]}/ways-on").last["quote_id"]
      titles = @advisor.call(:get, "/api/quotes/#{id}/yes").last["proposal"]["scopes"].map { |scope| scope["title"] }
      expect(titles).to eq(["Put it right and finish", "Stop and close it up"])
      page = @advisor.call(:get, "/api/quotes/#{id}/preview").last.to_s
      expect(page).to include("All the work you agreed to is done.", "The threads of cylinders")
      expect(page).not_to include("does not come out")
    end

    it "stops and closes up where the customer says so: no extraction, no new plug that did not go in" do
      made, = broken_job
      id = @advisor.call(:post, "/api/jobs/#{made["id"]}/ways-on").last["quote_id"]
      yes = @advisor.call(:get, "/api/quotes/#{id}/yes").last
      given = { revision: yes["proposal"]["revision"], channel: "phone", recipient: "Ines Calloway", supersede: true }
      offer = @advisor.call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first
      stop = offer["scopes"].last
      said = { position: stop["position"], answer: "yes", how: "phone", name: "Ines", limit_cents: stop["limit_cents"] }
      @advisor.call(:post, "/api/offers/#{offer["id"]}/answers", said)
      after = card(made)
      expect(after["standing"]["money"].values_at("so_far_cents", "over")).to eq([stop["total_cents"], false])
      expect(after["sheet"]["targets"]).to include("plug-1", "left-plug-3", "left-plug-5")
      expect(after["sheet"]["targets"]).not_to include("plug-3", "plug-6")
      backs = after["sheet"]["pieces"].map { |row| row["id"] }.grep(/refit/)
      expect(backs).to include("step:coil-3:refit", "step:coil-6:refit")
    end
  end

  it "prices the plug that was chosen, fits it, and remembers what is in the head" do
    page = @advisor.start_quote("5-TOW-4I")
    id = page["quote"]["id"]
    chosen = { "plug" => "PLG-73318", "cylinders" => [1], "works" => %w[plug], "soak" => "none" }
    offer_and_agree(id, page["draft"], [chosen])
    shown = @advisor.call(:get, "/api/quotes/#{id}").last["sheet"]
    expect(shown["grades"].to_h { |row| [row["part"], row["taken"]] }).to eq("PLG-73318" => true, "PLG-64763" => false)
    lines = shown["estimate"]["price"]["lines"].filter_map { |line| line["part"] }
    expect(lines).to include("PLG-73318").and(satisfy { |parts| !parts.include?("PLG-64763") })
    made = @advisor.call(:get, "/api/jobs").last["jobs"].find { |row| row["quote_id"] == id }
    hand_in(made, mark("start"), *everything(made), mark("finished"))
    expect(@advisor.call(:post, "/api/jobs/#{made["id"]}/hand-over", {}).first).to eq(200)
    head = @advisor.vehicle("5-TOW-4I")["cylinders"]["1"]
    expect(head["fitted"]).to eq("construction" => "one-piece-long-reach", "interval_km" => 150_000)
    next_time = @advisor.start_quote("5-TOW-4I")["resolved"]["history"]["cylinders"]["1"]
    expect(next_time["fitted"]["construction"]).to eq("one-piece-long-reach")
  end

  it "hands over plugs that were all out together like any others" do
    page = @advisor.start_quote("4-TRE-1M")
    schools = { "order_of_work" => "all-out" }
    draft = page["draft"].merge("content" => page["draft"]["content"].merge("schools" => schools))
    offer_and_agree(page["quote"]["id"], draft, [{ "cylinders" => [2, 4], "works" => %w[plug] }])
    made = @advisor.call(:get, "/api/jobs").last["jobs"].find { |row| row["quote_id"] == page["quote"]["id"] }
    ids = card(made)["sheet"]["pieces"].map { |row| row["id"] }
    expect(ids).to include("target:plug-2:out", "target:plug-4:in")
    marks =
      card(made)["sheet"]["pieces"].flat_map do |piece|
        act = piece["id"][/\Atarget:.*:(out|in)\z/, 1]
        plug = mark("out", plug: piece["ref"], outcome: "free") if act == "out"
        plug = mark("in", plug: piece["ref"], how: "torque", piece: piece["id"]) if act == "in"
        ticks = (piece["ticks"] || []).map { |tick| mark("tick", piece: piece["id"], item: tick["item"]) }
        [*ticks, plug, mark("check", piece: piece["id"])].compact
      end
    _status, answer = hand_in(made, mark("start"), *marks, mark("finished"))
    expect(answer["refused"]).to eq([])
    status, = @advisor.call(:post, "/api/jobs/#{made["id"]}/hand-over", { odometer_km: 181_500 })
    car = @db[:vehicles].where(plate: "4-TRE-1M").first
    fitted = @db[:fittings].where(vehicle_id: car[:id], km: 181_500, work: "plug").select_order_map(:cylinder)
    expect([status, fitted]).to eq([200, [2, 4]])
    paper = PDF::Inspector::Text.analyze(@advisor.get("/api/jobs/#{made["id"]}/hand-over.pdf").body).strings.join(" ")
    expect(paper).to match(/plugs, cylinders 2 and 4.*tightened to [\d.]+ N·m: cylinders 2 and 4/)
    expect(paper).to include("12 months or 20,000 km on what we fitted, whichever comes first.")
  end

  it "goes by the schools the quote chose, frozen with it, and says them with one line why" do
    page = @advisor.start_quote("4-TRE-1M")
    schools = { "wells" => "vacuum", "battery" => "always", "compound" => "film" }
    draft = page["draft"].merge("content" => page["draft"]["content"].merge("schools" => schools))
    offer_and_agree(page["quote"]["id"], draft, [{ "cylinders" => [5] }])
    shown = @advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}").last
    rows = shown["resolved"]["schools"].to_h { |row| [row["setting"], row] }
    expect(rows["wells"].values_at("from", "says", "otherwise")).to eq(["job", "vacuum", "compressed air, then vacuum"])
    expect(rows["order_of_work"]["from"]).to eq("shipped")
    made = @advisor.call(:get, "/api/jobs").last["jobs"].find { |row| row["quote_id"] == page["quote"]["id"] }
    sheet = card(made)["sheet"]
    expect(sheet["in_force"].to_h { |row| [row["setting"], row["says"]] }).to include(
      "wells" => "vacuum",
      "battery" => "off on every job"
    )
    expect(sheet["pieces"].map { |row| row["id"] }).to include("house:battery-off", "house:battery-on")
    paper = PDF::Inspector::Text.analyze(@bay.get("/api/jobs/#{made["id"]}/card.pdf").body).strings.join(" ")
    expect(paper).to include("Cleaning the wells: vacuum. Nothing is blown about the bay or into an eye.")
  end

  it "puts a repair that no profile knows into the quote, and the yes to it on the card" do
    made = job
    hand_in(made, mark("start"))
    snapped = mark("found", finding: "bolt-snapped", cylinder: 5)
    _status, handed = hand_in(made, snapped)
    proposal = handed["proposals"].first
    expect(proposal.values_at("targets", "added_hours")).to eq([[], 0.7])
    id = @advisor.call(:post, "/api/jobs/#{made["id"]}/proposals", { mark: snapped["id"] }).last["quote_id"]
    page = @advisor.call(:get, "/api/quotes/#{id}").last
    expect(page["sheet"]["estimate"]["price"]["total_cents"]).to eq(proposal["total_cents"])
    offer_and_agree(id, page["draft"], [{}])
    grown = card(made)
    expect(grown["job"]["agreed_cents"]).to eq(proposal["total_cents"])
    expect(grown["sheet"]["by_hand"].map { |row| row["label"] }).to eq(proposal["lines"].map { |row| row["label"] })
    expect(grown["standing"]["money"]["so_far_cents"]).to eq(proposal["total_cents"])
  end

  it "keeps what was agreed by hand in two scopes on one card" do
    page = @advisor.start_quote("4-TRE-1M")
    id = page["quote"]["id"]
    by_hand = ->(label) do
      { "lines" => [{ "label" => label, "class" => "parts", "quantity" => 2, "each_cents" => 1_250 }] }
    end
    scopes = [{ "cylinders" => [5] }.merge(by_hand.call("Wiper")), { "cylinders" => [3] }.merge(by_hand.call("Bulb"))]
    offer_and_agree(id, page["draft"], scopes)
    made = @advisor.call(:get, "/api/jobs").last["jobs"].find { |row| row["quote_id"] == id }
    expect(card(made)["sheet"]["by_hand"].map { |row| row.values_at("label", "cents", "quantity") }).to eq(
      [["Wiper", 2_500, 2], ["Bulb", 2_500, 2]]
    )
    expect(card(made)["standing"]["money"]["so_far_cents"]).to eq(made["agreed_cents"])
  end

  it "makes one card of two scopes, at what was agreed for both" do
    page = @advisor.start_quote("4-TRE-1M")
    id = page["quote"]["id"]
    offer_and_agree(id, page["draft"], [{ "cylinders" => [5] }, { "cylinders" => [3] }])
    made = @advisor.call(:get, "/api/jobs").last["jobs"].find { |row| row["quote_id"] == id }
    both = card(made)
    expect(both["sheet"]["targets"]).to match_array(%w[plug-5 coil-5 plug-3 coil-3])
    expect(both["standing"]["money"]["so_far_cents"]).to eq(made["agreed_cents"])
  end

  it "keeps pictures of the shop's eyes only, and refuses what is none" do
    made = job
    keep = ->(bytes, **rest) do
      @bay.call(:post, "/api/jobs/#{made["id"]}/pictures", { data: [bytes].pack("m0"), **rest })
    end
    id = SecureRandom.uuid
    2.times do
      expect(keep.call(Pictures.png(40, 30), id: id)).to eq([201, { "id" => id, "width" => 40, "height" => 30 }])
    end
    expect(@db[:job_pictures].where(job_id: made["id"]).count).to eq(1)
    seen = @bay.get("/api/jobs/#{made["id"]}/pictures/#{id}")
    expect([seen.status, seen.headers["content-type"]]).to eq([200, "image/png"])
    expect(seen.headers["content-security-policy"]).to eq("sandbox; default-src 'none'")
    expect(seen.body.b).to start_with("\x89PNG".b)
    expect(@stranger.get("/api/jobs/#{made["id"]}/pictures/#{id}").status).to eq(404)
    Pictures.bad.each do |what, bytes|
      status, body = keep.call(bytes)
      expect([what, status, body.dig("error", "code")]).to eq([what, 422, "bad_picture"])
    end
  end

  it "takes no mark from a clock that is years off, and says so" do
    made = job
    %w[2099-01-01T10:00:00Z 2001-01-01T10:00:00Z].each do |at|
      answer = hand_in(made, mark("start").merge("at" => at, "id" => SecureRandom.uuid)).last
      expect(answer["refused"].first).to include("code" => "mark_time", "message" => include("clock is wrong"))
    end
  end

  it "keeps the points of a picture and nothing that hung on to it" do
    made = job
    Pictures.laden.each do |what, bytes|
      status, body = @bay.call(:post, "/api/jobs/#{made["id"]}/pictures", { data: [bytes].pack("m0") })
      expect([what, status]).to eq([what, 201])
      kept = @db[:job_pictures].where(id: body["id"]).get(:bytes).to_s
      expect([what, kept.b.include?("script"), kept.b.include?("quay")]).to eq([what, false, false])
    end
  end

  it "tells the customer at the link what was done and found, with the pictures they may see and no others" do
    made = job
    tell, keep = Array.new(2) { SecureRandom.uuid }
    [tell, keep].each do |id|
      @bay.call(:post, "/api/jobs/#{made["id"]}/pictures", { id: id, data: [Pictures.png(30, 30)].pack("m0") })
    end
    read = mark("read", plug: "plug-5", conditions: %w[wet-fuel])
    found = [
      mark("found", finding: "tracking", cylinder: 5, words: "", picture: tell, tell: true),
      mark("found", finding: "other", words: "<b>for us</b>", picture: keep, tell: false)
    ]
    hand_in(made, mark("start"), *everything(made), read, *found, mark("finished"))
    offer = @db[:offers].where(quote_id: made["quote_id"]).first
    at = URI(NimbleServer::CustomerToken.url(offer[:id])).path
    customer = Client.new(@app)
    expect(customer.get("#{at}/p/#{tell}").status).to eq(404)
    @advisor.call(:post, "/api/jobs/#{made["id"]}/hand-over", {})
    page = customer.get(at).body
    expect(page).to include("Your car is ready", "plug wet with fuel", "burned a track", "#{at}/p/#{tell}")
    expect(page).to include("&lt;b&gt;for us")
    expect(page).not_to include(keep)
    expect([customer.get("#{at}/p/#{tell}").status, customer.get("#{at}/p/#{keep}").status]).to eq([200, 404])
  end

  it "prints the card: every piece, with its torque, and a line for each plug" do
    made = job
    text = PDF::Inspector::Text.analyze(@bay.get("/api/jobs/#{made["id"]}/card.pdf").body).strings.join(" ")
    card(made)["sheet"]["pieces"].each { |piece| expect(text).to include(piece["label"]) }
    nm = card(made)["sheet"]["pieces"].find { |piece| piece["plug"] }["plug"]["torque_nm"]
    lb_ft = (nm / 1.3558179483).round(nm < 20 ? 1 : 0)
    expect(text).to include("#{nm} N·m (#{lb_ft} lb-ft)", "Plug 5")
    expect(text).to match(%r{ [1-9](\.\d)? N·m \(\d+ lb-in\)})
    expect(@bay.call(:get, "/api/jobs/#{made["id"]}/hand-over.pdf").first).to eq(409)
  end

  it "reads the codes before and after, and says so while the tool is away" do
    made = job
    tool = NimbleServer::StandIns::ScanTool.new(away: 0)
    thread = Thread.new { tool.run }
    stub_const("ENV", ENV.to_h.merge("SCAN_TOOL_PORT" => tool.port.to_s))
    before = @bay.call(:post, "/api/jobs/#{made["id"]}/scan").last
    expect(before["misfires"].keys).to match_array(%w[1 2 3 4 5 6])
    tool.close
    thread.join
    status, away = @bay.call(:post, "/api/jobs/#{made["id"]}/scan")
    expect([status, away["error"]["code"]]).to eq([503, "scan_tool_away"])
  end

  it "says who does it and where, and when the engine is cold" do
    made = job
    people = card(made)["technicians"]
    someone = people.find { |row| row["role"] == "technician" }
    _status, given =
      @advisor.call(:put, "/api/jobs/#{made["id"]}", { technician_id: someone["id"], bay: " 2 ", arrival: "warm" })
    expect(given["job"]).to include("technician" => someone["name"], "bay" => "2", "arrival" => "warm")
    expect(Time.iso8601(given["job"]["cold_at"]) - Time.iso8601(given["job"]["arrived_at"])).to eq(3600)
    status, body = @advisor.call(:put, "/api/jobs/#{made["id"]}", { technician_id: 999_999 })
    expect([status, body["error"]["details"].first["path"]]).to eq([422, "/technician_id"])
  end
end
