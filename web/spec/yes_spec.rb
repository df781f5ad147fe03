# frozen_string_literal: true

require_relative "spec_helper"

# From a known customer to a page that was sent, and to a yes that is kept: the presses are counted.
RSpec.describe "the yes", type: :feature do
  def offer_saved(plate, cylinders, email: "advisor@merrow.example")
    id = made_quote(plate, cylinders)
    client = Client.as(email)
    client.save(id)
    id
  end

  def offered(id, channel: "text", **rest)
    given = { revision: 1, channel: channel, recipient: "Ines Calloway", address: "555 0101" }.merge(rest)
    Client.as("advisor@merrow.example").call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first
  end

  # Counts what is pressed.
  def presses = @presses ||= 0

  def type(*keys)
    keys.each { |key| press(key) }
    @presses = presses + keys.size
  end

  def click(name)
    click_button(name, exact: false)
    @presses = presses + 1
  end

  it "sends a known customer their page in at most twelve presses from the Counter" do
    sign_in
    type("t", "r", "e")
    expect(page).to have_button("Start a quote for 4-TRE-1M", match: :first)
    type(:enter)
    expect(page).to have_text("What lies over each cylinder")
    type("5")
    expect(total).to match(/\$\d{3}\.\d\d/)
    type("s")
    expect(page).to have_text("revision 1 saved")
    type(".")
    expect(page).to have_text("What is offered")
    expect(page).to have_field("Phone", with: "555 0141")
    accessible
    # a limit that could not be kept is said at its field, and nothing is sent
    limit = find("td.limit input")
    limit.fill_in(with: "1")
    click_button "Send"
    expect(page).to have_css("td.limit", text: "Is below the total.")
    expect(page).to have_no_text("Waiting for a yes")
    limit.fill_in(with: "2000")
    click("Send")
    expect(page).to have_text("Waiting for a yes")
    expect(page).to have_text("Text to 555 0141")
    expect(presses).to be <= 12
    expect(page).to have_css("iframe[title='The customer\\'s page']")
    within_frame(find("iframe")) { expect(page).to have_text("What could happen") }
  end

  it "keeps a yes by phone in four presses from the saved quote" do
    id = offer_saved("4-TRE-1M", [5])
    sign_in
    open_page(id)
    type(".")
    click("Read out")
    expect(page).to have_css("blockquote", text: "May we go ahead")
    click("Yes, up to")
    expect(page).to have_field("Who says so", with: "Ines Calloway")
    accessible
    click("Keep the yes")
    expect(page).to have_text("Ines Calloway said yes by phone, up to")
    expect(presses).to eq(4)
    accessible
    visit "/"
    expect(page).to have_css("section[aria-label='Agreed, for the bay']", text: "4-TRE-1M")
  end

  it "seals nothing by a stray Enter, however often, and not by one in a field" do
    id = offer_saved("4-TRE-1M", [5])
    sign_in
    open_page(id)
    type(".")
    expect(page).to have_text("What is offered")
    3.times { page.driver.browser.action.send_keys(:enter).perform }
    click("Read out")
    expect(page).to have_css("blockquote", text: "May we go ahead")
    3.times { page.driver.browser.action.send_keys(:enter).perform }
    expect(page).to have_button("Yes, up to", exact: false)
    click("Yes, up to")
    find_field("Who says so").send_keys(:enter, :enter)
    expect(page).to have_button("Keep the yes")
    expect(page).to have_no_text("said yes by phone")
    fill_in "Who says so", with: ""
    click("Keep the yes")
    expect(page).to have_no_text("said yes by phone")
  end

  it "shows at the Counter what happens elsewhere, at once: a question, a no" do
    id = offer_saved("4-TRE-1M", [1])
    sent = offered(id)
    sign_in
    expect(page).to have_css("section[aria-label='Waiting for a yes']", text: "Ines Calloway")
    link = Client.new
    link.header "Content-Type", "application/x-www-form-urlencoded"
    link.post(URI(sent["link"]).path, URI.encode_www_form(act: "question", question: "Is Friday fine?"))
    expect(page).to have_css("section[aria-label='They ask']", text: "Is Friday fine?")
    accessible
    find("section[aria-label='They ask'] li", text: "Is Friday fine?").click_button("Answer", exact: false)
    expect(page).to have_text("They ask: “Is Friday fine?”")
    click_button "Answered"
    expect(page).to have_no_text("They ask:")
  end

  it "follows what the customer does on their page, and takes another way of sending in place of the first" do
    id = offer_saved("4-TRE-1M", [5])
    sign_in
    open_page(id)
    type(".")
    click("Read out")
    expect(page).to have_css("blockquote", text: "May we go ahead")
    click("Send it another way")
    expect(page).to have_field("Phone", with: "555 0141")
    accessible
    click("Send")
    expect(page).to have_text("Text to 555 0141")
    sent = Client.as("advisor@merrow.example").call(:get, "/api/quotes/#{id}/yes").last["offers"].first
    link = Client.new
    link.header "Content-Type", "application/x-www-form-urlencoded"
    limit = sent["scopes"].first["limit_cents"]
    link.post(URI(sent["link"]).path, URI.encode_www_form(act: "yes-0-#{limit}", name: "Ines"))
    expect(page).to have_text("Ines said yes on the customer's page")
    expect(page).to have_no_button("Yes, up to", exact: false)
    expect(page).to have_css("a", text: /job \d+/)
  end

  it "asks how to go on after a break above the limit, from the Counter with one press" do
    plate = another_car("5-TOW-4I")
    id = made_quote(plate, (1..8).to_a, works: %w[plug])
    client = Client.as("advisor@merrow.example")
    client.save(id)
    offer = offered(id, channel: "phone", recipient: "Ada Island")
    limit = offer["scopes"].first["limit_cents"]
    said = { position: 0, answer: "yes", how: "phone", name: "Ada", limit_cents: limit }
    client.call(:post, "/api/offers/#{offer["id"]}/answers", said)
    job = client.call(:get, "/api/jobs").last["jobs"].find { |row| row["quote_id"] == id }
    marks =
      (1..8).map do |n|
        at = (Time.now.utc + n).strftime("%FT%T.000Z")
        { id: "b#{n}", at: at, kind: "out", plug: "plug-#{n}", outcome: "broken" }
      end
    sign_in
    client.call(:post, "/api/jobs/#{job["id"]}/marks", { device: "tablet", marks: marks })
    row = find("section[aria-label='Stopped, above what was agreed'] li", text: plate)
    expect(row).to have_text("Plug 1, plug 2")
    accessible
    row.click_button("Ask", exact: false)
    expect(page).to have_text("A supplement to what was agreed")
    expect(page).to have_css("tr", text: "Take it out and finish")
    expect(page).to have_css("tr", text: "Stop and close it up")
    within_frame(find("iframe")) { expect(page).to have_text("Something gave way. We stopped and ask.") }
    click("Read out")
    expect(page).to have_css("blockquote", text: "Take it out and finish")
    click_button "Yes, up to", match: :first, exact: false
    click_button "Keep the yes"
    expect(page).to have_text("said yes by phone, up to", minimum: 2)
    visit "/"
    expect(page).to have_no_css("section[aria-label='Stopped, above what was agreed'] li", text: plate)
  end

  describe "the customer's page" do
    let(:sent) { offered(offer_saved("4-TRE-1M", [5])) }
    let(:address) { URI(sent["link"]).path }

    it "is clean, small, and takes a yes with a name; its link in an open tab then says where it stands" do
      size(390, 844)
      visit address
      accessible
      sizes = page.evaluate_script("performance.getEntriesByType('resource').map((r) => r.encodedBodySize)")
      whole = page.evaluate_script("performance.getEntriesByType('navigation')[0].encodedBodySize")
      expect(whole + sizes.sum).to be < 60_000
      other = window_opened_by { page.execute_script("window.open(location.href)") }
      click_button("Yes to", exact: false)
      expect(page).to have_css("[role=alert]", text: "Please type your name")
      fill_in "Your name", with: "Ines Calloway"
      click_button("Yes to", exact: false)
      expect(page).to have_text("Ines Calloway said yes to")
      accessible
      within_window(other) do
        fill_in "Your name", with: "Ines Calloway"
        click_button("Yes to", exact: false)
        expect(page).to have_css("[role=alert]", text: "decided meanwhile")
        expect(page).to have_text("Ines Calloway said yes to")
      end
    end

    it "reads and answers without scripts" do
      page.driver.browser.execute_cdp("Emulation.setScriptExecutionDisabled", value: true)
      visit address
      expect(page).to have_text("What could happen")
      find("summary", text: "No, thank you").click
      click_button "Send the no"
      expect(page).to have_text("You said no to")
    ensure
      page.driver.browser.execute_cdp("Emulation.setScriptExecutionDisabled", value: false)
    end

    it "is noted as looked at once a person has it before them" do
      visit address
      expect(page).to have_text("What could happen")
      row = TestServer.db[:offers].where(id: sent["id"])
      Timeout.timeout(20) { sleep 0.1 until row.get(:seen_at) }
      expect(row.get(:seen_at)).to be_within(60).of(Time.now)
    end

    it "prints on one page" do
      visit address
      paper = page.driver.browser.execute_cdp("Page.printToPDF", paperWidth: 8.27, paperHeight: 11.69)["data"]
      expect(PDF::Inspector::Page.analyze(Base64.decode64(paper)).pages.size).to eq(1)
    end
  end
end
