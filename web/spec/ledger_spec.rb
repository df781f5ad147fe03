# frozen_string_literal: true

require_relative "spec_helper"

# Promise against truth, as the owner and a technician see it.
RSpec.describe "the ledger", type: :feature do
  before { size(1280, 800) }

  def learned
    visit "/ledger"
    expect(page).to have_css("h1", text: "Promise and truth")
    expect(page).to have_text("What costs most", wait: 60)
    expect(page).to have_no_text("reading the newest", wait: 60)
  end

  it "shows the owner which engine costs most, whether promises hold, and the jobs behind a figure" do
    sign_in("owner@merrow.example")
    learned
    within("section[aria-label='What costs most']") do
      expect(first("dt").text).to eq("JIV6")
      expect(first("dd.said").text).to match(/\d+ % over: \d+ jobs, .* h beyond the quote/)
    end
    expect(page).to have_css("svg[aria-label*='80 of 100 should be within']")
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

  # A wrong time is corrected by an entry against it; the figure it stood in moves.
  def correct
    all("[role=dialog] button", text: "Correct").first.click
    fill_in "It took, hours", with: "9"
    fill_in "Why", with: "the clock ran over lunch"
    click_button "Write the correction"
    expect(page).to have_text("corrected: the clock ran over lunch")
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
