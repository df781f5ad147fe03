# frozen_string_literal: true

require_relative "spec_helper"

# Promise against truth, as the owner and a technician see it.
RSpec.describe "the ledger", type: :feature do
  before { size(1280, 800) }

  let(:shop_id) { TestServer.db[:accounts].where(email: "owner@merrow.example").get(:shop_id) }

  def learned
    TestServer.learn(shop_id)
    visit "/ledger"
    expect(page).to have_css("h1", text: "Promise and truth")
    expect(page).to have_text("What costs most")
    expect(page).to have_no_text("reading the newest")
  end

  it "shows the owner which engine costs most, whether promises hold, and the jobs behind a figure" do
    sign_in("owner@merrow.example")
    learned
    within("section[aria-label='What costs most']") do
      expect(first("dt").text).to eq("JIV6")
      expect(first("dd.said").text).to match(/\d+ % over: \d+ jobs, .* h beyond the quote/)
    end
    expect(page).to have_css("svg[aria-label*='80 of 100 should be within']")
    expect(page).to have_css("section[aria-label='Promises of when']", text: "Was it ready when we said?")
    expect(page).to have_text(/Printed guide: ours were nearer in \d+ of \d+ jobs/)
    accessible
    [[820, 1180], [640, 400], [390, 844]].each do |width, height|
      size(width, height)
      expect([width, overflow]).to match([width, be <= 0])
    end
    size(1280, 800)
    page.execute_script("document.documentElement.dataset.chart = 'night'")
    accessible
    click_button "JIV6"
    expect(page).to have_css("[role=dialog]", text: "Jobs: JIV6")
    accessible
    correct
  end

  # How far the lesson moves an estimate depends on what other examples finished before.
  LEARNED =
    /Learned from \d+ jobs, \d+ (to|% below to) \d+ % (above|below) the estimate: [\d.]+ h(, not [\d.]+ h| either way)/

  # No lesson is in force for the examples after this one, whatever became of it.
  def untaught
    NimbleServer::Database.within_shop(TestServer.db, shop_id) do
      lessons = NimbleServer::Features::Ledger::Lessons.new(NimbleServer::Shop.new(TestServer.db, shop_id))
      row = lessons.in_force
      lessons.take_back(row[:id]) if row
    end
  end

  # A wrong time is corrected by an entry against it; the figure it stood in moves.
  def correct
    all("[role=dialog] button", text: "Correct").first.click
    fill_in "It took, hours", with: "9"
    fill_in "Why", with: "the clock ran over lunch"
    click_button "Write the correction"
    expect(page).to have_text("corrected: the clock ran over lunch")
  end

  it "offers the lesson with what it would have done, takes it with one press, and a quote keeps both figures" do
    sign_in("owner@merrow.example")
    learned
    box = "section[aria-label='The lesson']"
    expect(page).to have_css(box, text: /lesson is waiting.*held for \d+ in the last 6 months; with the lesson/m)
    click_button "What changes"
    expect(page).to have_css("[role=dialog] tr", text: /JIV6 .* over/)
    accessible
    click_button "Close"
    within(box) { click_button "Take it" }
    expect(page).to have_css(box, text: "The lesson is in force")
    id = made_quote("4-TRE-1M", [5], email: "owner@merrow.example")
    open_page(id)
    expect(page).to have_text(LEARNED)
    click_button "quoted: why?"
    expect(page).to have_css("[role=dialog]", text: /add up to \d+ minutes on average; with what was learned .* \d+\./)
    press(:escape)
    learned
    within(box) { click_button "Take it back" }
    expect(page).to have_css(box, text: "A lesson is waiting")
    open_page(id)
    total
    expect(page).to have_no_text("Learned from")
  ensure
    untaught
  end

  it "ranks what costs most by step, month and soak, and opens the jobs of a month" do
    sign_in("owner@merrow.example")
    learned
    choose_from("By", "by step")
    expect(page).to have_css("dd.said", text: /what was reckoned: \d+ jobs/, match: :first)
    choose_from("By", "by soak")
    expect(page).to have_css("dd.said", text: /of 100 \(.* were expected to/, match: :first)
    choose_from("By", "by month")
    first("section[aria-label='What costs most'] dt button").click
    expect(page).to have_css("[role=dialog] h2", text: /Jobs: \w+ 20\d\d/)
  end

  it "brings a past along from a table: what its rows would do, then a yes" do
    sign_in("owner@hollow.example")
    visit "/ledger"
    mark = SecureRandom.hex(3)
    file = Tempfile.new(%w[past .csv])
    file.write("id,finished,engine,technician,quoted_hours,actual_minutes\n#{mark},2025-03-04,SK18,Ebba,1.5,95\n")
    file.write("#{mark}b,2025-03-05,SK18,Ebba,1.5,-5\n")
    file.close
    click_button "Bring a past along"
    attach_file(file.path) { click_button "Choose a file" }
    expect(page).to have_text("1 job to take; 1 cannot be taken.")
    expect(page).to have_text(/line 3 stays out: actual_minutes/)
    accessible
    click_button "Take 1"
    expect(page).to have_no_css("[role=dialog]")
    expect(TestServer.db[:ledger_entries].where(key: "import:#{mark}").count).to eq(1)
  end

  it "shows a technician the shop and themselves" do
    sign_in("bay@merrow.example")
    learned
    names = all("aside dt").map(&:text)
    expect(names).to include("Col Haddick")
    expect(names).not_to include("Ebba Quillon")
    expect(page).to have_no_link("Export the history")
  end
end
