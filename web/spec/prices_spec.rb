# frozen_string_literal: true

require_relative "spec_helper"
require "tempfile"

# The price list: what is missing is set where it is missed, and a supplier's list is seen before it is kept.
RSpec.describe "prices", type: :feature do
  # An engine whose plug nobody has priced yet, and a car that has it.
  def unpriced(code)
    owner = Client.as("owner@merrow.example")
    profile = owner.call(:get, "/api/engines/SK18").last["profile"]
    owner.call(
      :post,
      "/api/engines",
      profile.merge(
        "code" => code,
        "name" => "Inline four, #{code}",
        "plug" => profile["plug"].merge("part" => "PLG-#{code}")
      )
    )
    owner.call(
      :post,
      "/api/vehicles",
      { plate: "#{code} CAR", description: "Pellwick test car", engine_code: code, year: 2016 }
    )
  end

  def file(text) = Tempfile.create(%w[list .csv]).tap { |handle| handle.write(text) }.tap(&:close).path

  it "completes a quote whose part had no price" do
    unpriced("WPA")
    id = made_quote("WPA CAR", [1], works: ["plug"], email: "owner@merrow.example")
    sign_in("owner@merrow.example")
    open_page(id)
    expect(page).to have_text("no price for PLG-WPA")
    accessible
    click_link "Prices", match: :first
    expect(page).to have_css("section[aria-label='Without a price'] tr", text: "PLG-WPA")
    accessible
    click_button "Set a price for PLG-WPA"
    accessible
    fill_in "Supplier", with: "Quayside Supply"
    fill_in "Costs, USD", with: "7,5"
    click_button "Keep"
    expect(page).to have_text("7,5 was not taken: write decimals like 9.5.")
    expect(find_field("Costs, USD").value).to eq("")
    fill_in "Costs, USD", with: "7"
    fill_in "Description", with: "Spark plug, test"
    click_button "Keep"
    expect(page).to have_no_css("[role=dialog]")
    expect(page).to have_css("tr", text: "Spark plug, test")
    open_page(id)
    total
    expect(page).to have_text("Spark plug, test")
    expect(page).to have_no_text("Incomplete:")
  end

  it "shows what a supplier's list would change, and keeps it after a yes" do
    sign_in("owner@merrow.example")
    visit "/prices"
    expect(page).to have_css("td", text: "COI-80409")
    press("i")
    list = file("part,description,supplier,cost\nZW-1,Plug for tests,Wharf,4.20\nZW-2,,Wharf,a lot\n")
    attach_file(list) { click_button "Choose a file" }
    expect(page).to have_text("1 new; 1 cannot be taken and stays out.")
    expect(page).to have_text("Stays out: cost a lot is no amount like 12.50.")
    accessible
    find("button", text: /Keep 1 row as revision/).click
    expect(page).to have_no_css("[role=dialog]")
    press("/")
    fill_in "Part number, description, supplier", with: "ZW-1"
    expect(page).to have_css("tr", text: /ZW-1.*4\.20.*8\.40/m)
  end

  it "shows every supplier of a part, and takes an offer and a list price away again" do
    owner = Client.as("owner@merrow.example")
    rows = [
      { part: "ZW-5", description: "Part for two suppliers", supplier: "Wharf", cost: "4.00" },
      { part: "ZW-5", supplier: "Quayside Supply", cost: "5.00", list: "7.00" }
    ]
    owner.call(:post, "/api/prices", { revision: owner.call(:get, "/api/prices").last["revision"], rows: rows })
    sign_in("owner@merrow.example")
    visit "/prices"
    fill_in "Part number, description, supplier", with: "ZW-5"
    expect(page).to have_css("tr", text: /Wharf.*Quayside Supply.*4\.00.*5\.00.*7\.00\s+at most 7\.00/m)
    click_button "4.00: change the price of ZW-5 at Wharf"
    click_button "No longer offered"
    expect(page).to have_css("tr", text: /ZW-5.*5\.00.*7\.00/m)
    expect(page).to have_no_css("tr", text: "Wharf")
    click_button "5.00: change the price of ZW-5 at Quayside Supply"
    fill_in "Sells for at most, USD", with: "", fill_options: { clear: :backspace }
    click_button "Keep"
    expect(page).to have_css("tr", text: /ZW-5.*5\.00.*10\.00/m)
    accessible
  end

  it "refuses a file that is no list, and shows an advisor the report alone" do
    sign_in
    visit "/prices"
    expect(page).to have_css("td", text: "COI-80409")
    expect(page).to have_no_css("td button")
    press("i")
    attach_file(file("part,colour\nA,red\n")) { click_button "Choose a file" }
    expect(page).to have_css("[role=alert]", text: 'has a column "colour", which is not known')
    attach_file(file("part,supplier,cost\nZW-9,Wharf,1.00\n")) { click_button "Choose a file" }
    expect(page).to have_text("The owner imports")
    expect(page).to have_no_css("button", text: /Keep/)
  end
end
