# frozen_string_literal: true

require_relative "spec_helper"

# A session that ends while somebody works: the sign-in stands in place, and what was typed goes on.
RSpec.describe "a session that is over", type: :feature do
  # The browser's session no longer counts, as after a night.
  def end_session = page.driver.browser.manage.delete_all_cookies

  def sign_in_again(password = TestServer::PASSWORD)
    within(find("[role=dialog]", text: "Sign in again")) do
      expect(find_field("E-mail").value).to eq("advisor@merrow.example")
      fill_in "Password", with: password
      click_button "Sign in"
    end
  end

  it "asks for the password where one stands, and the cylinder that was pressed is in the quote" do
    id = made_quote("4-TRE-1M", [1])
    sign_in
    open_page(id)
    before = total
    end_session
    cylinder(5).click
    sign_in_again("not the password")
    expect(page).to have_css("[role=dialog] [role=alert]")
    accessible
    sign_in_again
    expect(page).to have_no_css("[role=dialog]")
    expect(total).not_to eq(before)
    visit "/quotes/#{id}"
    expect(page).to have_css("button[aria-label^='Cylinder 5,'][aria-pressed=true]")
  end

  it "keeps what stands in a form" do
    sign_in
    click_button "Add a vehicle", exact: false
    fill_in "Plate", with: "7-NEW-7M"
    fill_in "Make and model", with: "Pellwick Packet van"
    find_one("Engine", "SK18", "SK18")
    end_session
    click_button "Add and start a quote"
    sign_in_again
    expect(page).to have_text("What lies over each cylinder")
    expect(page).to have_text("7-NEW-7M")
  end
end
