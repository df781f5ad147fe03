# frozen_string_literal: true

require_relative "spec_helper"

# Several scopes in one quote, what is added while it is open, and the states between.
RSpec.describe "scopes and states", type: :feature do
  before { sign_in }

  def stored(id) = Client.as("advisor@merrow.example").call(:get, "/api/quotes/#{id}").last

  it "puts a second scope beside the first, turns between them, and saves both" do
    id = made_quote("4-TRE-1M", [5])
    open_page(id)
    first = total
    press("n")
    expect(page).to have_text("2 of 2")
    press("a")
    all_six = total
    expect(all_six).not_to eq(first)
    expect(page).to have_text("dashed: scope 1")
    press("[")
    expect(page).to have_text("1 of 2")
    expect(total).to eq(first)
    press("s")
    expect(page).to have_text("revision 1 saved")
    scopes =
      TestServer.db[:quote_scopes]
        .join(:quote_revisions, shop_id: :shop_id, id: :revision_id)
        .where(quote_id: id)
        .order(:position)
    expect(scopes.select_map(Sequel[:quote_scopes][:total_cents]).map { |cents| money(cents) }).to eq([first, all_six])
  end

  it "adds what is nearly free with one press, at the price it promised" do
    id = made_quote("4-TRE-1M", [5])
    open_page(id)
    total
    sheet = stored(id)["sheet"]
    promised = sheet["estimate"]["price"]["total_cents"] + sheet["while_open"].first["added_cents"]
    press("u")
    expect(page).to have_css("button[aria-label^='Cylinder 1,'][aria-pressed=true]")
    expect(total).to eq(money(promised))
    expect(stored(id)["draft"]["content"]["scopes"][0]["cylinders"]).to match_array([1, 3, 5])
  end

  it "shows a car with nothing chosen, soundings and all, and cannot save it" do
    open_page(made_quote("8-LIB-8M", []))
    expect(page).to have_text("Nothing chosen yet")
    expect(page).to have_text("Choose a cylinder, or other work")
    press("5", "p", "c")
    expect(page).to have_text("No work chosen yet")
    expect(page).to have_text("Choose the work for cylinder 5")
    press("5", "p", "c")
    expect(page).to have_text("Nothing chosen yet")
    expect(page).to have_css("button[aria-label*='hours if done alone']", count: 6)
    expect(page).to have_button("Save", disabled: true)
    accessible
  end

  it "says so where the work chosen is not on the cylinder chosen" do
    open_page(made_quote("4-TRE-1M", [6], works: %w[tube-seal]))
    expect(page).to have_text("Tube seals: none at cylinder 6.")
    expect(page).to have_css("aside", text: "Choose other work, or another cylinder")
    press("p")
    total
    expect(page).to have_no_text("none at cylinder 6")
  end

  it "takes in a car the shop does not know, and goes straight to its quote" do
    press(:escape)
    click_button "Add a vehicle"
    fill_in "Plate", with: "nw 77 new"
    fill_in "Make and model", with: "Pellwick Breve"
    expect(page).to have_button("Add and start a quote", disabled: true)
    find_one "Engine", "sideways 4 cylinders", "SK18"
    fill_in "Year", with: "2019"
    fill_in "Owner", with: "Newt Quillan"
    accessible
    click_button "Add and start a quote"
    expect(page).to have_text("NW 77 NEW")
    expect(page).to have_text("plugs never changed, as far as known")
    visit "/"
    click_button "Add a vehicle"
    fill_in "Plate", with: "NW 77 NEW"
    fill_in "Make and model", with: "Pellwick Breve"
    find_one "Engine", "SK18", "SK18"
    click_button "Add and start a quote"
    expect(page).to have_text("This plate is already here")
  end

  it "lets a technician look and change nothing" do
    id = made_quote("4-TRE-1M", [5])
    click_button "Sign out"
    expect(page).to have_field("E-mail")
    sign_in "bay@merrow.example"
    open_page(id)
    expect(page).to have_button("Save", disabled: true)
    press("1")
    expect(page).to have_css("button[aria-label^='Cylinder 1,'][aria-pressed=false]")
  end

  it "says so when a quote is not there, and when the sign-in is wrong" do
    visit "/quotes/#{SecureRandom.uuid}"
    expect(page).to have_text("There is no such quote in this shop")
    click_button "Sign out"
    expect(page).to have_field("E-mail")
    fill_in "E-mail", with: "advisor@merrow.example"
    fill_in "Password", with: "wrong"
    click_button "Sign in"
    expect(page).to have_css("[role=alert]", text: "check the e-mail and the password")
  end

  it "shows each layer's minutes on hover and focus, in step with the list" do
    open_page(made_quote("4-TRE-1M", [5]))
    total
    find("svg .stroke[aria-label^='Off: Upper intake manifold']").hover
    expect(page).to have_css("tr[data-active]", text: "Upper intake manifold")
    expect(page).to have_css("p", text: /Off: Upper intake manifold, \d+ min/)
  end

  it "moves nothing when the system asks for no motion, and keeps the engine library readable" do
    page.driver.browser.execute_cdp(
      "Emulation.setEmulatedMedia",
      features: [{ name: "prefers-reduced-motion", value: "reduce" }]
    )
    visit "/engines"
    expect(page).to have_css("tbody tr", minimum: 18)
    accessible
  end
end
