# frozen_string_literal: true

require_relative "spec_helper"

# "When can I have it?" From the phone to a promise that could not be kept: a time is taken on the quote, the day shows
# it, a move says what it does and is taken back, the customer is called.
RSpec.describe "the day", type: :feature do
  let(:shop_id) { TestServer.db[:accounts].where(email: "advisor@merrow.example").get(:shop_id) }

  # What others booked is not on the board.
  before { TestServer.db[:bookings].where(ended_at: nil).update(ended_at: Time.now) }
  after { TestServer.db[:bookings].where(ended_at: nil).update(ended_at: Time.now) }

  # Takes the second of the times that are offered: tomorrow or this evening, whatever the hour is now.
  def take_a_time(id)
    open_page(id)
    total
    expect(page).to have_css("dt", text: /\AReady when here by/)
    press("/")
    expect(page).to have_css("[role=dialog] li", minimum: 3)
    accessible
    within("[role=dialog]") { all("button", text: "Take")[1].click }
    expect(page).to have_css("[role=dialog]", text: /Bring it .*, ready .*/)
    expect(page).to have_css("[role=dialog]", text: "firm with the yes")
    press(:escape)
    expect(page).to have_css("dt", text: /\AReady here .*holds \d+ of 100/)
  end

  it "takes a time on the quote, shows it on the board, moves it with a look before, and calls when it sinks" do
    sign_in
    first = made_quote("4-TRE-1M", [5])
    other = made_quote("6-TRM-4M", [2])
    take_a_time(first)
    take_a_time(other)
    visit "/day"
    expect(page).to have_css("h1", text: "as it will go")
    press("n")
    expect(page).to have_text("Whose work")
    press("v")
    %w[4-TRE-1M 6-TRM-4M].each { |plate| expect(page).to have_css("td", text: plate) }
    accessible
    find("td button", text: "6-TRM-4M").click
    within("section[aria-label='Job of 6-TRM-4M']") do
      expect(page).to have_text(/holds \d+ of 100/)
      find("button[aria-haspopup=listbox]").click
    end
    find("[role=option]:not([aria-selected=true])", match: :first).click
    within("section[aria-label='Job of 6-TRM-4M']") do
      expect(page).to have_text(/Ready .*\./)
      click_button "Move it"
    end
    expect(page).to have_text("6-TRM-4M was moved.")
    press("u")
    expect(page).to have_no_text("was moved.")
    press("v")
    carried
    sinks
    expect(page).to have_text(/Call .* holds \d+ times in 100\./)
    accessible
    click_button "Called"
    expect(page).to have_no_text(/Call .* holds/)
  end

  # A job carried to another row is proposed there, and stands where it was until the move is made.
  def carried
    all("section[aria-label='How full'] button").find do |bar|
      bar.click
      page.has_css?("[data-carries]", wait: 1)
    end
    shape = find("[data-carries] .frame", match: :first, visible: :all).native
    name = all(".board svg > g > text[font-weight='650']").max_by { |text| (text.native.rect.y - shape.rect.y).abs }
    carry(shape, name.native)
    expect(page).to have_css("[role=status]", text: name.text)
    expect(page).to have_button("Move it", disabled: false)
    click_button "Leave it"
    expect(page).to have_no_button("Move it")
  end

  def carry(what, onto) = page.driver.browser.action.click_and_hold(what).move_to(onto).release.perform

  # The promise is moved to before anything can be ready.
  def sinks
    booking = TestServer.db[:bookings].where(shop_id: shop_id, ended_at: nil).order(:created_at).last
    early = TestServer.db[:bookings].where(id: booking[:id]).get(:arrives)
    client = Client.as("advisor@merrow.example")
    version = client.call(:get, "/api/day").last["version"]
    client.call(:put, "/api/bookings/#{booking[:id]}", { version: version, promise: early, chance: 0.5 })
  end

  # A file as calendar programs write it: a whole day, thirty days from now.
  def calendar_file
    day = (Date.today + 30).strftime("%Y%m%d")
    event = ["BEGIN:VEVENT", "UID:1", "DTSTART;VALUE=DATE:#{day}", "SUMMARY:Island fair", "END:VEVENT"]
    text = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Anybody//EN", *event, "END:VCALENDAR", ""].join("\r\n")
    Tempfile.create(%w[fair .ics]) { |file| file.write(text) && file.flush && yield(file.path) }
  end

  it "closes days by a country's holidays and by a file, and gives and withdraws a link for other calendars" do
    sign_in("owner@merrow.example")
    visit "/calendar"
    click_button "Holidays…"
    expect(page).to have_css("[role=dialog]", text: "Christmas Day")
    accessible
    find("button[aria-label='close that day: Christmas Day']").click
    click_button "Done"
    click_button "Read a calendar file…"
    calendar_file do |path|
      attach_file(path) { click_button "Choose a file" }
      expect(page).to have_css("[role=dialog]", text: "Island fair")
    end
    accessible
    click_button "Take 1"
    expect(page).to have_no_css("[role=dialog]")
    expect(page).to have_text("not kept yet")
    click_button "Keep"
    expect(page).to have_no_text("not kept yet")
    closed = Client.as("owner@merrow.example").call(:get, "/api/calendar").last["closed"]
    expect(closed).to include((Date.today + 30).iso8601).and include(/-12-25\z/)
    within("section[aria-label='In other calendars']") do
      find("button[aria-label='make a link for The whole shop']").click
      address = find("span", text: %r{\Ahttps?://\S+/calendar/\S+\.ics\z}, match: :first).text
      expect(Client.new.tap { |one| one.get(URI(address).path) }.last_response.status).to eq(200)
      find("button[aria-label='withdraw the link of The whole shop']").click
      expect(page).to have_css("button[aria-label='make a link for The whole shop']")
      expect(Client.new.tap { |one| one.get(URI(address).path) }.last_response.status).to eq(404)
    end
  ensure
    owner = Client.as("owner@merrow.example")
    calendar = owner.call(:get, "/api/calendar").last
    kept = calendar.slice("revision", "bays", "people", "away").merge("closed" => [])
    owner.call(:put, "/api/calendar", kept)
  end

  it "keeps who works when: a bay, a lunch, a closed day, and refuses nothing quietly" do
    sign_in("owner@merrow.example")
    visit "/calendar"
    expect(page).to have_css("h1", text: "Calendar")
    accessible
    count = all("[aria-label=Bays] input").size / 2 # a name and what stands in it
    click_button "One more bay"
    fill_in "Name of bay #{count + 1}", with: "yard #{count}"
    click_button "Keep"
    expect(page).to have_no_text("not kept yet")
    visit "/day"
    expect(page).to have_text("#{count + 1} bays")
    size(390, 844)
    visit "/day"
    expect(page).to have_text("as a picture")
    expect(overflow).to be <= 0
  end
end
