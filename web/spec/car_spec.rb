# frozen_string_literal: true

require_relative "spec_helper"

# Cars as they are: what an engine's variants were answered with, what is fitted, what was done to which cylinder.
RSpec.describe "the car on the Quote page", type: :feature do
  before { sign_in }

  def vehicle(plate) = Client.as("advisor@merrow.example").vehicle(plate)

  it "asks one question, plans by the answer, and remembers it on the car" do
    open_page(made_quote("8-LIB-8M", [5]))
    with = total
    expect(page).to have_text("Wiper arms and cowl tray")
    expect(page).to have_text("not asked yet: the usual answer is taken")
    within("[role=group][aria-label^='Is there a tray']") { click_button "no" }
    expect(page).to have_no_text("not asked yet")
    expect(page).to have_no_css("td", text: "Wiper arms and cowl tray")
    expect(total).not_to eq(with)
    accessible
    expect(Patience.until { vehicle("8-LIB-8M")["variants"] == { "tray" => "no" } }).to be(true)
    open_page(made_quote("8-LIB-8M", [5]))
    expect(page).to have_css("[role=group][aria-label^='Is there a tray'] button[aria-pressed=true]", text: "no")
  ensure
    Client.as("advisor@merrow.example").call(
      :put,
      "/api/vehicles/#{vehicle("8-LIB-8M")["id"]}/history",
      { variants: {} }
    )
  end

  it "knows what was done to which cylinder, shows it on the drawing, and keeps it with the car" do
    open_page(made_quote("4-TRE-1M", [5]))
    total
    press(",")
    expect(page).to have_css("[role=dialog] h2", text: "Plugs in 4-TRE-1M")
    accessible
    find_field("Cylinder 5: changed at").fill_in(with: "990000")
    find_field("Cylinder 5: years ago").fill_in(with: "1")
    within("[role=dialog]") do
      expect(page).to have_css(
        "[role=alert]",
        text: "Plug 5 cannot have been changed at 990,000 km: the odometer is at 181,400 km."
      )
      expect(find_field("Cylinder 5: changed at").value).to eq("990,000")
      expect(page).to have_button("Note it on the vehicle", disabled: true)
    end
    find_field("Cylinder 5: changed at").fill_in(with: "180000")
    find_field("Cylinder 5: years ago").fill_in(with: "1")
    expect(page).to have_no_css("[role=dialog] [role=alert]")
    choose_from "Fitted, cylinder 5", "multi-piece"
    click_button "Note it on the vehicle"
    expect(page).to have_text("the next quote of this car starts from it")
    click_button "Done"
    expect(cylinder(5)["aria-label"]).to include("plug: 1 y, other plug")
    total
    press("f")
    expect(page).to have_text(/Why [\d.]+ % for plug 5: 7.0 % for its construction/)
    expect(vehicle("4-TRE-1M")["cylinders"]["5"]).to include(
      "plugs_changed_years" => 1,
      "fitted" => {
        "construction" => "multi-piece",
        "interval_km" => 100_000
      }
    )
    press(",")
    click_button "as the car: cylinder 5"
    click_button "Done"
    expect(cylinder(5)["aria-label"]).not_to include("other plug")
  ensure
    Client.as("advisor@merrow.example").call(
      :put,
      "/api/vehicles/#{vehicle("4-TRE-1M")["id"]}/history",
      { cylinders: {}, fitted: nil }
    )
  end

  it "shows what earlier visits found at its cylinder, takes a new finding, and lets one be settled" do
    open_page(made_quote("5-OSS-5D", [2]))
    total
    press(",")
    choose_from "Where", "cylinder 2"
    choose_from "Found", "connector lock broken"
    fill_in "In words", with: "before our time"
    accessible
    click_button "Note it"
    expect(page).to have_css("section li", text: "connector lock broken: before our time")
    click_button "Done"
    expect(cylinder(2)["aria-label"]).to include("found: connector lock broken")
    expect(page).to have_text("1 found earlier")
    accessible
    page.refresh
    expect(cylinder(2)["aria-label"]).to include("found: connector lock broken")
    press(",")
    click_button "Settled"
    expect(page).to have_text("nothing open")
    click_button "Done"
    expect(cylinder(2)["aria-label"]).not_to include("found:")
  ensure
    TestServer.db[:findings].delete
  end

  it "notes what was fitted, shows our warranty at its cylinder, and remembers whose the car was" do
    open_page(made_quote("2-OAK-5W", [3]))
    click_button "The car 2-OAK-5W"
    expect(page).to have_css("[role=dialog] h2", text: "2-OAK-5W")
    accessible
    choose_from "Cylinder", "3"
    click_button "Note it"
    expect(page).to have_text("by us, under warranty until")
    fill_in "Owner", with: "Wren Tolliver"
    click_button "Keep the car as it is here"
    expect(page).to have_text("Before: Oakwood School")
    fill_in "Maker's number", with: "11111111211111111"
    click_button "Keep the car as it is here"
    expect(page).to have_text("check digit")
    press(:escape)
    expect(page).to have_no_css("[role=dialog]")
    expect(page).to have_css("button[aria-label*='Cylinder 3,'][aria-label*='coil: our warranty']")
    expect(page).to have_text("Wren Tolliver")
  end

  it "takes in cars from a file after a yes, and makes two entries of one person one" do
    click_button "Sign out"
    expect(page).to have_field("E-mail")
    sign_in "owner@merrow.example"
    click_button "All cars and quotes"
    click_button "Import"
    file = Tempfile.new(%w[garage .csv])
    file.write("plate,description,engine,name,phone\nIMP 1,Pellwick Breve,SK18,Ines Calloway,\nIMP 2,x,NONE,,\n")
    file.close
    page.attach_file(file.path, make_visible: true) { click_button "Choose a file" }
    expect(page).to have_text("1 new; 1 cannot be taken.")
    accessible
    click_button "Take 1"
    expect(page).to have_no_css("[role=dialog]")
    search("calloway")
    expect(page).to have_button("Start a quote for IMP 1")
    click_button "Open Ines Calloway", match: :first
    expect(page).to have_css("section[aria-label='Perhaps the same person']")
    accessible
    within("section[aria-label='Perhaps the same person']") { find("button").click }
    expect(page).to have_no_css("section[aria-label='Perhaps the same person']")
    expect(find("[role=dialog]")).to have_text("IMP 1")
    expect(find("[role=dialog]")).to have_text("4-TRE-1M")
  end
end
