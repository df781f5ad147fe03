# frozen_string_literal: true

require_relative "spec_helper"
require_relative "../../server/spec/support/pictures"
require "puma"
require "puma/server"

# A whole job on the tablet, with dirty hands: eight plugs that break, a soak overnight, a break, something found and
# agreed to, and no connection for the middle of it.
RSpec.describe "the bay", type: :feature do
  # A server of this spec's own, which can go away and come back.
  class Shop
    attr_reader :base

    def initialize
      @port = 0
      come_back
      @base = "http://127.0.0.1:#{@port}"
    end

    def go_away = @server.stop(true)

    def come_back
      @server = Puma::Server.new(TestServer.app, nil, min_threads: 2, max_threads: 6)
      @port = @server.add_tcp_listener("127.0.0.1", @port).addr[1]
      @server.run
    end
  end

  before do
    @shop = Shop.new
    Capybara.app_host = @shop.base
    size(820, 1180)
  end

  after do
    Capybara.app_host = nil
    @shop.go_away
  end

  def advisor = @advisor ||= Client.as("advisor@merrow.example")
  def second_tablet = @second_tablet ||= Client.as("bay@merrow.example")

  # Agreed to on the phone.
  def agreed(plate, cylinders, works: %w[plug], **scope)
    start = advisor.start_quote(plate)
    id = start["quote"]["id"]
    agree(id, start["draft"], { "cylinders" => cylinders, "works" => works }.merge(scope.transform_keys(&:to_s)))
    advisor.call(:get, "/api/jobs").last["jobs"].find { |row| row["quote_id"] == id }
  end

  def agree(id, draft, scope)
    content = draft["content"].merge("scopes" => [draft["content"]["scopes"].first.merge(scope)], "active" => 0)
    stored = advisor.call(:put, "/api/quotes/#{id}/draft", { version: draft["version"], content: content }).last
    revision = advisor.save(id, stored).last["revision"]["revision"]
    given = { revision: revision, channel: "phone", recipient: "Ines Calloway" }
    offer = advisor.call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first
    yes = { position: 0, answer: "yes", how: "phone", name: "Ines", limit_cents: offer["scopes"][0]["limit_cents"] }
    advisor.call(:post, "/api/offers/#{offer["id"]}/answers", yes)
  end

  def card(job) = second_tablet.call(:get, "/api/jobs/#{job["id"]}").last
  def group(name) = first("[role=group][aria-label='#{name}']", minimum: 0, wait: 0)

  # Does what the card asks for, once.
  # @param outcome [String] of a plug that comes out now
  def step(outcome: "free")
    if (came = group("How did it come out?"))
      came.click_button(outcome)
    elsif (looks = group("How does it look?"))
      looks.click_button("tan, dry")
      click_button "It is read"
    elsif has_button?("Checked, in range", wait: 0)
      click_button "Checked, in range"
    elsif (ticks = group("Ticked off")) && ticks.has_css?("button[aria-pressed=false]", wait: 0)
      ticks.all("button[aria-pressed=false]").map(&:text).each { |text| ticks.click_button(text, match: :first) }
    else
      press_on
    end
  end

  # The one press that moves the job on, never the finish: that one appears when the server says that nothing is open,
  # which may be between a look and a press. So look and press are one.
  def press_on
    page.execute_script(<<~JS)
      const last = [...document.querySelectorAll("main > div:last-of-type button")].at(-1);
      if (last.textContent.trim() !== "All done: finish") last.click();
    JS
  end

  # Goes on until the card says something, however long a slow machine takes.
  def go_on(outcome: "free")
    over = Process.clock_gettime(Process::CLOCK_MONOTONIC) + 300
    until yield
      if Process.clock_gettime(Process::CLOCK_MONOTONIC) > over
        raise "the card never came to it: #{find("main").text[0, 400]}"
      end

      step(outcome: outcome)
    end
  end

  def said?(text) = has_text?(text, wait: 0)
  def done(job) = card(job)["state"]["done"].except("cure").keys

  it "is done from the card alone, with no connection in the middle, and nothing is lost or double" do
    made = agreed("5-TOW-4I", (1..8).to_a, soak: "overnight")
    pieces = card(made)["sheet"]["pieces"]
    expect(made["title"]).to eq("Plugs 1 to 8")
    sign_in("bay@merrow.example")
    visit "/bay"
    find("a", text: "job #{made["number"]}").click
    expect(page).to have_text("Before the start")
    accessible
    began = Time.now
    click_button "Start"
    expect(page).to have_text("in hand, 1 of #{pieces.size}")
    expect(page).to have_text("all handed in")
    go_on { said?("clean its well") }
    accessible
    go_on { group("How did it come out?") }

    # with no connection: the first plug breaks, the next are done, the page is opened anew
    expect(page).to have_text("all handed in")
    before = done(made).size
    expect(page.evaluate_async_script("navigator.serviceWorker.ready.then(() => arguments[0](true))")).to be(true)
    @shop.go_away
    group("How did it come out?").click_button("broke")
    expect(page).to have_css("section[aria-label='It fights']", text: "Shell: a stopper")
    expect(page).to have_text(/\d+ marks? not handed in yet, no connection/)
    page.refresh
    expect(page).to have_css("section[aria-label='It fights']", text: "Shell: a stopper")
    click_button "The cure begins"
    expect(page).to have_text("min of cure to go")
    click_button "The cure is over"
    click_button "It gave way"
    3.times do
      go_on { said?("Torqued") }
      click_button "Torqued"
    end
    expect(page).to have_text("no connection")

    # meanwhile another tablet marks the same job
    @shop.come_back
    note = { "id" => "other-1", "at" => Time.now.utc.iso8601(3), "kind" => "note", "words" => "torch is in bay 2" }
    second_tablet.call(:post, "/api/jobs/#{made["id"]}/marks", { device: "other", marks: [note] })
    expect(page).to have_text("all handed in", wait: 40)
    expect(done(made).size).to be > before
    expect(done(made)).to match_array(pieces.first(done(made).size).map { |row| row["id"] })
    expect(card(made)["state"]["plugs"].values.count { |plug| plug["in"] }).to eq(3)
    marks = card(made)["marks"]
    expect(marks.map { |mark| mark["id"] }.uniq.size).to eq(marks.size)
    expect(marks.count { |mark| mark["outcome"] == "broken" }).to eq(1)
    expect(page).to have_text("raises the chance that this one fights") if said?("How did it come out?")

    # what is found becomes a supplement; its yes comes back to the card
    click_button "Found something"
    click_button "wrong plug fitted"
    fill_in "In your words", with: "two ranges too hot"
    find("input[type=file]", visible: :all).set(picture_file)
    expect(page).to have_css("img[alt='What was found']")
    click_button "Put it on the card"
    expect(page).to have_text("all handed in", wait: 40)
    expect(card(made)["state"]["found"].first).to include("finding" => "wrong-plug", "words" => "two ranges too hot")

    go_on { said?("All done: finish") }
    click_button "All done: finish"
    expect(page).to have_css("section[aria-label=Finished]", text: "hands on")
    accessible
    actuals = card(made)["actuals"]
    expect(actuals["pieces"].map { |row| row["id"] }).to eq(
      pieces.reject { |row| row["waiting"] }.map { |row| row["id"] }
    )
    expect(actuals["actual_minutes"]).to be_between(0.05, (Time.now - began) / 60)
    expect(actuals["trouble_minutes"]).to be_positive
  end

  def picture_file
    path = File.join(Dir.tmpdir, "found.png")
    File.binwrite(path, Pictures.png(80, 60))
    path
  end

  it "prices what is found beside what is open, and grows by the yes to it" do
    made = agreed("4-TRE-1M", [5], works: %w[plug coil])
    sign_in
    visit "/bay/#{made["id"]}"
    click_button "Start"
    click_button "Found something"
    click_button "oil in the well"
    find("[role=group][aria-label='At which cylinder?']").click_button("5")
    click_button "Put it on the card"
    within("section[aria-label='For what was found']") do
      expect(page).to have_text("Tube seals, rear bank: +")
      expect(page).to have_text("Clean the well again")
      click_button "Into the quote"
    end
    expect(page).to have_text("What lies over each cylinder")
    quote = advisor.call(:get, "/api/quotes/#{made["quote_id"]}").last
    agree(made["quote_id"], quote["draft"], {})
    visit "/bay/#{made["id"]}"
    expect(page).to have_text("in hand, 1 of")
    expect(card(made)["sheet"]["targets"]).to include("seals-rear")
    visit "/"
    expect(page).to have_css("section[aria-label='In the bay']", text: "found something")
    accessible
  end

  it "answers at the bench: a gap in range, a leaf in the wrong unit, a wrench too large" do
    size(1280, 800)
    sign_in
    visit "/bench"
    find_one("Engine", "JIV6", "JIV6")
    expect(page).to have_css("section[aria-label=Torque]", text: "25 N·m (18 lb-ft)")
    fill_in "Leaf that passes", with: "1.05\t"
    expect(page).to have_css("section[aria-label=Gap]", text: "in range: leave it as it is")
    fill_in "Leaf that passes", with: "10.5\t"
    click_button "It is 1.05 mm"
    expect(page).to have_css("section[aria-label=Gap]", text: "in range")
    fill_in "Leaf that passes", with: "1.3\t"
    expect(page).to have_css("section[aria-label=Gap]", text: "too wide: renew it")
    click_button "One more leaf"
    fill_in "and with it", with: "0.0003\t"
    expect(page).to have_css("section[aria-label=Gap]", text: "0.0003 mm is no leaf")
    fill_in "Wrench, full scale N·m", with: "200\t"
    expect(page).to have_css("section[aria-label=Torque]", text: "This wrench is not good for it")
    expect(page).to have_css("section[aria-label=Turn]", text: "1/2 to 2/3 turn")
    accessible
  end

  it "leaves nothing on a tablet somebody signed out of" do
    made = agreed("4-TRE-1M", [3], works: %w[plug coil])
    sign_in("bay@merrow.example")
    visit "/bay/#{made["id"]}"
    click_button "Start"
    expect(page).to have_text("all handed in")
    kept =
      "indexedDB.open('nimble-bay').onsuccess = (e) => { const all = e.target.result.transaction('cards')" \
        ".objectStore('cards').count(); all.onsuccess = () => arguments[0](all.result); }"
    expect(page.evaluate_async_script(kept)).to eq(1)
    click_button "Sign out"
    expect(page).to have_button("Sign in")
    expect(page.evaluate_async_script(kept)).to eq(0)
  end

  it "asks before marks are thrown away that only this tablet has, and keeps them" do
    made = agreed("4-TRE-1M", [3], works: %w[plug coil])
    sign_in("bay@merrow.example")
    visit "/bay/#{made["id"]}"
    click_button "Start"
    expect(page).to have_text("all handed in")
    before = done(made).size
    @shop.go_away
    press_on
    expect(page).to have_text(/\d+ marks? not handed in yet/)
    click_button "Sign out"
    within("[role=dialog]") do
      expect(page).to have_text("Only this device has these marks")
      expect(page).to have_link("job #{made["number"]}", exact: false)
      accessible
    end
    press(:escape)
    @shop.come_back
    expect(page).to have_text("all handed in", wait: 60)
    expect(done(made).size).to be > before
  end

  it "asks for a sign-in where it stands when the session has ended, and hands in everything after it" do
    made = agreed("4-TRE-1M", [3], works: %w[plug coil])
    sign_in("bay@merrow.example")
    visit "/bay/#{made["id"]}"
    click_button "Start"
    expect(page).to have_text("all handed in")
    marks = TestServer.db[:job_marks].where(job_id: made["id"])
    before = marks.count
    account = TestServer.db[:accounts].where(email: "bay@merrow.example").get(:id)
    TestServer.db[:account_active_session_keys].where(account_id: account).delete
    press_on
    expect(page).to have_css("[role=region][aria-label='Sign in again']", wait: 60)
    expect(page).to have_text(/\d+ marks? not handed in yet/)
    within("[role=region][aria-label='Sign in again']") do
      expect(find_field("E-mail").value).to eq("bay@merrow.example")
      fill_in "Password", with: "not the password"
      click_button "Sign in and hand in"
      expect(page).to have_css("[role=alert]")
      fill_in "Password", with: TestServer::PASSWORD
      click_button "Sign in and hand in"
    end
    expect(page).to have_no_css("[role=region][aria-label='Sign in again']", wait: 60)
    expect(page).to have_text("all handed in", wait: 60)
    expect(marks.count).to be > before
  end
end
