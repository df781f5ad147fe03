# frozen_string_literal: true

require_relative "spec_helper"
require_relative "support/shop_day"

# The calendar for other programs: read by a secret link, read in from a file, and the holidays of a country.
RSpec.describe NimbleServer::Features::CalendarFiles do
  include_context "with a shop's day"

  def technician = board["people"].first["id"]

  def feed(person)
    status, made = @owner.call(:post, "/api/calendar/feeds", { person: person })
    expect(status).to eq(201)
    made["feeds"].find { |one| one["person"] == person }
  end

  def read(url)
    stranger = Client.new(@app)
    stranger.get(URI(url).path)
    [stranger.last_response.status, stranger.last_response.body, stranger.last_response.headers["content-type"]]
  end

  def events(text) = Icalendar::Calendar.parse(text).first.events

  after { @db[:calendar_feeds].where(withdrawn_at: nil).update(withdrawn_at: Time.now) }

  it "is read without signing in, by whoever has the link, until it is withdrawn" do
    id = quote
    take(id)
    row = on_board(id)
    whole, own = [nil, technician].map { |person| feed(person) }
    expect(@owner.call(:post, "/api/calendar/feeds", { person: nil }).last["error"]["code"]).to eq("feed_there")
    status, text, type = read(whole["url"])
    expect([status, type]).to eq([200, "text/calendar; charset=utf-8"])
    event = events(text).find { |one| one.uid == "job-#{row["id"]}@nimble-ledger" }
    expect(event.summary).to include(row["plate"], row["title"])
    start = NimbleLedger::WallClock.new(board["now"]).text(row["course"].first["from"])
    expect(event.dtstart.strftime("%Y-%m-%dT%H:%M")).to eq(start)
    expect(event.dtstart.ical_params["tzid"].join).to eq(@zone.identifier)
    expect(text).not_to include("Calloway") # no customer's name is in it
    expect(events(read(own["url"])[1]).map(&:uid)).to eq([event.uid])
    expect(@advisor.call(:get, "/api/calendar/feeds").first).to eq(403)
    left = @owner.call(:delete, "/api/calendar/feeds/#{whole["id"]}").last["feeds"]
    expect(left.map { |one| one["id"] }).to eq([own["id"]])
    expect(read(whole["url"]).first).to eq(404)
    expect(read(whole["url"].sub(/.{5}\.ics/, "aaaaa.ics")).first).to eq(404)
    expect(@db[:calendar_feeds].select_map(:digest).join).not_to include(whole["url"][-20, 16])
  end

  it "shows one person their own, with what they are away for" do
    calendar = @owner.call(:get, "/api/calendar").last
    both = calendar["everybody"].first(2).map { |row| { id: row["id"], works: true, hours: nil, lunch: nil } }
    away = [{ person: both[0][:id], from: day(2, "08:00"), to: day(2, "12:00"), why: "doctor" }]
    kept = { revision: calendar["revision"], bays: [{ id: "1", equipment: [] }], people: both, away: away, closed: [] }
    expect(@owner.call(:put, "/api/calendar", kept).first).to eq(200)
    mine, other = both.map { |row| events(read(feed(row[:id])["url"])[1]) }
    expect(mine.map(&:summary)).to include(/: doctor\z/)
    expect(other.map(&:summary)).not_to include(/doctor/)
  end

  describe "a file that is read in" do
    def import(text) = @owner.call(:post, "/api/calendar/import", { text: text })

    def file(*events)
      lines = events.map { |event| ["BEGIN:VEVENT", "UID:#{event.hash}", *event, "END:VEVENT"] }
      ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Anybody//EN", *lines.flatten, "END:VCALENDAR", ""].join("\r\n")
    end

    it "is shown as days and times of the shop's wall, and keeps nothing" do
      compact = ->(offset) { day(offset).delete("-") }
      before = @owner.call(:get, "/api/calendar").last
      _status, found =
        import(
          file(
            ["DTSTART;VALUE=DATE:#{compact.call(1)}", "DTEND;VALUE=DATE:#{compact.call(3)}", "SUMMARY:Fair"],
            ["DTSTART:#{compact.call(4)}T090000", "DTEND:#{compact.call(4)}T100000", "SUMMARY:Dentist"],
            ["DTSTART;VALUE=DATE:20200101", "SUMMARY:Long ago"],
            ["DTSTART:#{compact.call(4)}T090000Z", "RRULE:FREQ=WEEKLY", "SUMMARY:Choir"],
            ["DTSTART:#{compact.call(5)}T090000", "DTEND:#{compact.call(5)}T080000", "SUMMARY:Backwards"]
          )
        )
      expect(found["events"]).to eq(
        [
          { "from" => day(1, "00:00"), "to" => day(3, "00:00"), "whole_days" => true, "what" => "Fair" },
          { "from" => day(4, "09:00"), "to" => day(4, "10:00"), "whole_days" => false, "what" => "Dentist" }
        ]
      )
      expect(found["left_out"].map { |row| row["count"] }).to eq([1, 1, 1])
      expect(found["left_out"].map { |row| row["why"] }.join).to include(
        "over already",
        "again and again",
        "ends before"
      )
      expect(@owner.call(:get, "/api/calendar").last).to eq(before)
    end

    it "takes times of another zone to the shop's wall" do
      summer = Date.new(Date.today.year + 1, 7, 6)
      _status, found =
        import(file(["DTSTART:#{summer.strftime("%Y%m%d")}T090000Z", "DTEND:#{summer.strftime("%Y%m%d")}T100000Z"]))
      wall = @zone.utc_to_local(Time.utc(summer.year, 7, 6, 9)).strftime("%Y-%m-%dT%H:%M")
      expect(found["events"].first["from"]).to eq(wall)
      expect(wall).to end_with("T10:00") # an hour ahead there in summer
      times = %w[DTSTART;TZID=Asia/Tokyo:20300107T180000 DTEND;TZID=Asia/Tokyo:20300107T190000]
      expect(import(file(times)).last["events"].first["from"]).to eq("2030-01-07T09:00")
      times = %w[DTSTART;TZID=Somewhere:20300107T180000 DTEND;TZID=Somewhere:20300107T190000]
      expect(import(file(times)).last["events"].first["from"]).to eq("2030-01-07T18:00")
    end

    it "takes a time the clocks leave out for the hour after it" do
      gap = %w[DTSTART;TZID=Europe/Berlin:20300331T023000 DTEND;TZID=Europe/Berlin:20300331T060000]
      expect(import(file(gap)).last["events"].first["from"]).to eq("2030-03-31T02:30") # 3:30 there, 2:30 here
    end

    it "is refused where it is none" do
      ["", "hello", "BEGIN:VCALENDAR", "id;finished\n1;2"].each do |text|
        status, answer = import(text)
        expect([status, answer.dig("error", "details", 0, "path") || answer["events"]]).to eq([422, "/text"]).or(
          eq([200, []])
        ).or eq([400, "/text"])
      end
    end
  end

  describe "a country's holidays" do
    it "are offered by the country the shop's language is at home in, or another" do
      _status, found = @owner.call(:get, "/api/calendar/holidays")
      expect(found["regions"]).to include("gb", "gb_sct", "de")
      dates = @owner.call(:get, "/api/calendar/holidays?region=gb").last["days"].map { |row| row["date"] }
      expect(dates.grep(/-12-25\z/).size).to eq(1)
      expect(dates).to eq(dates.uniq.sort)
      expect(@owner.call(:get, "/api/calendar").last["closed"]).to eq([])
    end

    it "are refused for a region nobody knows" do
      status, answer = @owner.call(:get, "/api/calendar/holidays?region=atlantis")
      expect([status, answer["error"]["details"].first["path"]]).to eq([422, "/region"])
    end
  end
end
