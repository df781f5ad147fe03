# frozen_string_literal: true

require_relative "spec_helper"

# True saves on the page: what is frozen is what was shown, or the page says what changed.
RSpec.describe "saving a quote", type: :feature do
  before { sign_in }

  # The owner changes the rate while an advisor has a quote open.
  def owner_sets(**figures)
    owner = Client.as("owner@merrow.example")
    expect(
      owner.call(
        :put,
        "/api/house/settings",
        { settings: figures, revision: owner.call(:get, "/api/house").last["revision"] }
      ).first
    ).to eq(200)
  end

  after do
    owner = Client.as("owner@merrow.example")
    owner.call(
      :put,
      "/api/house/settings",
      { shipped: ["rate_cents"], revision: owner.call(:get, "/api/house").last["revision"] }
    )
  end

  it "freezes no price nobody saw: both totals and what changed are shown, then the new one is saved" do
    id = made_quote("4-TRE-1M", [5])
    open_page(id)
    before = total
    owner_sets(rate_cents: 90_000)
    press("s")
    expect(page).to have_css(
      "[role=alert]",
      text: "Not saved. You were shown #{before}; the house's figures changed meanwhile"
    )
    expect(page).to have_css("[data-testid=total][aria-busy=false] .sum", text: /\A\$2,/)
    after = total
    expect(find("[role=alert]")).to have_text("it is now #{after}")
    accessible
    expect(TestServer.db[:quote_revisions].where(quote_id: id).count).to eq(0)
    press("s")
    expect(page).to have_text("revision 1 saved")
    expect(page).to have_no_css("[role=alert]")
    expect(money(TestServer.db[:quote_revisions].where(quote_id: id).get(:total_cents))).to eq(after)
  end

  it "saves what is on the page when Save comes quicker than the answer, once" do
    id = made_quote("4-TRE-1M", [1])
    open_page(id)
    total
    press("5", "s", "s")
    expect(page).to have_text("revision 1 saved")
    saved = TestServer.db[:quote_revisions].where(quote_id: id).all
    expect(saved.map { |row| [row[:content]["scopes"][0]["cylinders"], money(row[:total_cents])] }).to eq(
      [[[1, 5], total]]
    )
  end

  it "changes how a customer is called, from the quote, and prints names of any length" do
    id = made_quote("7-OAT-3P", [1])
    Client.as("advisor@merrow.example").save(id)
    open_page(id)
    name =
      "The Honorable Society of Bakers, Confectioners, Pastry Cooks and Their Many Friends on the Isle of Merrow " \
        "and Beyond"
    click_button "Oatham Bakery"
    expect(page).to have_css("[role=dialog] h2", text: "Customer")
    accessible
    fill_in "Name", with: name
    click_button "Keep"
    expect(page).to have_button(name)
    expect(overflow).to be <= 0
    pdf = Client.as("advisor@merrow.example").call(:get, "/api/quotes/#{id}/print.pdf").last
    expect(PDF::Inspector::Text.analyze(pdf).strings.join(" ")).to include("The Honorable Society").and include(
            "Beyond"
          )
    visit "/"
    find("input[aria-label^=Find]").set("Pastry Cooks")
    expect(page).to have_text("7-OAT-3P")
  end

  it "ends every session of an account from its page" do
    Capybara.using_session(:elsewhere) { sign_in("second@merrow.example") }
    Capybara.using_session(:here) do
      sign_in("second@merrow.example")
      click_button "Account"
      accessible
      click_button "Sign out everywhere"
      expect(page).to have_button("Sign in")
    end
    Capybara.using_session(:elsewhere) do
      visit "/engines"
      expect(page).to have_button("Sign in")
    end
  end
end
