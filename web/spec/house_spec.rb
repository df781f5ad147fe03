# frozen_string_literal: true

require_relative "spec_helper"

# The house's own figures: the owner changes one, and what is open is priced with it.
RSpec.describe "house figures", type: :feature do
  def row(label) = find("tr", text: label)

  def change(label)
    row(label).find("button").click
    expect(page).to have_css("[role=dialog] h2", text: label)
  end

  after do
    owner = Client.as("owner@merrow.example")
    shipped =
      owner.call(:get, "/api/house").last["settings"]
        .select { |figure| figure["own"] }
        .map { |figure| figure["name"] } - ["taxes"]
    owner.call(
      :put,
      "/api/house/settings",
      { shipped: shipped, revision: owner.call(:get, "/api/house").last["revision"] }
    )
  end

  it "takes another labor rate, prices an open quote with it, and goes back to the shipped one" do
    id = made_quote("4-TRE-1M", [5], email: "owner@merrow.example")
    sign_in("owner@merrow.example")
    open_page(id)
    before = total
    estimate = -> { Client.as("owner@merrow.example").call(:get, "/api/quotes/#{id}").last["sheet"]["estimate"] }
    line = ->(of, kind) { of["price"]["lines"].select { |one| one["kind"] == kind }.sum { |one| one["cents"] } }
    first = estimate.call
    visit "/house"
    change("Labor rate per hour")
    accessible
    fill_in "Labor rate per hour, USD", with: "", fill_options: { clear: :backspace }
    click_button "Keep"
    expect(page).to have_text("Enter a number.")
    fill_in "Labor rate per hour, USD", with: "1,600,000.00"
    click_button "Keep"
    expect(page).to have_text("Not above 1,000,000.")
    fill_in "Labor rate per hour, USD", with: "160"
    click_button "Keep"
    expect(page).to have_no_css("[role=dialog]")
    expect(row("Labor rate per hour")).to have_text(/160\.00.*this shop's/m)
    open_page(id)
    # so many hours at 15.00 more, and 6 % of that as shop supplies up to their most, to the cent that either rounds
    now = estimate.call
    labor, supplies = %w[labor supplies].map { |kind| line.call(now, kind) - line.call(first, kind) }
    room = [3_500 - line.call(first, "supplies"), 0].max
    expect(labor).to be_within(1).of(first["hours"]["quoted"] * 1_500)
    expect(supplies).to be_within(1).of([labor * 0.06, room].min)
    expect(cents(total) - cents(before)).to eq(labor + supplies)
    visit "/house"
    change("Labor rate per hour")
    click_button "As shipped"
    expect(page).to have_no_css("[role=dialog]")
    expect(row("Labor rate per hour")).to have_text(/145\.00.*as shipped/m)
  end

  it "says at the row what is wrong with brackets, and keeps nothing until it is mended" do
    sign_in("owner@merrow.example")
    visit "/house"
    change("Parts markup")
    accessible
    click_button "Take out row 4"
    click_button "Keep"
    expect(page).to have_css("[role=dialog] [role=alert]", text: "the last must be open")
    click_button "Add a row"
    within(all("[role=dialog] fieldset fieldset").last) { fill_in "factor, ×", with: "1.3" }
    click_button "Keep"
    expect(row("Parts markup")).to have_text("above × 1.3")
  end

  it "closes a day, and opens one at the hours that are typed" do
    sign_in("owner@merrow.example")
    visit "/house"
    change("Opening hours")
    accessible
    within("[role=dialog]") { click_button "Close Sat" }
    type_time "Sun from", "0930am"
    type_time "Sun to", "1200pm"
    accessible
    click_button "Keep"
    expect(row("Opening hours")).to have_text("Sat closed, Sun 09:30 to 12:00")
  end

  it "says anew how the shop is called and how it writes" do
    sign_in("owner@merrow.example")
    visit "/house"
    shop = find("section[aria-label='The shop']")
    before = shop.text
    shop.click_button("Change")
    expect(page).to have_css("[role=dialog] h2", text: "The shop")
    accessible
    fill_in "Name", with: "Merrow Quay & Sons"
    choose_from "Distances in", "miles"
    click_button "Keep"
    expect(page).to have_no_css("[role=dialog]")
    expect(find("section[aria-label='The shop']")).to have_text(/Merrow Quay & Sons.*miles/m)
    page.refresh
    find("section[aria-label='The shop']").click_button("Change")
    fill_in "Name", with: before[/Merrow Quay Garage/]
    choose_from "Distances in", "kilometers"
    click_button "Keep"
    expect(find("section[aria-label='The shop']")).to have_text(/Merrow Quay Garage.*kilometers/m)
  end

  it "shows an advisor the figures without a way to change them" do
    sign_in
    visit "/house"
    expect(row("Labor rate per hour")).to have_text("145.00")
    expect(page).to have_no_css("td button")
  end

  # The parts of a time one after the other, as a keyboard enters them.
  def type_time(label, text)
    first = find(:xpath, "//*[normalize-space(text())='#{label}']/following-sibling::*//*[@role='spinbutton'][1]")
    first.click
    press(*text.chars)
  end

  def cents(text) = text.delete("^0-9").to_i
end
