# frozen_string_literal: true

require_relative "spec_helper"
require_relative "support/shop_day"

# When? From an offer of a time to a promise kept: the calendar, the board, what a move does, who was first.
RSpec.describe NimbleServer::Features::Day do
  include_context "with a shop's day"

  it "offers times of the next days that keep what is promised, soonest first things first" do
    page = offers(quote)
    expect(page["offers"].size).to be_between(3, 5)
    expect(page["offers"].map { |row| row["drop_off"] }).to eq(page["offers"].map { |row| row["drop_off"] }.sort)
    expect(page["offers"].first).to include("drop_off" => day(0, "08:00"), "harm" => [])
    expect(page["offers"].all? { |row| row["ready"] > row["drop_off"] }).to be(true)
    expect(page["booking"]).to be_nil
  end

  it "holds a time before the yes, makes it firm by it, and writes the promise into the record" do
    id = quote
    status, = take(id)
    expect(status).to eq(201)
    held = on_board(id)
    expect(held.slice("begun", "booked")).to eq("begun" => false, "booked" => true)
    expect(held["chance"]).to be >= 0.8
    expect(held["hold_until"]).not_to be_nil
    expect(@db[:record_entries].where(kind: "promised").order(:seq).last[:bytes].to_s).to include(held["promise"])
    expect(offers(id)["booking"]).to include("promise" => held["promise"], "arrives" => held["arrives"])
    agree(id)
    expect(on_board(id)["hold_until"]).to be_nil
    offer = @advisor.call(:get, "/api/quotes/#{id}/yes").last["offers"].first
    text = NimbleServer::Shop.new(@db, @db[:quotes].where(id: id).get(:shop_id)).text
    said = offer["scopes"].first["spoken"].join(" ")
    expect(said).to include(text.moment(held["promise"])).and include(text.moment(held["arrives"]))
    page = @advisor.call(:get, "/api/quotes/#{id}/preview").last["html"]
    expect(page).to include(text.moment(held["promise"])).and include(text.moment(held["arrives"]))
    at(day(3, "07:50"))
    expect(on_board(id)).not_to be_nil
  end

  it "lets a hold lapse, and gives its time to another" do
    id = quote
    take(id)
    expect(on_board(id)).not_to be_nil
    at(day(1, "09:00"))
    expect(on_board(id)).to be_nil
    expect(take(id).first).to eq(201)
  end

  it "fills the day: what comes later is ready later, and never at the cost of a promise" do
    ready = Array.new(3) { |i| quote(cylinders: [[1], [3], [5]][i]).then { |id| take(id) && on_board(id)["ready"] } }
    expect(ready).to eq(ready.sort)
    expect(board["jobs"].all? { |row| row["chance"] >= 0.8 }).to be(true)
    expect(board["jobs"].map { |row| row["course"].first["from"] }.uniq.size).to be > 1
  end

  it "says what a move does before it is made, moves, and moves back" do
    one, other = [[1], [5]].map { |cylinders| quote(cylinders: cylinders).tap { |id| take(id) } }
    before = board
    row = before["jobs"].find { |job| job["quote_id"] == other }
    preview = { job: row["id"], person: row["person"], place: 0 }
    _status, found = @advisor.call(:post, "/api/day/preview", preview)
    _status, moved =
      @advisor.call(:put, "/api/bookings/#{row["id"]}", { version: before["version"], person: row["person"], place: 0 })
    expect(moved["version"]).to eq(before["version"] + 1)
    found["changes"].each do |change|
      now = moved["jobs"].find { |job| job["id"] == change["job"] }
      expect(now["chance"]).to be_within(1e-9).of(change["after"])
    end
    list = ->(page) { page["jobs"].select { |job| job["person"] == row["person"] }.map { |job| job["quote_id"] } }
    expect(list.call(moved).first).to eq(other)
    @advisor.call(:put, "/api/bookings/#{row["id"]}", { version: moved["version"], person: row["person"], place: 1 })
    expect(list.call(board)).to eq(list.call(before)).or include(one)
  end

  it "tells the second of two who change the board at one moment, and loses nothing" do
    ids = [[1], [3]].map { |cylinders| quote(cylinders: cylinders) }
    page = offers(ids.first)
    given = { version: page["version"], person: page["offers"].first["person"], place: 0, arrives: day(0, "09:00") }
    clients = Array.new(2) { Client.new(@app).tap { |client| client.sign_in("advisor@merrow.example") } }
    answers =
      clients
        .zip(ids)
        .map { |client, id| Thread.new { client.call(:post, "/api/bookings", given.merge(quote_id: id)) } }
        .map(&:value)
    expect(answers.map(&:first)).to contain_exactly(201, 409)
    expect(answers.find { |status, _body| status == 409 }.last["error"]["code"]).to eq("board_moved")
    expect(board["jobs"].size).to eq(1)
    again = @advisor.call(:post, "/api/bookings", given.merge(quote_id: ids.first, version: page["version"] + 1)).first
    expect([201, 409]).to include(again)
  end

  it "follows the bay: what is in hand is drawn as begun, and at the pace of its marks" do
    id = quote
    take(id)
    job = agree(id)
    at(day(0, "09:00"))
    card = @bay.call(:get, "/api/jobs/#{job}").last
    start = { "id" => "d1", "at" => @now.iso8601(3), "kind" => "start" }
    first = card["sheet"]["pieces"].reject { |piece| piece["waiting"] || piece["plug"] }.first(3)
    minutes = first.sum { |piece| piece["minutes"] }
    @now += 2 * minutes * 60
    done = { "id" => "d2", "at" => @now.iso8601(3), "kind" => "check", "pieces" => first.map { |piece| piece["id"] } }
    _status, handed = @bay.call(:post, "/api/jobs/#{job}/marks", { device: "tablet", marks: [start, done] })
    expect(handed["refused"]).to eq([])
    row = on_board(id)
    expect(row["begun"]).to be(true)
    expect(row["done_minutes"]).to be_within(0.01).of(minutes)
    expect(row["course"].first["from"]).to eq(0)
    whole = card["sheet"]["pieces"].reject { |piece| piece["waiting"] }.sum { |piece| piece["minutes"] }
    expect(row["p50"]).to be > whole - minutes # slower than reckoned so far
  end

  it "puts a promise that sinks onto the Counter with the latest moment to call, until somebody has" do
    id = quote
    take(id)
    row = on_board(id)
    early = row["promise"].sub(/T.*/, "T08:30")
    @advisor.call(:put, "/api/bookings/#{row["id"]}", { version: board["version"], promise: early, chance: 0.2 })
    sinking = @advisor.call(:get, "/api/counter").last["sinking"]
    expect(sinking.map { |one| one.values_at("id", "promise", "call_by") }).to eq([[row["id"], early, board["now"]]])
    expect(sinking.first["chance"]).to be < 0.5
    @advisor.call(:post, "/api/bookings/#{row["id"]}/called", { words: "told a quarter past eleven" })
    expect(@advisor.call(:get, "/api/counter").last["sinking"]).to eq([])
    expect(@db[:promises].where(booking_id: row["id"]).order(:serial).select_map(:pick_up)).to eq(
      [row["promise"], early]
    )
  end

  it "keeps the calendar: lunch, days off and closed dates move what is offered; nonsense is refused in its place" do
    _status, before = @owner.call(:get, "/api/calendar")
    expect(before["people"].select { |row| row["works"] }.size).to be >= 1 # technicians, where nothing was said
    technician = before["everybody"].find { |row| row["name"] == "Col Haddick" }["id"]
    kept = {
      revision: before["revision"],
      bays: [{ id: "1", equipment: [] }, { id: "2", equipment: ["two-post-lift"] }],
      people: [{ id: technician, works: true, hours: nil, lunch: %w[12:00 12:30] }],
      away: [{ person: technician, from: day(0, "08:00"), to: day(0, "12:00"), why: "doctor" }],
      closed: [day(1)]
    }
    expect(@owner.call(:put, "/api/calendar", kept).first).to eq(200)
    expect(@owner.call(:put, "/api/calendar", kept).last["error"]["code"]).to eq("calendar_conflict")
    id = quote
    take(id)
    row = on_board(id)
    expect(row["course"].first["from"]).to be >= (12 * 60) + 30 - 470
    expect(board["days"].map { |day| day["date"] }).to include(day(0), day(2))
    expect(board["days"].map { |day| day["date"] }).not_to include(day(1))
    wrong =
      kept.merge(
        revision: before["revision"] + 1,
        away: [{ person: technician, from: day(0, "12:00"), to: day(0, "08:00"), why: "" }]
      )
    status, answer = @owner.call(:put, "/api/calendar", wrong)
    expect([status, answer["error"]["details"].first["path"]]).to eq([400, "/people/0/away/0"]).or eq(
           [400, "/people/0/away/0/to"]
         )
    expect(@advisor.call(:put, "/api/calendar", kept).first).to eq(403)
  end

  it "answers a wish: how sure a time is, by when to bring the car" do
    page = offers(quote, wanted: day(0, "12:00"))
    chances = page["offers"].filter_map { |row| row["chance"] }
    expect(chances.first).to be > 0.5
    expect(offers(quote, wanted: day(-1, "12:00"))["error"]["details"].first["path"]).to eq("/ask/wanted")
    expect(@advisor.call(:get, "/api/quotes/#{quote}/when?wanted=soon").first).to eq(422)
  end

  it "lets a car cool that came hot, and says what that does to its promise" do
    id = quote
    take(id)
    job = agree(id)
    before = on_board(id)
    at(before["arrives"])
    expect(@bay.call(:put, "/api/jobs/#{job}", { arrival: "hot" }).first).to eq(200)
    after = on_board(id)
    expect(after["ready"]).to be > before["ready"]
    expect(after["chance"]).to be < 0.5
    expect(after["segments"].first).to include("kind" => "wait", "minutes" => 150)
    expect(@advisor.call(:get, "/api/counter").last["sinking"].map { |row| row["quote_id"] }).to eq([id])
  end

  it "counts every promise of a finished job against the chance it was given at" do
    kept = -> { @advisor.call(:get, "/api/day/kept").last }
    before = kept.call
    id = quote
    take(id)
    job = agree(id)
    row = on_board(id)
    later = { version: board["version"], promise: day(0, "17:00"), chance: 0.6 }
    @advisor.call(:put, "/api/bookings/#{row["id"]}", later)
    expect(kept.call).to eq(before) # nothing is finished yet
    at(day(0, "16:00")) # after the first, before the second
    @db[:jobs].where(id: job).update(started_at: @now - 3600, finished_at: @now)
    after = kept.call
    expect(after["promises"]).to eq(before["promises"] + 2)
    hits = ->(page) { (page["share"] || 0) * page["promises"] }
    expect(hits.call(after) - hits.call(before)).to be_within(1e-9).of(1)
    said = ->(page) { (page["said"] || 0) * page["promises"] }
    expect(said.call(after) - said.call(before)).to be_within(1e-9).of(1.4)
    expect(after["low"]).to be < after["share"]
    expect(after["high"]).to be > after["share"]
  end

  it "begins nothing before its parts are there, and says from when" do
    id = quote
    soon = offers(id)["offers"].first
    parts = day(0, "14:00")
    page = offers(id, parts_at: parts)
    late = page["offers"].first
    expect(late["drop_off"]).to eq(soon["drop_off"])
    expect(late["ready"]).to be > parts
    expect(soon["ready"]).to be < parts
    given = {
      quote_id: id,
      version: page["version"],
      arrives: late["drop_off"],
      parts_at: parts,
      promise: late["ready"]
    }
    expect(@advisor.call(:post, "/api/bookings", given.merge(late.slice("person", "place"), chance: 0.8)).first).to eq(
      201
    )
    expect(on_board(id)).to include("parts_at" => parts)
    expect(on_board(id)["course"].first["from"]).to be >= ((14 - 7) * 60) - 50
    expect(offers(id)["booking"]).to include("parts_at" => parts)
    refused = offers(quote, parts_at: "soon")["error"]
    expect(refused["details"].first["path"]).to eq("/parts_at")
  end

  it "lays a job that needs a bay's equipment into a bay that has it, and asks no bay for what is carried about" do
    calendar = @owner.call(:get, "/api/calendar").last
    technicians = calendar["everybody"].first(2).map { |row| { id: row["id"], works: true, hours: nil, lunch: nil } }
    bays = [{ id: "1", equipment: [] }, { id: "2", equipment: ["two-post-lift"] }]
    kept = { revision: calendar["revision"], bays: bays, people: technicians, away: [], closed: [] }
    expect(@owner.call(:put, "/api/calendar", kept).first).to eq(200)
    lifted, plain = [quote(plate: "8-BUS-3M", cylinders: [1]), quote].each { |id| take(id) }
    work = @db[:bookings].where(ended_at: nil).to_hash(:quote_id, :work).transform_values { |one| one["equipment"] }
    expect(work[lifted]).to include("two-post-lift")
    expect(work[plain]).not_to include("two-post-lift")
    bays_of = ->(id) { on_board(id)["course"].filter_map { |stretch| stretch["bay"] }.uniq }
    expect(bays_of.call(lifted)).to eq(["2"])
    expect(bays_of.call(plain)).to eq(["1"])
    none = kept.merge(revision: calendar["revision"] + 1, bays: [{ id: "1", equipment: [] }])
    @owner.call(:put, "/api/calendar", none)
    expect(bays_of.call(lifted)).to eq(["1"])
  end

  describe "the nights in which the clocks are changed" do
    # The next night in which the shop's clock goes forward, and the next in which it goes back.
    def nights
      zone = NimbleServer::Shop.new(@db, @db[:accounts].where(email: "owner@merrow.example").get(:shop_id)).profile
      changes = TZInfo::Timezone.get(zone[:time_zone]).transitions_up_to(Time.now + (400 * 86_400), Time.now)
      changes.first(2).map { |change| change.local_end_at.to_time.strftime("%F").then { |text| Date.iso8601(text) } }
    end

    it "leave every promise on the shop's wall where it was, and the hours before it as they are worked" do
      expect(nights.size).to eq(2)
      nights.each do |sunday|
        at("#{sunday - 1}T16:00")
        monday = (sunday + 1).iso8601
        id = quote
        version = offers(id)["version"]
        worker = offers(id)["offers"].first["person"]
        given = { quote_id: id, version: version, person: worker, place: 0, arrives: "#{monday}T08:00" }
        @advisor.call(:post, "/api/bookings", given.merge(promise: "#{monday}T11:15", chance: 0.8))
        before = on_board(id)
        at("#{monday}T08:00")
        agree(id)
        after = on_board(id)
        expect(board["now"]).to eq("#{monday}T08:00")
        expect(after.values_at("arrives", "promise", "ready")).to eq(before.values_at("arrives", "promise", "ready"))
        expect(after["chance"]).to be_within(1e-9).of(before["chance"])
        @db[:bookings].where(ended_at: nil).update(ended_at: Time.now)
      end
    end
  end
end
