# frozen_string_literal: true

require_relative "spec_helper"
require_relative "../../server/spec/support/started"

# From an empty folder to the first quote of a real shop's own car, without the demo, as bin/start --empty serves it.
RSpec.describe "the first day of a shop", type: :feature do
  before(:context) { @start = Started.new("--empty") }
  after(:context) { @start.close }

  around do |example|
    app_host = Capybara.app_host
    run_server = Capybara.run_server
    Capybara.run_server = false
    Capybara.app_host = @start.address
    example.run
  ensure
    Capybara.reset_sessions!
    Capybara.app_host = app_host
    Capybara.run_server = run_server
  end

  # What stands in the ledger lines, by their label.
  def price(part, cost)
    click_button "Set a price for #{part}", exact: true
    fill_in "Supplier", with: "Hafenteile"
    fill_in "Costs, EUR", with: cost
    click_button "Keep"
    expect(page).to have_no_css("[role=dialog]")
  end

  it "opens the shop, copies an engine, takes in a car, prices its parts, quotes it, and invites somebody" do
    visit "/"
    expect(page).to have_css("h1", text: "Open the ledger")
    accessible
    open_shop
    copy_engine
    take_in_car
    quote
    join(invite)
  end

  def open_shop
    fill_in "Name", with: "Vane and Daughter"
    choose_from "Numbers and dates as in", "German (Germany)"
    find_one "Currency", "euro", "EUR, Euro"
    choose_from "Distances in", "kilometers"
    choose_from "Paper", "A4"
    find_one "Time zone", "Berlin", "Europe/Berlin"
    fill_in "Labor rate per hour, EUR", with: "1.119,50"
    fill_in "Tax, as the quote calls it", with: "Umsatzsteuer"
    fill_in "Tax rate, %", with: "19"
    expect(page).to have_css("[role=img] dd", text: "1.119,50")
    fill_in "Labor rate per hour, EUR", with: "119,50"
    fill_in "Your name", with: "Aldith Vane"
    fill_in "E-mail", with: "aldith@vane.example"
    fill_in "Password", with: "short"
    click_button "Open the shop"
    expect(page).to have_text("Has fewer than 10 characters.")
    fill_in "Password", with: "eleven-herons"
    click_button "Open the shop"
    expect(page).to have_css("h1", text: "what needs you")
    expect(page).to have_text("The garage is empty.")
    accessible
  end

  def copy_engine
    within("main") { click_link "Engines" }
    expect(page).to have_text("The library is empty.")
    click_button "New engine"
    accessible
    fill_in "Your code for it", with: "VD-14"
    choose "A pattern", allow_label_click: true
    find_one "Pattern", "cover and coils", "Inline four, cover and coils on top"
    click_button "Draw it"
    expect(page).to have_text("began as a pattern")
    accessible
    click_button "Keep as revision 1"
    click_button "Keep it"
    expect(page).to have_text("examples until somebody has timed them")
  end

  def take_in_car
    visit "/"
    click_button "Add a vehicle"
    fill_in "Plate", with: "0-OWN-1V"
    fill_in "Make and model", with: "Own car"
    find_one "Engine", "vd-14", "VD-14"
    fill_in "Odometer, km", with: "88.400"
    click_button "Add and start a quote"
    expect(page).to have_text("What lies over each cylinder")
    cylinder(2).click
    expect(page).to have_text("Incomplete")
  end

  def quote
    address = page.current_path
    visit "/prices"
    set_prices
    visit address
    expect(page).to have_no_text("Incomplete")
    expect(total).to match(/\A\d{2,3},\d\d\s€\z/)
    click_button "Save"
    expect(page).to have_text("revision 1 saved")
    expect(printed(address)).to include("Vane and Daughter").and match(/\d+,\d\d[\s\u00a0]+€/)
    expect(printed(address)).to include("Umsatzsteuer", "88.400 km").and match(/the \d,\d hours is reaching/)
  end

  def set_prices
    rows = "section[aria-label='Without a price'] tbody tr td:first-child"
    parts = all(rows, minimum: 1).map { |cell| cell.text.lines.first.strip }
    parts.each { |part| price(part, "12,40") }
  end

  def printed(address)
    url = URI("#{@start.address}#{address.sub("/quotes", "/api/quotes")}/print.pdf")
    PDF::Inspector::Text.analyze(Net::HTTP.get_response(url, cookies).body).strings.join(" ")
  end

  def cookies
    jar = page.driver.browser.manage.all_cookies.map { |cookie| "#{cookie[:name]}=#{cookie[:value]}" }
    { "Cookie" => jar.join("; ") }
  end

  def invite
    visit "/house"
    click_button "Invite somebody"
    fill_in "E-mail", with: "peder@vane.example"
    choose_from "Works as", "technician"
    accessible
    click_button "Make the link"
    link = find("[data-testid=link]").text
    click_button "Done"
    expect(page).to have_css("section[aria-label=People] li", text: "peder@vane.example")
    accessible
    click_button "Sign out"
    expect(page).to have_field("E-mail")
    link
  end

  def join(link)
    visit link
    expect(page).to have_css("h1", text: "Vane and Daughter")
    accessible
    fill_in "Your name", with: "Peder Lund"
    fill_in "Password", with: "nine-lapwings"
    click_button "Join"
    expect(page).to have_text("Peder Lund, technician")
    expect(page).to have_no_button("Add a vehicle")
    click_button "Sign out"
    expect(page).to have_field("E-mail")
    visit link
    expect(page).to have_text("This link is of no use any more")
  end
end
