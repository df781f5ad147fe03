# frozen_string_literal: true

require_relative "spec_helper"
require_relative "support/shop_day"

# What customers are told of their time by itself.
RSpec.describe NimbleServer::Features::Reminders do
  include_context "with a shop's day"

  # The letters about a quote's time, oldest first.
  def letters(id)
    offers = @db[:offers].where(quote_id: id).select(:id)
    rows = @db[:messages].where(offer_id: offers).exclude(kind: "offer").order(:created_at)
    rows.select_map(%i[kind body])
  end

  # What was put off until a moment, taken up then.
  def work_off_until(moment)
    due = @db[:que_jobs].where(job_class: described_class::DayBefore.name) { run_at <= moment }.order(:run_at).all
    NimbleServer::Background.working_on = @db
    due.each { |row| described_class::DayBefore.new({}).run(*row[:args].to_a) }
  end

  def text = NimbleServer::Shop.new(@db, @db[:accounts].where(email: "owner@merrow.example").get(:shop_id)).text

  # A yes by a message, with a time on Thursday morning.
  def booked
    id = quote
    page = offers(id)
    given = { quote_id: id, version: page["version"], person: page["offers"][0]["person"], place: 0 }
    times = { arrives: day(2, "08:00"), promise: day(2, "12:00"), chance: 0.9 }
    expect(@advisor.call(:post, "/api/bookings", given.merge(times)).first).to eq(201)
    [id, agree(id, channel: "text", address: "555 0101")]
  end

  def rules(**figures)
    revision = @owner.call(:get, "/api/house").last["revision"]
    given = { settings: figures, shipped: [], revision: revision }
    expect(@owner.call(:put, "/api/house/settings", given).first).to eq(200)
  end

  # Every piece done and ticked, then the end.
  def finish(job)
    pieces = @bay.call(:get, "/api/jobs/#{job}").last["sheet"]["pieces"]
    marks = pieces.flat_map { |piece| done(piece) }
    marks = [{ "kind" => "start" }, *marks, { "kind" => "finished" }]
    marks = marks.each_with_index.map { |mark, i| { "id" => "m#{i}", "at" => (@now + i).iso8601(3), **mark } }
    handed = @bay.call(:post, "/api/jobs/#{job}/marks", { device: "tablet", marks: marks }).last
    expect(handed["refused"]).to eq([])
  end

  def done(piece)
    id = { "piece" => piece["id"] }
    ticks = (piece["ticks"] || []).map { |tick| { "kind" => "tick", "item" => tick["item"], **id } }
    return *ticks, { "kind" => "check", **id } unless piece["plug"]

    plug = { "plug" => piece["ref"] }
    [{ "kind" => "out", "outcome" => "free", **plug }, *ticks, { "kind" => "in", "how" => "torque", **plug, **id }]
  end

  it "reminds a day before, once, in the shop's words, and of nothing that was moved" do
    id, = booked
    expect(letters(id)).to eq([])
    work_off_until(@now + 86_400 - 60)
    expect(letters(id)).to eq([])
    at(day(1, "08:00"))
    2.times { work_off_until(@now) }
    expect(letters(id).map(&:first)).to eq(["reminder"])
    expect(letters(id)[0][1]).to include(text.moment(day(2, "08:00")), text.moment(day(2, "12:00")), "{link}")
    row = on_board(id)
    moved = { version: board["version"], arrives: day(3, "08:00") }
    expect(@advisor.call(:put, "/api/bookings/#{row["id"]}", moved).first).to eq(200)
    at(day(2, "08:00"))
    work_off_until(@now)
    expect(letters(id).map(&:first)).to eq(%w[reminder reminder])
    expect(letters(id)[1][1]).to include(text.moment(day(3, "08:00")))
  end

  it "takes a time the clocks leave out, and one that comes twice" do
    shop = NimbleServer::Shop.new(@db, @db[:accounts].where(email: "owner@merrow.example").get(:shop_id))
    utc = ->(local) { described_class::DayBefore.instant(shop, local).utc.strftime("%FT%H:%M") }
    expect(utc.call("2030-03-31T01:30")).to eq("2030-03-31T01:30") # stands for 2:30 of summer
    expect(utc.call("2030-10-27T01:30")).to eq("2030-10-27T00:30") # the first of the two
  end

  it "reminds nobody of a time that was given back, or that is only held" do
    id, = booked
    row = on_board(id)
    @advisor.call(:post, "/api/bookings/#{row["id"]}/give-back", { version: board["version"] })
    held = quote(cylinders: [3])
    take(held)
    at(day(3, "08:00"))
    work_off_until(@now)
    expect(letters(id) + letters(held)).to eq([])
  end

  it "tells that it is ready when the card is finished, and the page says what is so, and since when" do
    id, job = booked
    link = @advisor.call(:get, "/api/quotes/#{id}/yes").last["offers"].first["link"]
    page = -> { Client.new(@app).tap { |one| one.get(URI(link).path) }.last_response.body }
    since = "stands since #{text.moment(day(0, "07:50"))}"
    expect(page.call).to include(text.moment(day(2, "08:00")), text.moment(day(2, "12:00")), since)
    file = Client.new(@app).tap { |one| one.get("#{URI(link).path}/time.ics") }.last_response
    event = Icalendar::Calendar.parse(file.body).first.events.first
    times = [event.dtstart, event.dtend].map { |one| one.strftime("%Y-%m-%dT%H:%M") }
    expect(times).to eq([day(2, "08:00"), day(2, "12:00")])
    expect(page.call).to include("#{URI(link).path}/time.ics")
    at(day(2, "09:00"))
    expect(page.call).to include(text.moment(day(2, "12:00")))
    expect(page.call).not_to include(text.moment(day(2, "08:00")))
    finish(job)
    expect(letters(id).map(&:first)).to eq(["ready"])
    expect(page.call).to include("The car is ready and can be fetched.")
  end

  it "tells of another time only where the house lets it" do
    id, = booked
    move = ->(time) do
      change = { version: board["version"], promise: day(2, time), chance: 0.9 }
      @advisor.call(:put, "/api/bookings/#{on_board(id)["id"]}", change)
    end
    move.call("13:00")
    expect(letters(id)).to eq([])
    rules(tell_late: true)
    move.call("14:00")
    move.call("15:00")
    expect(letters(id).map(&:first)).to eq(%w[late late])
    expect(letters(id).last[1]).to include(text.moment(day(2, "15:00")))
  ensure
    rules(tell_late: false)
  end
end
