# frozen_string_literal: true

require_relative "spec_helper"

# Screens are loaded when they are opened, and are there when the server is not.
RSpec.describe "screens", type: :feature do
  before { sign_in }

  def loaded =
    page.evaluate_script(
      "performance.getEntriesByType('resource').map((row) => row.name).filter((name) => " \
        "name.endsWith('.js')).map((name) => name.split('/').pop())"
    )

  it "asks for a screen's own script apart from the first, and for the others once the first is up" do
    expect(page.evaluate_script("document.querySelectorAll('script[src]').length")).to eq(1)
    expect(page).to have_text("Waiting for a yes")
    Timeout.timeout(20) { sleep 0.2 until loaded.grep(/HouseRules|PriceRoute|QuoteRoute/).size == 3 }
    expect(loaded.grep(/Counter/).size).to eq(1)
  end

  it "says so plainly when a screen cannot be loaded, with a way back" do
    page.driver.browser.execute_cdp("Network.enable")
    page.driver.browser.execute_cdp("Network.setBlockedURLs", urls: ["*HouseRules*"])
    visit "/house"
    expect(page).to have_css("[role=alert]", text: "This screen could not be loaded")
    page.driver.browser.execute_cdp("Network.setBlockedURLs", urls: [])
    click_button "Load again"
    expect(page).to have_text("Parts markup")
  end
end
