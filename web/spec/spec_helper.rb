# frozen_string_literal: true

require_relative "../../server/spec/spec_helper"
require_relative "../../bin/support/browser"
require "axe-rspec"
require "capybara/rspec"

# A browser whose page is just being replaced may say of an element only that something went wrong ("Node with given id
# does not belong to the document"): it is looked for again, like one that is known to be gone.
class ReplacedPages < Capybara::Selenium::Driver
  def invalid_element_errors = super | [Selenium::WebDriver::Error::UnknownError]
end

Capybara.register_driver(:chromium) do |app|
  ReplacedPages.new(
    app,
    browser: :chrome,
    options: Browser.options,
    service: Browser.service,
    http_client: Browser.patient
  )
end
Capybara.default_driver = :chromium
Capybara.javascript_driver = :chromium
Capybara.server = :puma, { Silent: true, Threads: "2:6" }
Capybara.default_max_wait_time = 30
Capybara.app = TestServer.app
# The rules are run in the page itself: by default the gem opens a second window and gives it one second to load, too
# little where the machine stalls.
Axe::Configuration.instance.legacy_mode = true

# A session has the server it was made with: made here, before a spec that brings a server of its own.
Capybara.current_session

# What the journeys do over and over.
module Journeys
  def size(width, height) = Browser.resize(page.driver.browser, width, height)

  def sign_in(email = "advisor@merrow.example")
    visit "/"
    fill_in "E-mail", with: email
    fill_in "Password", with: TestServer::PASSWORD
    click_button "Sign in"
    expect(page).to have_css("h1", text: "what needs you")
  end

  # What the Counter finds for some words.
  def search(words) = find("input[aria-label^='Find a car']").set(words)

  def press(*keys) = page.driver.browser.action.tap { |action| keys.each { |key| action.send_keys(key) } }.perform

  def open_quote(plate = "4-TRE-1M")
    search(plate)
    click_button "Start a quote for #{plate}", match: :first
    expect(page).to have_text("What lies over each cylinder")
    page.current_path[%r{/quotes/([^/]+)}, 1]
  end

  # A quote opened by address, made over the API: quicker than clicking through the Counter.
  def made_quote(plate, cylinders, works: %w[plug coil], email: "advisor@merrow.example")
    client = Client.as(email)
    start = client.start_quote(plate)
    client.choose(start, cylinders, works: works) unless cylinders.empty?
    start["quote"]["id"]
  end

  # A car like one of the demo's, as it was before any example worked on it: for examples that its past would change.
  # @return [String] its plate
  def another_car(plate)
    cars = TestServer.db[:vehicles]
    row = cars.where(plate: plate).first.except(:cylinders, :condition, :variants, :search)
    mine = "#{rand(10..99)}-#{("A".."Z").to_a.sample(3).join}-#{rand(10..99)}"
    past = { plugs_changed_km: 0, plugs_changed_on: nil, compound_used: nil, fitted: nil, plug_fitted: nil }
    cars.insert(row.merge(past, id: SecureRandom.uuid, plate: mine, condition: Sequel.pg_jsonb({ corrosion: "light" })))
    TestServer.db[:vehicles].where(plate: mine).update(search: mine.downcase) if cars.columns.include?(:search)
    mine
  end

  def open_page(id)
    visit "/quotes/#{id}"
    expect(page).to have_text("What lies over each cylinder")
  end

  # The total on the page once it, and everything that explains it, belongs to what is chosen.
  def total
    expect(page).to have_css("[data-testid=total][aria-busy=false]")
    expect(page).to have_no_css("main [aria-busy=true]")
    find("[data-testid=total] .sum").text
  end

  def cylinder(number) = find("button[aria-label^='Cylinder #{number},']")

  # Picks from a list that opens: its name, and the words of the choice.
  def choose_from(label, option)
    find(:xpath, "//*[normalize-space(text())='#{label}']/following-sibling::button[@aria-haspopup='listbox']").click
    find("[role=option]", text: option, exact_text: true).click
    expect(page).to have_no_css("[role=listbox]")
  end

  # Finds one of many by words, as typed.
  def find_one(label, words, option)
    fill_in label, with: words
    find("[role=option]", text: option).click
  end

  def accessible = expect(page).to(be_axe_clean.according_to(:wcag2a, :wcag2aa, :wcag21a, :wcag21aa, :wcag22aa))

  def overflow = page.evaluate_script("document.documentElement.scrollWidth - window.innerWidth")

  def shop_text = NimbleServer::Documents::ShopText.new(locale: "en-US", currency: "USD", exponent: 2)

  def money(cents) = "$#{shop_text.plain(cents)}"
end

RSpec.configure do |config|
  config.include Journeys, type: :feature
  config.before(type: :feature) { size(1280, 800) }
end
